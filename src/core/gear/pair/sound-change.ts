import type { Difference } from '../../measure/difference';
import { formatNumber } from '../../measure/figure-text';
import { fitLowCut } from '../../measure/low-cut';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { tonalChange, type TonalChange } from '../../measure/tonal-change';
import { SPOKEN_ANEW_BAND_DB, TRANSFER_U_DB } from './pair-uncertainty';
import { sweepPoints } from './sweep-points';
import type { TakePair } from './take-pair';

/** Neither corner is looked for below this, nor is "none" said where the material does not reach down to the other. */
const [LOWEST_CORNER_HZ, NEEDED_HZ] = [30, 60];

/** A tonal change, and what it was read from. */
export interface ReadChange extends TonalChange {
  readonly from: string;
}

/** By sweep where both halves have one; else by words or music, where their difference could be had. */
export function readTonalChange(sweep: TakePair | undefined, words: TakePair | undefined): ReadChange | null {
  const bySweep = sweep ? tonalChange(sweepPoints(sweep)) : null;
  if (bySweep) return { ...bySweep, from: 'by sweep' };
  if (!words?.difference) return null;
  const { points, method } = words.difference;
  const u = method === 'transfer' ? TRANSFER_U_DB : SPOKEN_ANEW_BAND_DB;
  const byWords = tonalChange(points.flatMap((p) => (p.trusted && p.db !== null ? [{ hz: p.hz, db: p.db, u }] : [])));
  return byWords && { ...byWords, from: method === 'transfer' ? 'one performance through both' : 'one text, spoken anew' }; // prettier-ignore
}

/** As a frequency is spoken. */
const hertz = (hz: number): string => (hz >= 1000 ? `${hz / 1000} kHz` : `${hz} Hz`);

/** The largest change as a figure. */
export const tonalFigure = ({ largest, from }: ReadChange): Measurement =>
  measured('tonalChange', Math.abs(largest.db), `${from}, at ${hertz(largest.hz)}: ${formatNumber(Math.abs(largest.db), 1)} dB ${largest.db < 0 ? 'less' : 'more'}`, { uncertainty: largest.u, settings: { hz: largest.hz, changeDb: largest.db } }); // prettier-ignore

/** The high-pass that explains the difference, or how far down none was found. */
export function lowCutFigures(sweep: TakePair | undefined, difference: Difference | null): Measurement[] {
  if (sweep) {
    const points = sweepPoints(sweep);
    const found = fitLowCut(points);
    if (found)
      return [lowCutFound(found.cornerHz, `order ${found.order}, by sweep`, found.cornerHz * (0.01 / Math.sqrt(12)))];
    const lowest = points.at(0)?.hz ?? Infinity;
    return lowest > NEEDED_HZ
      ? [notMeasured('hiddenLowCut', 'by sweep', 'The sweeps say nothing below 60 Hz.')]
      : [noLowCut(lowest, 'by sweep')];
  }
  if (!difference) return [];
  const { lowCut } = difference;
  const how = difference.method === 'transfer' ? 'one performance through both' : 'one text, spoken anew';
  if (lowCut.kind === 'untold')
    return [notMeasured('hiddenLowCut', how, `It cannot be told from these words: ${lowCut.reason}.`)];
  if (lowCut.kind === 'none') {
    const lowest = difference.points.find((p) => p.trusted)?.hz ?? NEEDED_HZ;
    return [noLowCut(lowest, how)];
  }
  const [least, most] = lowCut.orders;
  const order = least === most ? `order ${lowCut.order}` : `order ${least} to ${most}`;
  return [lowCutFound(lowCut.cornerHz, `${order}, ${how}`, lowCut.cornerU)];
}

const lowCutFound = (hz: number, condition: string, uncertainty: number): Measurement =>
  measured('hiddenLowCut', hz, condition, { uncertainty });

/** None was found: if there is one, it lies below what the material reaches. */
const noLowCut = (lowestHz: number, how: string): Measurement =>
  measured('hiddenLowCut', Math.max(LOWEST_CORNER_HZ, lowestHz), `none found, ${how}`, { bound: 'at-most' });
