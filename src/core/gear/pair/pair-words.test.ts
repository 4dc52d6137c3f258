import { describe, expect, it } from 'vitest';
import { measured, type Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { pairWords } from './pair-words';

const figure = (id: QuantityId, value: number, uncertainty: number | null, rest: Partial<Measurement> = {}) => ({
  ...measured(id, value, 'x', { uncertainty }),
  ...rest,
});
const words = (...figures: Measurement[]): string => pairWords({ figures, tonal: null }).join(' ');

describe('what a part does, in words', () => {
  it('is said of a gain only where it is surer than the word', () => {
    expect(words(figure('gainAdded', 25.04, 0.5))).toBe('Adds 25.0 ±0.5 dB of gain.');
    expect(words(figure('gainAdded', -3, 0.5))).toBe('Takes away 3.0 ±0.5 dB of gain.');
    expect(words(figure('gainAdded', 0.9, 0.5))).toBe('No change of gain that can be told.');
    expect(words(figure('gainAdded', 25, null))).toBe('No change of gain that can be told.');
  });

  it('does not praise a filter for its quiet', () => {
    const quieter = figure('noiseChangeA', -5.2, 0.4);
    expect(words(quieter)).toBe('Noise re speech, A-weighted, 5.2 ±0.4 dB lower.');
    const found = words(quieter, figure('hiddenLowCut', 112, 2));
    expect(found).toContain('without being a better amplifier');
    expect(found).toContain('Hides a low-cut at 112 ±2 Hz.');
    const none = words(quieter, figure('hiddenLowCut', 30, null, { bound: 'at-most' }));
    expect(none).not.toContain('better amplifier');
    expect(none).toContain('No low-cut above 30 Hz.');
    expect(words(figure('noiseChangeA', 3, 0.4), figure('hiddenLowCut', 112, 2))).not.toContain('better amplifier');
  });

  it('keeps energy and amplitude apart, and says "at least" of a limit', () => {
    expect(words(figure('outsideLessA', 10.5, 0.2))).toBe(
      'The noise from outside, A-weighted: 10.5 dB less: 91 % of the energy or 70 % of the amplitude is gone.',
    );
    expect(words(figure('outsideLessA', 10.5, 0.2, { bound: 'at-least' }))).toContain('at least 10.5 dB');
    expect(words(figure('windLessLow', 0.3, 0.4))).toBe('Wind below 200 Hz: no change that can be told.');
  });

  it.each([
    [0.4, 0.1, 'Transparent:'],
    [2, 0.1, 'Coloured:'],
    [1.1, 0.3, 'is not decided'],
  ])('a largest change of %d ± %d dB is called "%s"', (value, u, name) => {
    const m = figure('tonalChange', value, u, { settings: { hz: 200, changeDb: value } });
    const tonal = { bands: [{ hz: 200, db: value, u }], from: 'by sweep' };
    expect(pairWords({ figures: [m], tonal })[0]).toContain(name);
  });

  it('names regions that change by more than can be told', () => {
    const bands = [
      ...[125, 160, 200, 250, 315].map((hz) => ({ hz, db: 2.4, u: 0.2 })),
      ...[2500, 3150, 4000, 5000].map((hz) => ({ hz, db: 0.3, u: 0.1 })),
      ...[6300, 8000, 10_000, 12_500].map((hz) => ({ hz, db: -1.9, u: 1 })),
    ];
    const m = figure('tonalChange', 2.4, 0.2, { settings: { hz: 200, changeDb: 2.4 } });
    // The top falls by less than twice its uncertainty.
    expect(pairWords({ figures: [m], tonal: { bands, from: 'by sweep' } })[1]).toBe(
      'Of the sound: the lows 2.4 dB more.',
    );
  });

  it('is nothing of what was not measured', () => {
    expect(words({ ...figure('gainAdded', 1, null), value: null })).toBe('');
  });
});
