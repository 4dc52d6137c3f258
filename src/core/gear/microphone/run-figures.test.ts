import { describe, expect, it } from 'vitest';
import { lcgNoise, mixed, scaled, sine, syllables } from '../../testing/signals';
import { analysedTake } from '../../testing/takes';
import type { Measurement } from '../../measure/measurement';
import { rearRejection } from '../../measure/rear-rejection';
import type { AnalysedTake } from '../run/analysed-take';
import type { GainedTake } from '../run/gained-take';
import { pickupRunFigures } from './run-figures';

const SECONDS = 8;
const passage = (seed: number): Float64Array =>
  syllables(
    [
      [0.4, 3],
      [3.6, 6.8],
    ],
    SECONDS,
    -14,
    48_000,
    seed,
  );
const noise = (levelDb: number, seed: number): Float64Array => scaled(lcgNoise(SECONDS * 48_000, 1, seed), levelDb);

const take = async (role: string, samples: Float64Array, gainDb = 40): Promise<GainedTake> => ({
  ...(await analysedTake(role, samples)),
  gainDb,
});
const figuresOf = (takes: readonly AnalysedTake[]): Measurement[] => pickupRunFigures(takes).measurements;
const value = (list: readonly Measurement[], quantity: string) => list.find((m) => m.quantity === quantity);

describe('drop-outs', () => {
  it('of the unit are those of all its takes, and say where they are', async () => {
    const gapped = mixed(passage(2), noise(-70, 13));
    // Three gaps of 20 ms inside words of the rear take alone.
    for (const atS of [1, 2, 5]) gapped.fill(0, atS * 48_000, (atS + 0.02) * 48_000);
    const clean = [await take('speech', mixed(passage(1), noise(-70, 11))), await take('silence', noise(-70, 12))];
    const figures = figuresOf([...clean, await take('rear', gapped)]);
    const found = value(figures, 'dropOuts');
    expect(found?.value).toBe(3);
    expect(found?.condition).toMatch(/all of 3 takes: rear 3$/);
    expect(found?.settings['longestMs']).toBeGreaterThan(15);
    expect(value(figuresOf(clean), 'dropOuts')).toMatchObject({
      value: 0,
      condition: expect.stringMatching(/all of 2 takes$/) as string,
    });
  });
});

describe('rear rejection', () => {
  it.each([4, 12, 20])('of %i dB is found again, whatever the noise', async (rejection) => {
    for (const noiseDb of [-90, -55]) {
      const figures = figuresOf([
        await take('speech', mixed(passage(1), noise(noiseDb, 11))),
        await take('silence', noise(noiseDb, 12)),
        await take('rear', mixed(scaled(passage(2), -rejection), noise(noiseDb, 13))),
      ]);
      const found = value(figures, 'rearRejection');
      expect(found?.bound).toBe('exact');
      // 0.3 dB: what remains is the scatter of gated blocks next to the noise.
      expect(Math.abs((found?.value ?? 0) - rejection)).toBeLessThan(0.3);
      expect(found?.uncertainty).toBeGreaterThan(0);
    }
  });

  it('without the correction would be wrong: the noise is truly taken off', async () => {
    // Without pauses: in a passage with pauses, noise that passes the gate happens to hide the error.
    const unbroken = (seed: number): Float64Array => syllables([[0, SECONDS]], SECONDS, -14, 48_000, seed);
    const front = await take('speech', mixed(unbroken(1), noise(-45, 11)));
    const rear = await take('rear', mixed(scaled(unbroken(2), -20), noise(-45, 13)));
    const silence = await take('silence', noise(-45, 12));
    const none = { stepPowers: new Float64Array(), gainDb: 40 };
    // 0.05 dB: gated blocks scatter in the noise.
    expect(Math.abs((rearRejection(front, rear, silence).value ?? NaN) - 20)).toBeLessThan(0.05);
    expect(rearRejection(front, rear, none).value!).toBeLessThan(19.4);
  });

  it('brings unequal gains to one', async () => {
    const figures = figuresOf([
      await take('speech', passage(1), 30),
      await take('silence', noise(-90, 12), 36),
      await take('rear', scaled(passage(2), -10 + 6), 36),
    ]);
    expect(Math.abs((value(figures, 'rearRejection')?.value ?? NaN) - 10)).toBeLessThan(0.05);
  });

  it('becomes a lower limit where the rear take drowns in noise', async () => {
    const figures = figuresOf([
      await take('speech', mixed(passage(1), noise(-45, 11))),
      await take('silence', noise(-45, 12)),
      await take('rear', mixed(scaled(passage(2), -60), noise(-45, 13))),
    ]);
    const found = value(figures, 'rearRejection');
    expect(found?.bound).toBe('at-least');
    expect(found?.value).toBeGreaterThan(5);
    expect(found?.value).toBeLessThan(60);
  });

  it('knows by itself when the front does not stand out of the noise', async () => {
    const buried = await take('speech', noise(-50, 11));
    expect(rearRejection(buried, buried, await take('silence', noise(-50, 12))).notMeasured).toMatch(
      /does not stand out/,
    );
  });

  it('is not measured where the front itself drowns, and says so', async () => {
    const figures = figuresOf([
      await take('speech', noise(-50, 11)),
      await take('silence', noise(-50, 12)),
      await take('rear', noise(-50, 13)),
    ]);
    expect(value(figures, 'rearRejection')).toMatchObject({
      value: null,
      notMeasured: expect.stringMatching(/No speech was found/) as string,
    });
  });
});

describe('noise re speech over two takes', () => {
  it('takes the gain between them out first', async () => {
    const speech = mixed(passage(1), noise(-80, 11));
    const equal = figuresOf([await take('speech', speech), await take('silence', noise(-80, 12))]);
    const louder = figuresOf([await take('speech', speech), await take('silence', noise(-70, 12), 50)]);
    for (const q of ['noiseReSpeechA', 'noiseReSpeechZ']) {
      expect(value(louder, q)?.value).toBeCloseTo(value(equal, q)?.value as number, 6);
    }
    expect(value(equal, 'noiseReSpeechA')?.condition).toBe('A-weighted, 20 Hz–20 kHz, speech at −23 LUFS');
  });

  it('lets the last take of a step count', async () => {
    const first = await take('silence', noise(-60, 12));
    const second = await take('silence', noise(-80, 12));
    const speech = await take('speech', passage(1));
    const [a] = figuresOf([speech, first, second]);
    const [b] = figuresOf([speech, second]);
    expect(a.value).toBe(b.value);
  });

  it('is not read against a speech take without speech', async () => {
    const figures = figuresOf([await take('speech', noise(-40, 3)), await take('silence', noise(-80, 12))]);
    expect(value(figures, 'noiseReSpeechA')).toMatchObject({
      value: null,
      notMeasured: expect.stringMatching(/No speech was found/) as string,
    });
  });

  it('names what a run lacks', async () => {
    const only = figuresOf([await take('silence', noise(-80, 12))]);
    expect(only.filter((m) => m.quantity.startsWith('noiseReSpeech')).every((m) => m.value === null)).toBe(true);
    expect(value(only, 'rearRejection')?.notMeasured).toBe('The run lacks: speech, rear.');
  });
});

describe('drive and self-noise', () => {
  // 94 dB SPL through 20 mV/Pa is −31.76 dBu; with 30 dB of gain and +14 dBu at full scale it stands at −15.76 dBFS.
  const chain = { fullScaleDbu: 14, claimedSensitivityMvPa: null };
  const tone = sine(1000, 20 * Math.log10(0.02 / Math.sqrt(0.6)) + 30 - 14, 3);

  // A calibrator of class 1 (IEC 60942:2003, from memory): ±0.4 dB as a rectangle.
  it('sensitivity comes back from a calibration take', async () => {
    const calibration = await analysedTake('calibration', tone, { gainDb: 30, levelDbSpl: 93.9794 });
    const { measurements } = pickupRunFigures([calibration], chain);
    expect(value(measurements, 'sensitivity')?.value).toBeCloseTo(20, 1);
    expect(value(measurements, 'sensitivity')?.uncertainty).toBeCloseTo(20 * (10 ** (0.4 / Math.sqrt(3) / 20) - 1), 6);
  });

  it('self-noise comes by calibration, or by a claimed sensitivity, and is the same', async () => {
    const silence = await analysedTake('silence', noise(-80, 3), { gainDb: 50 });
    const calibration = await analysedTake('calibration', tone, { gainDb: 30, levelDbSpl: 93.9794 });
    const [calibrated] = [pickupRunFigures([silence, calibration], chain).measurements].map((m) =>
      value(m, 'selfNoise'),
    );
    const claimed = value(
      pickupRunFigures([silence], { ...chain, claimedSensitivityMvPa: 20 }).measurements,
      'selfNoise',
    );
    expect(calibrated?.settings.by).toBe('calibration');
    expect(claimed?.settings.by).toBe('sensitivity');
    expect(claimed?.value).toBeCloseTo(calibrated?.value ?? NaN, 1);
    // Without either it is not among the figures that a run is expected to give.
    expect(value(pickupRunFigures([silence]).measurements, 'selfNoise')).toBeUndefined();
  });

  it('gain to −23 LUFS is the gain that would do it', async () => {
    const speech = await take('speech', passage(1), 35);
    const needed = value(figuresOf([speech]), 'gainToTarget')?.value ?? NaN;
    const again = await take('speech', scaled(passage(1), needed - 35), needed);
    expect(again.loudness.integratedLufs).toBeCloseTo(-23, 3);
  });
});

describe('distance ladder of a run', () => {
  it('is fitted from the distance takes, at equal gain, with the noise taken off', async () => {
    const takes: AnalysedTake[] = [await take('silence', noise(-75, 12))];
    for (const [i, distanceM] of [0.15, 0.3, 0.6, 1.2].entries()) {
      const direct = 10 ** (-10 / 10) / (distanceM / 0.15) ** 2;
      const level = 10 * Math.log10(direct + 10 ** (-24 / 10));
      takes.push(
        await analysedTake('distance', mixed(scaled(passage(1), level + 10), noise(-75, 20 + i)), { distanceM }),
      );
    }
    const { curves, measurements } = pickupRunFigures(takes);
    // Direct −10 dB at 0.15 m, reverberant −24 dB: equal at 0.15·10^(14/20) = 0.75 m.
    expect(Math.abs((curves.distance?.fit.criticalM ?? 0) / 0.752 - 1)).toBeLessThan(0.05);
    expect(value(measurements, 'usableDistance')?.value).toBeCloseTo(0.752 / 2, 1);
  });
});
