import { sweepRate, sweepTime } from '../dsp/exponential-sweep';
import { AudioFileError } from '../audio/audio-file-error';
import { binRange, sumRange } from '../dsp/bin-range';
import { sharedHannPlan } from '../dsp/hann';
import { mean } from '../stats/moments';
import { quantile } from '../stats/quantile';
import { powerToDb } from '../units';
import { stretch, type ImpulseResponse } from './impulse-response';

/** What a recorded sweep shows beside its response; the response stands, but not without these words. */
export interface SweepFinding {
  readonly kind: 'clipped' | 'gain-moved' | 'weak';
  readonly text: string;
}

/** Frames in which arrivals are told apart. */
const FRAME_S = 0.01;
/** Octaves whose arrivals are compared. */
const ARRIVAL_OCTAVES_HZ = [250, 500, 1000, 2000, 4000, 8000] as const;
/** Delays of loudspeakers, filters and rooms stay within this over these octaves (common practice, no source). */
const LARGEST_SPAN_S = 0.02;
/** What lies off a steady smear by more than this share of it is none; a jump of samples is larger than this. */
const STEADY_SHARE = 0.12;
const LEAST_JUMP_S = 0.03;
/** The arrival is where an octave first comes within this of its largest: reverberation may be stronger than the direct sound. */
const ONSET_POWER = 10 ** (-8 / 10);
/** An octave counts where its peak stands this far above its own mean: else its arrival is chance. */
const LEAST_CREST_DB = 15;
/** Equal samples at the extreme that make a clipped run (as for clips), and the least level of one. */
const CLIPPED_RUN = 3;
const CLIPPED_FROM = 0.1;
/** The noise before and after a sweep differs by less where no gain moved. */
const LARGEST_GAIN_DB = 3;
const QUIET_S = 0.15;

/**
 * Refuses a recording whose sweep ran at another pace than the one that was played: a wrong sample rate in the header
 * shifts frequencies and times alike, and smears the response over time in proportion to the logarithm of frequency.
 *
 * @param response - from {@link impulseResponse}
 * @throws AudioFileError `unmeasurable`, with the ratio of the paces
 */
export function assertPace(response: ImpulseResponse): void {
  const { sweep } = response;
  const inBand = ARRIVAL_OCTAVES_HZ.filter((hz) => hz > 2 * sweep.lowHz && hz * Math.SQRT2 < sweep.highHz);
  const { energies, timeOf } = energyByOctave(response, inBand);
  const arrivals = inBand.flatMap((hz, o) => {
    const frame = arrivalFrame(energies[o]);
    return frame === null ? [] : [{ x: Math.log(hz), at: timeOf(frame) }];
  });
  if (arrivals.length < 3) return;
  const span = Math.max(...arrivals.map((a) => a.at)) - Math.min(...arrivals.map((a) => a.at));
  if (span <= LARGEST_SPAN_S) return;
  const [mx, mt] = [mean(arrivals.map((a) => a.x)), mean(arrivals.map((a) => a.at))];
  const slope =
    arrivals.reduce((s, a) => s + (a.x - mx) * (a.at - mt), 0) / arrivals.reduce((s, a) => s + (a.x - mx) ** 2, 0);
  const rest = Math.sqrt(mean(arrivals.map((a) => (a.at - mt - slope * (a.x - mx)) ** 2)));
  // Only a steady smear is a pace; anything else is a jump: lost or doubled samples.
  if (rest > STEADY_SHARE * span) {
    if (span < LEAST_JUMP_S) return;
    throw new AudioFileError(
      'unmeasurable',
      'The recording jumps in time within the sweep: samples were lost or doubled.',
    );
  }
  const pace = 1 + slope / sweepRate(sweep);
  throw new AudioFileError(
    'unmeasurable',
    `The recorded sweep runs at another pace than the one that was played (its length is ${(100 * pace).toFixed(1)} %). Was its sample rate changed without conversion?`,
  );
}

/** Energy of a response over time, by octave: Hann frames at 50 % overlap, the direct sound in the middle. */
function energyByOctave({ samples, sampleRate, peak }: ImpulseResponse, octaves: readonly number[]) {
  const size = 2 ** Math.round(Math.log2(FRAME_S * sampleRate));
  const { fft, scale } = sharedHannPlan(size);
  const half = samples.length >> 1;
  const hop = size / 2;
  const count = Math.floor((samples.length - size) / hop) + 1;
  const ranges = octaves.map((hz) => binRange({ lowHz: hz / Math.SQRT2, highHz: hz * Math.SQRT2 }, sampleRate / size));
  const energies = octaves.map(() => new Float64Array(count));
  const turned = stretch(samples, peak, half, samples.length - half);
  for (let f = 0; f < count; f += 2) {
    const pair = turned.subarray(f * hop, f * hop + size + hop);
    fft.samples.set(pair);
    fft.samples.fill(0, pair.length);
    fft.framePair(scale, hop);
    fft.powers.slice(0, count - f).forEach((power, i) => {
      ranges.forEach((range, o) => (energies[o][f + i] = sumRange(power, range)));
    });
  }
  return { energies, timeOf: (f: number): number => (f * hop + size / 2 - half) / sampleRate };
}

/** Frame in which an octave arrives; null where none stands out. */
function arrivalFrame(energies: Float64Array): number | null {
  const best = energies.reduce((top, e, i) => (e > energies[top] ? i : top), 0);
  if (powerToDb(energies[best] / mean(energies)) < LEAST_CREST_DB) return null;
  return energies.findIndex((e) => e >= ONSET_POWER * energies[best]);
}

/**
 * What makes a response doubtful: samples at the ceiling, a gain that moved (the noise after the sweep is not that
 * before it), a sweep that hardly stands out of the noise.
 *
 * @param recorded - one channel
 * @param response - from {@link impulseResponse}
 */
export function sweepFindings(recorded: Float64Array, response: ImpulseResponse): SweepFinding[] {
  const { sweep, sampleRate, peak } = response;
  const findings: SweepFinding[] = [];
  if (clippedRuns(recorded) > 0)
    findings.push({ kind: 'clipped', text: 'the recording clips: levels and distortion are not those of the unit' });
  const start = peak;
  const end = Math.min(recorded.length, peak + Math.round(sweep.seconds * sampleRate));
  const quiet = Math.round(QUIET_S * sampleRate);
  const [before, after] = [recorded.subarray(0, start), recorded.subarray(end)];
  const last = noiseDb(after.subarray(-quiet), sampleRate);
  if (after.length >= 2 * quiet && before.length >= quiet && last !== null) {
    const first = noiseDb(before.subarray(0, quiet), sampleRate);
    if (first !== null && Math.abs(last - first) > LARGEST_GAIN_DB)
      findings.push({
        kind: 'gain-moved',
        text: `the noise after the sweep is ${Math.abs(last - first).toFixed(0)} dB ${last < first ? 'lower' : 'higher'} than before it: automatic gain?`,
      });
  }
  if (last !== null) {
    // The loudest half of the sweep's time: what lies outside the unit's range is weak by nature.
    const from = start + Math.round(sweepTime(sweep, 500) * sampleRate);
    const level = noiseDb(recorded.subarray(from, end), sampleRate);
    if (level !== null && level - last < LEAST_ABOVE_NOISE_DB)
      findings.push({
        kind: 'weak',
        text: `the sweep stands only ${Math.max(0, level - last).toFixed(0)} dB above the noise`,
      });
  }
  return findings;
}

/** Under this the noise decides low and high limits (common practice, no source). */
const LEAST_ABOVE_NOISE_DB = 10;

/** Level of a stretch by the median of 10 ms blocks, dB; null where it holds only zeros. */
function noiseDb(samples: Float64Array, sampleRate: number): number | null {
  const block = Math.round(0.01 * sampleRate);
  const powers = Array.from({ length: Math.floor(samples.length / block) }, (_, b) =>
    mean(samples.subarray(b * block, (b + 1) * block).map((x) => x * x)),
  );
  const middle = powers.length === 0 ? 0 : quantile(powers, 0.5);
  return middle > 0 ? powerToDb(middle) : null;
}

function clippedRuns(samples: Float64Array): number {
  let most = 0;
  for (const x of samples) most = Math.max(most, Math.abs(x));
  if (most < CLIPPED_FROM) return 0;
  let [runs, length, before] = [0, 0, 0];
  for (const x of samples) {
    // What swings from one extreme to the other is as steep as can be, not flat.
    length = Math.abs(x) < most ? 0 : x === before ? length + 1 : 1;
    before = x;
    if (length === CLIPPED_RUN) runs++;
  }
  return runs;
}
