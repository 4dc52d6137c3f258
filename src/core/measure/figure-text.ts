import { quantity, type QuantityId } from './registry';

/** Fixed decimals with a true minus sign; "-0.0" loses its sign. */
export function formatNumber(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return /^-0(\.0*)?$/.test(text) ? text.slice(1) : text.replace('-', '−');
}

/**
 * An uncertainty behind its figure. One that rounds to nothing is told as one of the last place: it is small, not none.
 * Where there is none at all, as of what was given by hand, it is ±0.
 *
 * @example
 *   plusMinus(0.42, 1); // => '±0.4'
 * @example
 *   plusMinus(0.02, 1); // => '±0.1'
 * @example
 *   plusMinus(0, 1); // => '±0'
 */
export const plusMinus = (uncertainty: number, decimals: number): string =>
  uncertainty === 0 ? '±0' : `±${formatNumber(Math.max(uncertainty, 10 ** -decimals), decimals)}`;

/** A figure in parts, so that the unit can stand in quiet ink. */
export interface FigureText {
  readonly value: string;
  /** "±0.4", or empty where no uncertainty is known. */
  readonly spread: string;
  /** "±1.1 another reading", or empty where it is not known or says no more than `spread`. */
  readonly another: string;
  readonly unit: string;
}

/** What is shown of a figure. */
export interface FigureLike {
  readonly value: number | null;
  readonly uncertainty?: number | null;
  readonly anotherReading?: number | null;
  readonly bound?: 'exact' | 'at-least' | 'at-most';
}

/** Another reading is told where it is less sure than this one by so much. */
const LEAST_MORE = 1.2;

/**
 * Decimals that an uncertainty leaves to a figure: one digit of the uncertainty, two where it begins with a one
 * (JCGM 100:2008 7.2.6: at most two), and never more than the figure has by itself. Negative: tens, hundreds.
 *
 * @param uncertainty - standard uncertainty, > 0
 * @param most - decimals of the figure by itself
 */
export function decimalsFor(uncertainty: number, most: number): number {
  const power = Math.floor(Math.log10(uncertainty));
  const leading = Math.floor(uncertainty / 10 ** power + 1e-9);
  return Math.min(most, (leading === 1 ? 1 : 0) - power);
}

/** A number with decimals, or rounded to tens or hundreds where they are negative. */
function rounded(value: number, decimals: number): string {
  if (decimals >= 0) return formatNumber(value, decimals);
  const step = 10 ** -decimals;
  return formatNumber(Math.round(value / step) * step, 0);
}

/** A measured figure for people, with as many digits as its uncertainty leaves; "not measured" is not a number. */
export function figureText(id: QuantityId, figure: FigureLike): FigureText {
  const { unit, decimals } = quantity(id);
  if (figure.value === null) return { value: 'not measured', spread: '', another: '', unit: '' };
  const sign = figure.bound === 'at-least' ? '≥ ' : figure.bound === 'at-most' ? '≤ ' : '';
  const own = figure.uncertainty ?? null;
  const another = figure.anotherReading ?? null;
  const least = 10 ** -decimals;
  const text = (u: number): string => `±${rounded(Math.max(u, least), decimalsFor(Math.max(u, least), decimals))}`;
  const spread = own === null ? '' : text(own);
  const wider = another === null ? '' : text(another);
  const tellsMore = another !== null && wider !== spread && another > LEAST_MORE * (own ?? 0);
  const shown = own ?? another;
  return {
    value: sign + rounded(figure.value, shown === null ? decimals : decimalsFor(Math.max(shown, least), decimals)),
    spread,
    another: tellsMore ? `${wider} another reading` : '',
    unit,
  };
}
