import { describe, expect, it } from 'vitest';
import { lcgNoise, mixed, scaled, sine } from '../../testing/signals';
import { analysedTake } from '../../testing/takes';
import { INTERFACE } from './interface';
import { thermalNoiseDbu, thermalNoiseDbuA } from './thermal-noise';

const BAND = { lowHz: 20, highHz: 20_000 };
const SECONDS = 6;
const SAMPLES = SECONDS * 48_000;
/** White noise of a mean square of 1/3 reads so much re a full-scale sine, within 20 Hz to 20 kHz of 24 kHz. */
const WHITE_DBFS = 10 * Math.log10((2 / 3) * (19_980 / 24_000));
const CHAIN = { fullScaleDbu: null, claimedSensitivityMvPa: null };

/** An input that clips at `fullScaleDbu` with 0 dB of gain and whose noise lies at `einDbu`, as two takes. */
async function takesOf(einDbu: number, gainDb: number, fullScaleDbu: number, toneGainDb = gainDb) {
  const noiseDbfs = einDbu + gainDb - fullScaleDbu;
  const toneDbfs = -20 - (fullScaleDbu - toneGainDb);
  const noise = scaled(lcgNoise(SAMPLES, 1, 5), noiseDbfs - WHITE_DBFS);
  return [
    await analysedTake('terminated', noise, { gainDb }),
    await analysedTake(
      'level-tone',
      mixed(scaled(sine(1000, 0, SECONDS), toneDbfs), scaled(lcgNoise(SAMPLES, 1, 7), -110)),
      {
        gainDb: toneGainDb,
        levelDbu: -20,
      },
    ),
  ];
}
const figures = (takes: Parameters<typeof INTERFACE.runFigures>[0], planned: readonly string[] = []) =>
  new Map(INTERFACE.runFigures(takes, CHAIN, new Set(planned)).measurements.map((m) => [m.quantity, m]));

describe('thermal noise of 150 Ω at 20 °C', () => {
  it('is 0.2203 µV, −130.9 dBu (Johnson–Nyquist, CODATA; the figure is that of handbooks)', () => {
    const dbu = thermalNoiseDbu(150, BAND);
    expect(Math.sqrt(0.6) * 10 ** (dbu / 20) * 1e6).toBeCloseTo(0.2203, 4);
    expect(dbu).toBeCloseTo(-130.92, 2);
    // Twice the resistance, twice the power.
    expect(thermalNoiseDbu(300, BAND) - dbu).toBeCloseTo(3.0103, 4);
  });

  // scipy 1.17.1: quad(lambda f: A(f) / A(1000), 20, 20000) = 12467.1837 Hz with A the squared curve of IEC 61672-1 Annex E.
  it('is about −133 dBu(A) (common practice), by the squared A curve', () => {
    expect(thermalNoiseDbuA(150, BAND)).toBeCloseTo(-132.9706, 3);
    expect(Math.abs(thermalNoiseDbuA(150, BAND) - -133)).toBeLessThan(0.3);
  });
});

describe('equivalent input noise', () => {
  it.each([
    [-128, 60, 20],
    [-120, 40, 4],
  ])('of %f dBu comes back at %f dB of gain and a full scale of %f dBu', async (ein, gain, fullScale) => {
    const found = figures(await takesOf(ein, gain, fullScale));
    // 0.1 dB: the scatter of six seconds of white noise.
    expect(Math.abs((found.get('einZ')?.value ?? 0) - ein)).toBeLessThan(0.1);
    expect(found.get('noiseFigure')?.value).toBeCloseTo(
      (found.get('einZ')?.value ?? 0) - thermalNoiseDbu(150, BAND),
      9,
    );
    // White noise loses as much by A-weighting as the resistor's does.
    const weighting = thermalNoiseDbuA(150, BAND) - thermalNoiseDbu(150, BAND);
    expect(Math.abs((found.get('einA')?.value ?? 0) - ein - weighting)).toBeLessThan(0.1);
    expect(found.get('einA')?.condition).toMatch(/^A-weighted, 150 Ω, \d+ dB of gain, 20 Hz–20 kHz/);
  });

  it('takes the difference of noted gains, and is less sure of it', async () => {
    const same = figures(await takesOf(-126, 50, 10)).get('einZ');
    const other = figures(await takesOf(-126, 50, 10, 20)).get('einZ');
    expect(other?.value).toBeCloseTo(same?.value ?? NaN, 2);
    // Meter 0.2 dB; the scale of the gain 0.5 dB.
    expect(same?.uncertainty).toBeGreaterThan(0.2);
    expect(same?.uncertainty).toBeLessThan(0.3);
    expect(other?.uncertainty).toBeGreaterThan(Math.hypot(0.2, 0.5));
  });

  it('below what the resistor makes is refused, with both figures', async () => {
    const found = figures(await takesOf(-135, 60, 20));
    expect(found.get('einZ')?.value).toBeNull();
    expect(found.get('einZ')?.notMeasured).toMatch(/^It would be −135\.\d dBu, below the −130\.9 dBu/);
    expect(found.get('noiseFigure')?.value).toBeNull();
    // A quarter of a decibel under the floor is no proof of a fault.
    expect(figures(await takesOf(-131.1, 60, 20)).get('einZ')?.value).not.toBeNull();
  });

  it('says what is missing: a take, the level, the tone', async () => {
    const [noise, tone] = await takesOf(-126, 50, 10);
    const why = (takes: Parameters<typeof figures>[0]) => figures(takes, ['terminated']).get('einA')?.notMeasured;
    expect(why([])).toBe('The run lacks: the terminated input, the tone of known level.');
    expect(why([noise])).toBe('The run lacks: the tone of known level.');
    expect(why([noise, { ...tone, levelDbu: null }])).toMatch(/not noted/);
    expect(
      why([noise, await analysedTake('level-tone', scaled(sine(300, 0, SECONDS), -30), { levelDbu: -20 })]),
    ).toMatch(/no tone of 1 kHz alone/);
    // A protocol without that step promises nothing.
    expect(figures([]).size).toBe(0);
  });

  it('of a microphone is none: silence of a protocol is not a terminated input', async () => {
    const [noise, tone] = await takesOf(-126, 50, 10);
    expect(figures([{ ...noise, role: 'silence' }, tone]).has('einA')).toBe(false);
  });
});
