import { describe, expect, it } from 'vitest';
import { analyse, lcgNoise, mixed, scaled, syllables } from '../testing/signals';
import { rearRejection } from './rear-rejection';
import { runMeasurements, type AnalysedTake } from './run-measurements';

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

async function take(step: string, samples: Float64Array, gainDb = 40): Promise<AnalysedTake> {
  const { loudness, noise: pause, stepPowers, segments } = await analyse([samples]);
  const speechS = segments.speech.reduce((s, { startS, endS }) => s + endS - startS, 0);
  return { step, gainDb, loudness, noise: pause, speechS, stepPowers };
}
const value = (list: ReturnType<typeof runMeasurements>, quantity: string) => list.find((m) => m.quantity === quantity);

describe('rear rejection', () => {
  it.each([4, 12, 20])('of %i dB is found again, whatever the noise', async (rejection) => {
    for (const noiseDb of [-90, -55]) {
      const figures = runMeasurements([
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
    expect(rearRejection(front, rear, silence).value).toBeCloseTo(20, 0);
    expect(rearRejection(front, rear, none).value!).toBeLessThan(19.4);
  });

  it('brings unequal gains to one', async () => {
    const figures = runMeasurements([
      await take('speech', passage(1), 30),
      await take('silence', noise(-90, 12), 36),
      await take('rear', scaled(passage(2), -10 + 6), 36),
    ]);
    expect(value(figures, 'rearRejection')?.value).toBeCloseTo(10, 0);
  });

  it('becomes a lower limit where the rear take drowns in noise', async () => {
    const figures = runMeasurements([
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
    const figures = runMeasurements([
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
    const equal = runMeasurements([await take('speech', speech), await take('silence', noise(-80, 12))]);
    const louder = runMeasurements([await take('speech', speech), await take('silence', noise(-70, 12), 50)]);
    for (const q of ['noiseReSpeechA', 'noiseReSpeechZ']) {
      expect(value(louder, q)?.value).toBeCloseTo(value(equal, q)?.value as number, 6);
    }
    expect(value(equal, 'noiseReSpeechA')?.condition).toBe('A-weighted, 20 Hz–20 kHz, speech at −23 LUFS');
  });

  it('lets the last take of a step count', async () => {
    const first = await take('silence', noise(-60, 12));
    const second = await take('silence', noise(-80, 12));
    const speech = await take('speech', passage(1));
    const [a] = runMeasurements([speech, first, second]);
    const [b] = runMeasurements([speech, second]);
    expect(a.value).toBe(b.value);
  });

  it('is not read against a speech take without speech', async () => {
    const figures = runMeasurements([await take('speech', noise(-40, 3)), await take('silence', noise(-80, 12))]);
    expect(value(figures, 'noiseReSpeechA')).toMatchObject({
      value: null,
      notMeasured: expect.stringMatching(/No speech was found/) as string,
    });
  });

  it('names what a run lacks', async () => {
    const only = runMeasurements([await take('silence', noise(-80, 12))]);
    expect(only.every((m) => m.value === null)).toBe(true);
    expect(value(only, 'rearRejection')?.notMeasured).toBe('The run lacks: speech, rear.');
  });
});
