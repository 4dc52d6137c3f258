import { join } from 'node:path';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { diffuseTail, type Room } from '#rig/room';
import type { Voice } from '#rig/take';
import { readClip } from './read-clip';

// Voices and tones that the simulated bench plays; all brought to an RMS of 1.

const loaded = new Map<string, Promise<Voice>>();

/** A dry voice of demo/speech with the tail of a room; kept by the thread. */
export function loadVoice(folder: string, name: string, room: Room): Promise<Voice> {
  const key = `${folder}/${name}/${room.t60}`;
  let voice = loaded.get(key);
  if (!voice) loaded.set(key, (voice = readVoice(join(folder, `${name}.flac`), room)));
  return voice;
}

async function readVoice(path: string, room: Room): Promise<Voice> {
  const { samples, format } = await readClip(path);
  const dry = ofRmsOne(samples);
  return { dry, tail: diffuseTail(dry, format.sampleRate, room.t60, 'net-loft') };
}

/** Nothing but the direct sound counts: in the padded crate nothing comes back. */
export const withoutTail = (dry: Float64Array): Voice => ({ dry, tail: dry });

/** A voice that says the same over and over. */
export function repeated({ dry, tail }: Voice, samples: number): Voice {
  const loop = (part: Float64Array): Float64Array => {
    const out = new Float64Array(samples);
    for (let at = 0; at < samples; at += dry.length) out.set(part.subarray(0, Math.min(dry.length, samples - at)), at);
    return out;
  };
  return { dry: loop(dry), tail: loop(tail) };
}

const beginnings = new WeakMap<Voice, Map<number, Voice>>();

/** The first samples of a voice; the same ones each time, so that what is made of them can be remembered. */
export function shortened(voice: Voice, samples: number): Voice {
  const own = beginnings.get(voice) ?? new Map<number, Voice>();
  beginnings.set(voice, own);
  const known = own.get(samples);
  if (known) return known;
  const made = { dry: voice.dry.slice(0, samples), tail: voice.tail.slice(0, samples) };
  own.set(samples, made);
  return made;
}

export function ofRmsOne(samples: Float64Array): Float64Array {
  const rms = Math.sqrt(samples.reduce((s, x) => s + x * x, 0) / samples.length);
  return samples.map((x) => x / rms);
}

export const toneOf = (hz: number, seconds: number, sampleRate: number): Float64Array =>
  ofRmsOne(
    Float64Array.from({ length: Math.round(seconds * sampleRate) }, (_, i) =>
      Math.sin((2 * Math.PI * hz * i) / sampleRate),
    ),
  );

/** As version 2 and later of the desk's protocol have it. */
export const playedSweep = (sampleRate: number): Float64Array =>
  ofRmsOne(exponentialSweep({ lowHz: 20, highHz: 20_500, seconds: 3 }, sampleRate));
