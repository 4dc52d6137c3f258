/**
 * Two peak detectors in a row, each charging towards a larger input and discharging by itself, in seconds. ITU-R
 * BS.468-4 prescribes the detector by its readings of tone bursts, not by a circuit; these constants were fitted to
 * its tables 2 and 3 (least squares in dB, scipy differential evolution) and read every burst within its limits.
 */
export const QUASI_PEAK = { charge1: 1.467e-3, discharge1: 0.2789, charge2: 0.2, discharge2: 0.4319 } as const;

/**
 * What the detector, not yet scaled, reads of a sine of 1 kHz and RMS 1, settled, by sample rate. Scaling by it makes a
 * sine read its RMS. Of the usual rates it was read beforehand, by the same loops: hearing four seconds of a sine takes
 * longer than hearing a pause.
 */
const SETTLED = new Map([
  [44_100, 0.9267756203205968],
  [48_000, 0.9267758168377094],
  [88_200, 0.9267421229847949],
  [96_000, 0.9268828444570782],
  [176_400, 0.9267264842371514],
  [192_000, 0.926713921138813],
]);

/** {@link SETTLED}, read anew. */
function settledReading(sampleRate: number): number {
  const sine = new Float64Array(4 * sampleRate);
  for (let i = 0; i < sampleRate; i++) sine[i] = Math.SQRT2 * Math.sin((2 * Math.PI * 1000 * i) / sampleRate);
  // A second holds whole periods.
  for (let s = 1; s < 4; s++) sine.copyWithin(s * sampleRate, 0, sampleRate);
  return detect(sine, sampleRate);
}

/**
 * Quasi-peak reading of a signal, ITU-R BS.468-4 Annex 1 clause 2; a steady sine reads its RMS value.
 *
 * @param samples - weighted signal, one channel
 * @param sampleRate - in hertz
 * @returns largest reading, linear
 */
export function quasiPeak(samples: ArrayLike<number>, sampleRate: number): number {
  const settled = SETTLED.get(sampleRate) ?? settledReading(sampleRate);
  SETTLED.set(sampleRate, settled);
  return (1 / settled) * detect(samples, sampleRate);
}

function detect(samples: ArrayLike<number>, sampleRate: number): number {
  const charge = (seconds: number): number => 1 - Math.exp(-1 / (seconds * sampleRate));
  const decay = (seconds: number): number => Math.exp(-1 / (seconds * sampleRate));
  const [c1, d1, c2, d2] = [
    charge(QUASI_PEAK.charge1),
    decay(QUASI_PEAK.discharge1),
    charge(QUASI_PEAK.charge2),
    decay(QUASI_PEAK.discharge2),
  ];
  let first = 0;
  let second = 0;
  let largest = 0;
  for (let i = 0; i < samples.length; i++) {
    const x = Math.abs(samples[i]);
    first *= d1;
    if (x > first) first += c1 * (x - first);
    second *= d2;
    if (first > second) second += c2 * (first - second);
    if (second > largest) largest = second;
  }
  return largest;
}
