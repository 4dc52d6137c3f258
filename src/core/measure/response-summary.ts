import { fractionalOctaveBands } from '../dsp/fractional-octave';
import type { FrequencyResponse, ResponsePoint } from './frequency-response';
import { measured, notMeasured, type Measurement } from './measurement';
import type { QuantityId } from './registry';

/** A figure of a response with its standard uncertainty by the noise of the recording. */
export interface ResponseFigure {
  readonly value: number;
  readonly u: number;
}

/** A hill or a hole in a response, against the straight line through it. */
export interface ResponseFeature {
  readonly hz: number;
  readonly db: number;
  readonly u: number;
  /** Width at half of its height in dB, in octaves. */
  readonly widthOctaves: number;
}

/** What a reader looks for in a response. */
export interface ResponseSummary {
  /** Mean of 500 Hz–2 kHz, to which the limits refer. */
  readonly referenceDb: number;
  /** Null where the response does not fall that far within its valid range. */
  readonly minus3LowHz: ResponseFigure | null;
  readonly minus3HighHz: ResponseFigure | null;
  readonly minus6LowHz: ResponseFigure | null;
  readonly minus6HighHz: ResponseFigure | null;
  /** ± dB, 100 Hz–10 kHz, 1/3 octaves. */
  readonly deviationDb: ResponseFigure | null;
  readonly slopeDbPerOctave: ResponseFigure | null;
  readonly peak: ResponseFeature | null;
  readonly dip: ResponseFeature | null;
  /** 5–9 kHz re 1–3 kHz. */
  readonly presenceDb: ResponseFigure | null;
}

/**
 * By how much the noise of means and lines exceeds that of independent points: at low frequencies the lobes of the gate
 * are wider than 1/24 octave (by simulation, docs/coverage.md).
 */
const NEIGHBOURS = 1.3;
const BODY = [100, 10_000] as const;
const REFERENCE = [500, 2000] as const;

/**
 * @param response - points in rising order
 */
export function summariseResponse(response: FrequencyResponse): ResponseSummary {
  const { points, lowestValidHz } = response;
  const valid = points.filter((p) => p.hz >= lowestValidHz && Number.isFinite(p.db));
  const referenceDb = meanDb(valid, REFERENCE)?.value ?? NaN;
  const body = valid.filter((p) => p.hz >= BODY[0] * 0.98 && p.hz <= BODY[1] * 1.02);
  const covers = body.length > 20 && body[0].hz < BODY[0] * 1.06 && body[body.length - 1].hz > BODY[1] / 1.06;
  const line = covers ? straightLine(body) : null;
  const rest = line ? body.map((p) => ({ hz: p.hz, db: p.db - line.at(p.hz), u: p.u })) : [];
  const [presence, middle] = [meanDb(valid, [5000, 9000]), meanDb(valid, [1000, 3000])];
  return {
    referenceDb,
    minus3LowHz: limit(valid, referenceDb - 3, 'low'),
    minus3HighHz: limit(valid, referenceDb - 3, 'high'),
    minus6LowHz: limit(valid, referenceDb - 6, 'low'),
    minus6HighHz: limit(valid, referenceDb - 6, 'high'),
    deviationDb: covers ? deviation(valid) : null,
    slopeDbPerOctave: line && { value: line.slope, u: line.u },
    peak: feature(rest, 1),
    dip: feature(rest, -1),
    presenceDb:
      presence === null || middle === null
        ? null
        : { value: presence.value - middle.value, u: Math.hypot(presence.u, middle.u) },
  };
}

function meanDb(points: readonly ResponsePoint[], [low, high]: readonly [number, number]): ResponseFigure | null {
  const inside = points.filter((p) => p.hz >= low && p.hz <= high);
  const covers = inside.length > 0 && points[0].hz <= low * 1.06 && points[points.length - 1].hz >= high / 1.06;
  return covers ? meanOfPoints(inside) : null;
}

/**
 * Mean of points, each with noise of its own.
 *
 * @param points - one or more
 */
export const meanOfPoints = (points: readonly ResponsePoint[]): ResponseFigure => ({
  value: points.reduce((s, p) => s + p.db, 0) / points.length,
  u: (NEIGHBOURS * Math.sqrt(points.reduce((s, p) => s + p.u ** 2, 0))) / points.length,
});

/** Frequency at which the response crosses a level for the last time, seen from 1 kHz outwards. */
function limit(points: readonly ResponsePoint[], level: number, side: 'low' | 'high'): ResponseFigure | null {
  const outward = side === 'low' ? points.filter((p) => p.hz <= 1000).reverse() : points.filter((p) => p.hz >= 1000);
  for (let i = outward.length - 1; i > 0; i--) {
    // From the outer end inwards: the first point at or above the level ends the fall.
    if (outward[i].db >= level) return null;
    if (outward[i - 1].db >= level) {
      const [inner, outer] = [outward[i - 1], outward[i]];
      const share = (inner.db - level) / (inner.db - outer.db);
      const value = inner.hz * (outer.hz / inner.hz) ** share;
      // A level that is off by u moves the crossing by u over the steepness.
      const steepness = (inner.db - outer.db) / Math.abs(Math.log(outer.hz / inner.hz));
      return { value, u: (value * Math.hypot(inner.u, outer.u)) / Math.SQRT2 / steepness };
    }
  }
  return null;
}

function deviation(points: readonly ResponsePoint[]): ResponseFigure | null {
  const levels = fractionalOctaveBands(3, BODY[0], BODY[1]).flatMap((band) => {
    const inside = points.filter((p) => p.hz >= band.lowHz && p.hz < band.highHz);
    return inside.length === 0 ? [] : [meanOfPoints(inside)];
  });
  if (levels.length === 0) return null;
  const highest = levels.reduce((a, b) => (b.value > a.value ? b : a));
  const lowest = levels.reduce((a, b) => (b.value < a.value ? b : a));
  return { value: (highest.value - lowest.value) / 2, u: Math.hypot(highest.u, lowest.u) / 2 };
}

interface Line {
  /** dB per octave. */
  readonly slope: number;
  readonly u: number;
  at(hz: number): number;
}

function straightLine(points: readonly ResponsePoint[]): Line {
  const n = points.length;
  const x = points.map((p) => Math.log2(p.hz));
  const mx = x.reduce((s, v) => s + v, 0) / n;
  const my = points.reduce((s, p) => s + p.db, 0) / n;
  const squares = x.reduce((s, v) => s + (v - mx) ** 2, 0);
  const slope = points.reduce((s, p, i) => s + (x[i] - mx) * (p.db - my), 0) / squares;
  const u = (NEIGHBOURS * Math.sqrt(points.reduce((s, p, i) => s + ((x[i] - mx) * p.u) ** 2, 0))) / squares;
  return { slope, u, at: (hz) => my + slope * (Math.log2(hz) - mx) };
}

function feature(rest: readonly ResponsePoint[], sign: 1 | -1): ResponseFeature | null {
  if (rest.length === 0) return null;
  let top = 0;
  rest.forEach((p, i) => (top = sign * p.db > sign * rest[top].db ? i : top));
  const half = (sign * rest[top].db) / 2;
  let [from, to] = [top, top];
  while (from > 0 && sign * rest[from - 1].db > half) from--;
  while (to < rest.length - 1 && sign * rest[to + 1].db > half) to++;
  return { ...rest[top], widthOctaves: Math.log2(rest[to].hz / rest[from].hz) };
}

/** The summary as measurements with their conditions. */
export function responseMeasurements(summary: ResponseSummary, how: string): Measurement[] {
  const plain = (id: QuantityId, figure: ResponseFigure | null, reason: string): Measurement =>
    figure ? measured(id, figure.value, how, { uncertainty: figure.u }) : notMeasured(id, how, reason);
  const featured = (id: QuantityId, found: ResponseFeature | null): Measurement =>
    found
      ? measured(id, found.db, how, {
          uncertainty: found.u,
          settings: { hz: Math.round(found.hz), widthOctaves: Math.round(100 * found.widthOctaves) / 100 },
        })
      : notMeasured(id, how, 'The response does not cover 100 Hz–10 kHz.');
  const falls = 'The response does not fall that far within its valid range.';
  const covers = 'The response does not cover 100 Hz–10 kHz.';
  return [
    plain('responseLow3', summary.minus3LowHz, falls),
    plain('responseHigh3', summary.minus3HighHz, falls),
    plain('responseLow6', summary.minus6LowHz, falls),
    plain('responseHigh6', summary.minus6HighHz, falls),
    plain('responseDeviation', summary.deviationDb, covers),
    plain('responseSlope', summary.slopeDbPerOctave, covers),
    featured('responsePeak', summary.peak),
    featured('responseDip', summary.dip),
    plain('presence', summary.presenceDb, 'The response does not cover 1–9 kHz.'),
  ];
}
