import { meanSquareToDbfs, type Dbfs } from '../units';
import { harmonicOf, linearPower, strongest, type Hum } from './hum';
import { measured, notMeasured, type Measurement } from './measurement';
import type { TonalLine } from './tonal-lines';

/** A serial bus sends a frame every millisecond (common practice, no source). */
const BUS_SPACING_HZ = 1000;
/** A phone's radio bursts come 26 in 120 ms: 216.67 a second (common practice, no source). */
const RADIO_RATE_HZ = 650 / 3;
/** Clocks of buses and phones are quartz. */
const TOLERANCE = 0.001;
const LEAST_BUS_LINES = 3;
const LEAST_RADIO_LINES = 4;

/** A family of lines at multiples of one frequency. */
export interface LineFamily {
  readonly spacingHz: number;
  readonly lines: readonly TonalLine[];
  readonly totalDbfs: Dbfs;
}

/** Tonal noise that is not hum. */
export interface Interference {
  /** All lines but those of the hum. */
  readonly lines: readonly TonalLine[];
  /** Sum of all of them; null where there is none. */
  readonly totalDbfs: Dbfs | null;
  /** Lines 1 kHz apart; null where fewer than three stand out. */
  readonly busWhine: LineFamily | null;
  /** Lines 217 Hz apart; null where fewer than four stand out. */
  readonly radioBursts: LineFamily | null;
}

/**
 * Sorts the lines that are not hum into the families a reviewer can act on: move the phone away, use another port.
 *
 * @param lines - lines of the silent part
 * @param mains - the hum found among them
 * @param binHz - resolution of the spectrum
 */
export function interference(lines: readonly TonalLine[], mains: Hum, binHz: number): Interference {
  const others = lines.filter((line) => !mains.lines.includes(line));
  const busWhine = family(others, BUS_SPACING_HZ, 20, LEAST_BUS_LINES, binHz);
  const radioBursts = family(
    others.filter((line) => !busWhine?.lines.includes(line)),
    RADIO_RATE_HZ,
    16,
    LEAST_RADIO_LINES,
    binHz,
  );
  return { lines: others, totalDbfs: others.length === 0 ? null : total(others), busWhine, radioBursts };
}

function family(
  lines: readonly TonalLine[],
  spacingHz: number,
  highestOrder: number,
  least: number,
  binHz: number,
): LineFamily | null {
  const members = lines.filter(({ hz }) => {
    const order = harmonicOf(hz, spacingHz, TOLERANCE, binHz);
    return order !== null && order <= highestOrder;
  });
  return members.length < least ? null : { spacingHz, lines: members, totalDbfs: total(members) };
}

const total = (lines: readonly TonalLine[]): Dbfs => meanSquareToDbfs(lines.reduce((s, l) => s + linearPower(l), 0));

/** The figure with its condition. */
export function interferenceMeasurement(found: Interference | null, limitDbfs: Dbfs | null): Measurement {
  const condition = 'silent part (or all of a steady clip), lines 20 Hz–20 kHz that are not hum, floor taken off';
  if (!found) return notMeasured('interference', condition, 'The clip holds no silent part that is long enough.');
  if (found.totalDbfs === null) {
    return limitDbfs !== null && Number.isFinite(limitDbfs)
      ? measured('interference', limitDbfs, condition, { bound: 'at-most', settings: { found: false } })
      : notMeasured('interference', condition, 'The silent part is digital silence.');
  }
  return measured('interference', found.totalDbfs, condition, {
    settings: {
      lines: found.lines.length,
      strongestHz: strongest(found.lines).hz,
      busWhine: found.busWhine !== null,
      radioBursts: found.radioBursts !== null,
    },
  });
}
