import type { KeptSheet } from '#core/text/kept-number';
import type { NumberSheet } from '#core/text/read-number';

const LENGTHS = { m: 100, mm: 0.1 } as const;
const TIMES = { ms: 0.001, min: 60 } as const;

/** What the number fields of the pages take. Ranges are those of the contracts; the server refuses what lies outside. */
export const SHEETS = {
  gain: { unit: 'dB', least: -40, most: 120 },
  gainStep: { unit: 'dB', least: -60, most: 60 },
  distance: { unit: 'cm', units: LENGTHS, shownPer: 100, least: 0.1, most: 10_000 },
  height: { unit: 'cm', units: LENGTHS, shownPer: 100, least: -300, most: 500 },
  angle: { unit: '°', least: -360, most: 360 },
  peak: { unit: 'dBFS', least: -60, most: 0 },
  levelDbu: { unit: 'dBu', least: -140, most: 60 },
  calibrator: { unit: 'dB SPL', least: 40, most: 140 },
  inputTone: { unit: 'dBu', least: -120, most: 30 },
  wind: { unit: 'm/s', units: { 'km/h': 1 / 3.6 }, least: 0, most: 60 },
  frequency: { unit: 'Hz', units: { kHz: 1000 }, least: 1, most: 100_000 },
  sweepLength: { unit: 's', units: TIMES, least: 0.5, most: 120 },
  levelSpl: { unit: 'dB SPL', least: 0, most: 180 },
  levelDbfs: { unit: 'dBFS', least: -200, most: 0 },
  fullScale: { unit: 'dBu', least: -60, most: 40 },
  rate: { unit: 'kHz', units: { Hz: 0.001 }, shownPer: 0.001, least: 8, most: 192 },
  stepLength: { unit: 's', units: TIMES, least: 0, most: 36_000 },
  place: { unit: 's', units: TIMES, least: 0, most: 3600 },
  passage: { unit: 's', units: TIMES, least: 1, most: 60 },
  delay: { unit: 'ms', least: 0 },
  pause: { unit: 'min', least: 2, most: 60 },
  points: { unit: '', least: 0, most: 5 },
  repeats: { unit: '', isWhole: true, least: 1, most: 20 },
  heat: { unit: '', isWhole: true, least: 2, most: 6 },
  goOn: { unit: '', isWhole: true, least: 1, most: 3 },
  trials: { unit: '', isWhole: true, least: 5, most: 100 },
  certainty: { unit: '%', shownPer: 100, least: 50.1, most: 99.9 },
  years: { unit: 'years', least: 0.25, most: 50 },
} as const satisfies Record<string, KeptSheet>;

const SIGNS: Readonly<Record<string, string>> = { EUR: '€', USD: '$', GBP: '£', JPY: '¥' };

/** A price in a currency; another currency's name in it is refused. */
export function priceSheet(currency: string): NumberSheet {
  const code = currency.toUpperCase();
  const names = [code, SIGNS[code] ?? ''].filter((n) => n !== '');
  return {
    unit: '',
    units: Object.fromEntries(names.map((n) => [n, 1])),
    least: 0.01,
    most: 1_000_000_000,
    decimals: 2,
  };
}
