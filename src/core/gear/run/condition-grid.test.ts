import { describe, expect, it } from 'vitest';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { TakeSettingsNoted } from '../../rules/take-conditions';
import { fTail } from '../../stats/analysis-of-variance';
import { NO_CURVES, type AnalysedTake, type RunFigures } from './analysed-take';
import { effectWords } from './condition-words';
import { figuresByCondition } from './condition-grid';
import type { NotedTake } from './repeated-figures';

/** A take of which only its level counts here: a reader of figures that is no more than that. */
const take = (step: string, level: number, settings: TakeSettingsNoted = {}, gainDb = 40): NotedTake => ({
  step,
  settings,
  analysed: { role: step, gainDb, distanceM: null, angleDeg: null, levelDbu: null, levelDbSpl: null, windSpeedMs: null, aDbfs: level } as AnalysedTake, // prettier-ignore
});

/** Noise from the last speech take, hum from the last silent one, drop-outs of all. */
const read = (takes: readonly AnalysedTake[]): RunFigures => {
  const last = (role: string): AnalysedTake | undefined => takes.findLast((t) => t.role === role);
  const of = (id: Measurement['quantity'], take: AnalysedTake | undefined): Measurement =>
    take ? measured(id, take.aDbfs, 'A-weighted', { uncertainty: 0.3 }) : notMeasured(id, '', 'no take');
  return {
    measurements: [
      of('noiseReSpeechA', last('speech')),
      of('hum', last('silence')),
      ...(last('rear') ? [of('rearRejection', last('rear'))] : []),
      // Something of every take.
      measured('dropOuts', -takes.reduce((sum, t) => sum + t.aDbfs, 0), 'all takes'),
    ],
    curves: NO_CURVES,
  };
};

const figure = (list: readonly Measurement[], id: string): Measurement => list.find((m) => m.quantity === id) as Measurement; // prettier-ignore

describe('takes that were repeated', () => {
  it('give their mean, their scatter, and an uncertainty of both', () => {
    const takes = [take('speech', -60), take('silence', -80), take('speech', -62), take('speech', -64)];
    const { figures, grid } = figuresByCondition(takes, read);
    expect(grid).toBeNull();
    const noise = figure(figures.measurements, 'noiseReSpeechA');
    expect(noise).toMatchObject({ value: -62, spread: { sd: 2, count: 3, of: 'repeats' }, settings: { repeats: 3 } });
    // √(0.3² + 2²/3), JCGM 100.
    expect(noise.uncertainty).toBeCloseTo(Math.sqrt(0.09 + 4 / 3), 12);
    // What was taken once has no repeats, and what is counted over all takes is not read from some of them.
    expect(figure(figures.measurements, 'hum')).toMatchObject({ value: -80, spread: null, uncertainty: 0.3 });
    expect(figure(figures.measurements, 'dropOuts')).toMatchObject({ value: 60 + 80 + 62 + 64, spread: null });
  });

  it('are none where something else was noted: the last counts, as it always did', () => {
    const { figures } = figuresByCondition([take('speech', -60), take('speech', -64, {}, 50)], read);
    expect(figure(figures.measurements, 'noiseReSpeechA')).toMatchObject({ value: -64, spread: null });
    const padded = figuresByCondition([take('speech', -60), take('speech', -64, { pad: '-10' })], read);
    expect(figure(padded.figures.measurements, 'noiseReSpeechA').value).toBe(-64);
  });
});

describe('takes of several voices', () => {
  const voices = (...levels: readonly (readonly [string, number])[]): NotedTake[] => [
    ...levels.map(([voice, level]) => take('speech', level, { voice })),
    take('silence', -80),
  ];

  it('count for the unit by the first, and stand side by side', () => {
    const { figures, counting, grid } = figuresByCondition(voices(['Ada', -60], ['Bo', -63.1]), read);
    expect(figure(figures.measurements, 'noiseReSpeechA').value).toBe(-60);
    expect(counting).toHaveLength(2);
    expect(grid?.conditions.map((c) => c.voice)).toEqual(['Ada', 'Bo']);
    // Hum is of the silent take, which both share: no row. Of noise, lower is better.
    expect(grid?.rows.filter((r) => r.quantity !== 'dropOuts').map((r) => [r.quantity, r.best])).toEqual([['noiseReSpeechA', 1]]); // prettier-ignore
    expect(effectWords(grid!.rows[0])).toEqual([
      'by voice 3.1 dB: Bo −63.1, Ada −60.0; nothing was repeated, so whether that is more than repeats do is not known',
    ]);
  });

  it('differ by more than repeats, or do not', () => {
    const far = figuresByCondition(voices(['Ada', -60], ['Bo', -63], ['Ada', -60.2], ['Bo', -63.2], ['Ada', -59.8]), read); // prettier-ignore
    // By hand: −60 (3 takes) and −63.1 (2); within 0.04 + 0.04 + 0.01 + 0.01 over 3, between 6/5 · 3.1²: F = 346.
    const [effect] = far.grid!.rows[0].effects;
    expect(effect.p).toBeCloseTo(fTail((1.2 * 3.1 ** 2) / (0.1 / 3), 1, 3), 9);
    expect(effectWords(far.grid!.rows[0])[0]).toMatch(/more than repeats \(p < 0\.001\)$/);
    expect(far.grid!.rows[0].cells.map((c) => c?.repeats)).toEqual([3, 2]);
    const near = figuresByCondition(voices(['Ada', -60], ['Bo', -61], ['Ada', -63], ['Bo', -58]), read);
    expect(effectWords(near.grid!.rows[0])[0]).toMatch(/; not more than repeats \(p = 0\.\d\d\)$/);
    expect(near.grid!.rows[0].best).toBeNull();
  });

  it('are best where more is better, too', () => {
    const rear = (voice: string, level: number) => take('rear', level, { voice });
    const takes = [...voices(['Ada', -60], ['Bo', -63]), rear('Ada', 12), rear('Bo', 16)];
    const { grid } = figuresByCondition(takes, read);
    expect(grid?.rows.map((r) => [r.quantity, r.best])).toEqual([['noiseReSpeechA', 1], ['rearRejection', 1], ['dropOuts', 1]]); // prettier-ignore
  });

  it('are held against repeats about each cell: what the place does is no repeat', () => {
    const cells = [['Ada', 'booth', -60], ['Ada', 'hall', -50], ['Bo', 'booth', -61], ['Bo', 'hall', -51.4]] as const; // prettier-ignore
    const takes = cells.flatMap(([voice, place, level]) => [level - 0.3, level + 0.3].map((l) => take('speech', l, { voice, place }))); // prettier-ignore
    const row = figuresByCondition(takes, read).grid!.rows[0];
    // By hand: voices −55 and −56.2, four takes each: between 4·2·0.6² = 2.88; within 8·0.3² = 0.72 over 8 − 4 cells.
    expect(row.effects[0].p).toBeCloseTo(fTail(2.88 / (0.72 / 4), 1, 4), 9);
  });

  it('are compared where they met: voices of two places that share one say nothing of each other', () => {
    const takes = [['Ada', 'booth', -60], ['Bo', 'booth', -61], ['Ada', 'hall', -50], ['Cy', 'hall', -50.5]].map(([voice, place, level]) => take('speech', Number(level), { voice, place })); // prettier-ignore
    const row = figuresByCondition(takes, read).grid!.rows[0];
    expect(row.effects.find((e) => e.factor === 'voice')).toMatchObject({ lowest: { of: 'Bo', value: -61 }, highest: { of: 'Ada', value: -60 } }); // prettier-ignore
  });

  it('in several places: each effect from takes that differ in nothing else', () => {
    const takes = [
      take('speech', -60, { voice: 'Ada', place: 'booth' }),
      take('speech', -50, { voice: 'Ada', place: 'hall' }),
      take('speech', -61, { voice: 'Bo', place: 'booth' }),
    ];
    const { grid } = figuresByCondition(takes, read);
    const [row] = grid!.rows;
    expect(row.effects.map((e) => [e.factor, e.lowest.of, e.highest.of])).toEqual([['voice', 'Bo', 'Ada'], ['place', 'booth', 'hall']]); // prettier-ignore
    // Bo was never in the hall: that he is quieter must not make the booth so.
    expect(row.effects.map((e) => e.highest.value - e.lowest.value)).toEqual([1, 10]);
  });
});
