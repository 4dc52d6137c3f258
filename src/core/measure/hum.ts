import type { PowerSpectrum } from '../dsp/welch';
import { meanSquareToDbfs, type Dbfs } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';
import { leastAboveFloorDb, localFloor, type TonalLine } from './tonal-lines';

/** Frequencies that mains supplies run at. */
const MAINS_HZ = [50, 60] as const;
/** Harmonics that are looked at: 750 Hz and 900 Hz; above, other sources prevail. */
const HIGHEST_HARMONIC = 15;
/** Mains wander; one part in two hundred is far outside what a grid allows itself, and recorders' clocks add nothing to it. */
const TOLERANCE = 0.005;

/** Hum from the mains. */
export interface Hum {
  /** Null where no hum was found. */
  readonly mainsHz: 50 | 60 | null;
  readonly lines: readonly TonalLine[];
  /** Sum of the lines; null where none was found. */
  readonly totalDbfs: Dbfs | null;
  /** A line weaker than this would not have been found. */
  readonly limitDbfs: Dbfs;
}

/** Number of the harmonic that a line is of a fundamental; null where it is none. */
export function harmonicOf(hz: number, fundamentalHz: number, tolerance: number, binHz: number): number | null {
  const order = Math.round(hz / fundamentalHz);
  return order >= 1 && Math.abs(hz - order * fundamentalHz) <= Math.max(0.75 * binHz, tolerance * hz) ? order : null;
}

/**
 * Hum: lines at 50 Hz or 60 Hz and harmonics. Which of the two is decided by the data: by the power of those lines that
 * belong to one of them only (300 Hz, say, belongs to both), and one of the first three harmonics must be there.
 *
 * @param lines - lines of the silent part
 * @param spectrum - the spectrum they were found in
 */
export function hum(lines: readonly TonalLine[], spectrum: PowerSpectrum): Hum {
  const candidates = MAINS_HZ.map((mainsHz) => {
    const members = lines.filter(({ hz }) => {
      const order = harmonicOf(hz, mainsHz, TOLERANCE, spectrum.binHz);
      return order !== null && order <= HIGHEST_HARMONIC;
    });
    const own = members.filter(({ hz }) => harmonicOf(hz, 300, TOLERANCE, spectrum.binHz) === null);
    const hasLowOrder = members.some(({ hz }) => hz < 3.5 * mainsHz);
    return { mainsHz, members, ownPower: hasLowOrder ? own.reduce((s, l) => s + linearPower(l), 0) : 0 };
  });
  const limitDbfs = detectionLimit(spectrum);
  const best = candidates[0].ownPower >= candidates[1].ownPower ? candidates[0] : candidates[1];
  if (best.ownPower === 0) return { mainsHz: null, lines: [], totalDbfs: null, limitDbfs };
  const total = best.members.reduce((s, l) => s + linearPower(l), 0);
  return { mainsHz: best.mainsHz, lines: best.members, totalDbfs: meanSquareToDbfs(total), limitDbfs };
}

/** Mean square of a line. */
export const linearPower = (line: TonalLine): number => 10 ** (line.levelDbfs / 10) / 2;

function detectionLimit(spectrum: PowerSpectrum): Dbfs {
  const least = leastAboveFloorDb(spectrum.frames, spectrum.powers.length);
  const worst = Math.max(...[50, 60, 100, 120].map((hz) => localFloor(spectrum, Math.round(hz / spectrum.binHz))));
  // The peak bin of a Hann window holds two thirds of a sine's power.
  return meanSquareToDbfs(1.5 * worst * 10 ** (least / 10));
}

/** The figure with its condition. */
export function humMeasurement(found: Hum | null): Measurement {
  const condition =
    'silent part (or all of a steady clip), lines at 50 or 60 Hz and harmonics to the 15th, floor taken off';
  if (!found) return notMeasured('hum', condition, 'The clip holds no silent part that is long enough.');
  if (found.totalDbfs === null) {
    return Number.isFinite(found.limitDbfs)
      ? measured('hum', found.limitDbfs, condition, { bound: 'at-most', settings: { found: false } })
      : notMeasured('hum', condition, 'The silent part is digital silence.');
  }
  return measured('hum', found.totalDbfs, condition, {
    settings: { mainsHz: found.mainsHz ?? 0, lines: found.lines.length, strongestHz: strongest(found.lines).hz },
  });
}

/** The line with the highest level. */
export const strongest = (lines: readonly TonalLine[]): TonalLine =>
  lines.reduce((best, line) => (line.levelDbfs > best.levelDbfs ? line : best));
