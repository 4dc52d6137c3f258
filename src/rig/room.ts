import { convolve } from '#core/dsp/convolve';
import { seededBits } from '#core/stats/random';
import { standardNormal } from '#core/stats/normal';
import { SPEED_OF_SOUND } from './microphone';

type Point = readonly [x: number, y: number, z: number];

/** A rectangular room with one reverberation time, and where the microphone stands in it. */
export interface Room {
  /** Length, width, height in metres; null for a place without reflections. */
  readonly size: Point | null;
  /** Reverberation time in seconds. */
  readonly t60: number;
  readonly microphone: Point;
  /** Background noise, dB SPL, A-weighted. */
  readonly noiseDbA: number;
}

/** The net loft of the demo: carpet, shelves, a window to the harbour. */
export const NET_LOFT: Room = { size: [5.4, 3.9, 2.5], t60: 0.32, microphone: [2.1, 1.7, 1.2], noiseDbA: 30 };
/** A crate lined with sailcloth and kelp, for sweeps and the calibrator: nothing comes back. */
export const PADDED_CRATE: Room = { size: null, t60: 0.1, microphone: [0, 0, 0], noiseDbA: 14 };

/** Sound that reaches the microphone: the direct one, or an image of the source behind a wall. */
export interface Arrival {
  readonly delayS: number;
  readonly distanceM: number;
  /** Amplitude left by the walls, 1 for the direct sound. */
  readonly reflection: number;
  /** Incidence re the axis of the microphone, in degrees. */
  readonly angleDeg: number;
}

/** Images that arrive later than this are part of the diffuse tail. */
export const EARLY_S = 0.02;
const HIGHEST_ORDER = 4;

/** Mean absorption of the walls that gives a reverberation time (Eyring: T = 0.161·V/(−S·ln(1 − a))). */
function wallReflection([x, y, z]: Point, t60: number): number {
  const volume = x * y * z;
  const surface = 2 * (x * y + y * z + x * z);
  return Math.sqrt(Math.exp((-0.161 * volume) / (surface * t60)));
}

/**
 * Direct sound and early reflections by the image-source method (Allen & Berkley, J. Acoust. Soc. Am. 65, 1979) in a
 * rectangular room. The source stands on the long axis in front of the microphone, which is turned away from it.
 *
 * @param room - the room
 * @param distanceM - from source to microphone
 * @param angleDeg - by which the microphone is turned
 */
export function arrivals(room: Room, distanceM: number, angleDeg: number): Arrival[] {
  const direct: Arrival = { delayS: 0, distanceM, reflection: 1, angleDeg };
  if (!room.size) return [direct];
  const { size, microphone } = room;
  const source: Point = [microphone[0] + distanceM, microphone[1], microphone[2]];
  const beta = wallReflection(size, room.t60);
  const turn = (angleDeg * Math.PI) / 180;
  const axis: Point = [Math.cos(turn), Math.sin(turn), 0];
  const found: Arrival[] = [];
  const orders = Array.from({ length: 2 * HIGHEST_ORDER + 1 }, (_, i) => i - HIGHEST_ORDER);
  for (const nx of orders) {
    for (const ny of orders) {
      for (const nz of orders) {
        const bounces = Math.abs(nx) + Math.abs(ny) + Math.abs(nz);
        if (bounces === 0 || bounces > HIGHEST_ORDER) continue;
        const image = [nx, ny, nz].map((n, i) =>
          n % 2 === 0 ? n * size[i] + source[i] : (n + 1) * size[i] - source[i],
        );
        const way = image.map((p, i) => p - microphone[i]);
        const length = Math.hypot(...way);
        const delayS = (length - distanceM) / SPEED_OF_SOUND;
        if (delayS > EARLY_S) continue;
        const cos = way.reduce((s, w, i) => s + w * axis[i], 0) / length;
        found.push({
          delayS,
          distanceM: length,
          reflection: beta ** bounces,
          angleDeg: (Math.acos(Math.max(-1, Math.min(1, cos))) * 180) / Math.PI,
        });
      }
    }
  }
  return [direct, ...found].sort((a, b) => a.delayS - b.delayS);
}

/**
 * Critical distance of an omnidirectional source and microphone: 0.057·√(V/T) (standard room acoustics, from Sabine).
 */
export function criticalDistance(room: Room): number {
  if (!room.size) return Infinity;
  const [x, y, z] = room.size;
  return 0.057 * Math.sqrt((x * y * z) / room.t60);
}

/** Energy of the diffuse tail behind the early part, re the direct sound at one metre. */
export function tailEnergy(room: Room): number {
  const critical = criticalDistance(room);
  return critical === Infinity ? 0 : 10 ** ((-6 * EARLY_S) / room.t60) / critical ** 2;
}

/**
 * The diffuse tail of a room for a dry signal: convolution with exponentially decaying noise whose energy is 1 and
 * which begins where the early reflections end.
 *
 * @param dry - the signal
 * @param sampleRate - in hertz
 * @param t60 - reverberation time in seconds
 * @param seed - of the tail
 * @returns as long as the dry signal and the decay
 */
export function diffuseTail(dry: Float64Array, sampleRate: number, t60: number, seed: string): Float64Array {
  const bits = seededBits(seed);
  const start = Math.round(EARLY_S * sampleRate);
  const impulse = new Float64Array(start + Math.round(1.2 * t60 * sampleRate));
  let energy = 0;
  for (let i = start; i < impulse.length; i++) {
    impulse[i] = standardNormal(bits) * 10 ** ((-3 * (i - start)) / (t60 * sampleRate));
    energy += impulse[i] ** 2;
  }
  const scale = 1 / Math.sqrt(energy);
  return convolve(
    dry,
    impulse.map((x) => x * scale),
    dry.length + impulse.length,
  );
}
