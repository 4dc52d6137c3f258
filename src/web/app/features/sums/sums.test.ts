import { describe, expect, it } from 'vitest';
import { measured } from '#core/measure/measurement';
import { unitEventSchema } from '#contracts/session-plan';
import type { Run, SpecimenSheet } from '#contracts/specimen';
import { SUMS } from './all-sums';
import { registerKinds } from '#core/gear/kinds';
import { keptSum } from './kept-sum';
import { sumWith } from './sum-with';
import { placedMarks } from './level-line';
import { answerOf, missingOf, typedIn, valuesOf } from './sum-values';
import { takenFrom } from './take-from-unit';

const find = (id: string) => {
  const sum = SUMS.find((s) => s.id === id);
  if (!sum) throw new Error(`no sum ${id}`);
  return sum;
};
const answer = (id: string, typed: Record<string, number | null>) => answerOf(find(id), valuesOf(find(id), typed, {}));
const line = (id: string, typed: Record<string, number | null>, label: string) => answer(id, typed)?.lines.find((l) => l.label === label)?.text; // prettier-ignore

describe('numbers of a sum', () => {
  const sum = find('phantom');

  it('are what was typed, else what the unit has, else what is usual', () => {
    const taken = { current: { value: 3, source: 'data sheet' } } as const;
    expect(valuesOf(sum, {}, taken)['current']).toEqual({ value: 3, source: 'data sheet' });
    expect(valuesOf(sum, { current: 4 }, taken)['current']).toEqual({ value: 4, source: 'typed' });
    expect(valuesOf(sum, {}, {})['volts']).toEqual({ value: 48, source: 'usual' });
  });

  it('that were emptied by hand stay empty, and are asked for', () => {
    const values = valuesOf(sum, { volts: null }, { current: { value: 3, source: 'measured' } });
    expect(values['volts']).toEqual({ value: null, source: null });
    expect(missingOf(sum, values)).toEqual(['Supply']);
    expect(answerOf(sum, values)).toBeNull();
  });

  it('come from the address as they went into it', () => {
    const query = new URLSearchParams('current=2.5&volts=&ohms=odd&other=1');
    expect(typedIn(sum, (name) => query.get(name))).toEqual({ current: 2.5, volts: null });
  });
});

describe('what a unit has', () => {
  const sheet = (figures: ReturnType<typeof measured>[], entries: object[] = []): Pick<SpecimenSheet, 'runs' | 'sheet'> => ({
    runs: [{ id: '1', date: '2026-01-01', purpose: 'unit', takes: [], measurements: figures, curves: { pairs: [] } } as unknown as Run],
    sheet: entries as SpecimenSheet['sheet'],
  }); // prettier-ignore
  const ein = { part: 'interface', quantity: 'einA', field: 'einA', unit: 'dBu' } as const;
  const claim = { field: 'einA', value: { type: 'number', value: -130, unit: 'dBV', condition: '' } };

  it('is what was measured, whatever its data sheet says', () => {
    expect(takenFrom(sheet([measured('einA', -127, 'x')], [claim]), ein)).toEqual({ value: -127, source: 'measured' });
  });

  it('is the data sheet’s, in the unit that the sum wants, where only a limit was measured', () => {
    const limit = measured('einA', -127, 'x', { bound: 'at-most' });
    const found = takenFrom(sheet([limit], [claim]), ein);
    // 0 dBV is 2.218 dBu (IEC 60268-3).
    expect(found?.value).toBeCloseTo(-127.78, 2);
    expect(found?.source).toBe('data sheet');
  });

  it('is nothing where it has neither', () => {
    expect(takenFrom(sheet([]), ein)).toBeNull();
    expect(takenFrom(sheet([], [{ field: 'einA', value: { type: 'text', text: 'low' } }]), ein)).toBeNull();
  });
});

describe('sums', () => {
  it.each(SUMS.map((s) => [s.id, s] as const))(
    '%s: says what it needs, then answers with words and numbers',
    (_, sum) => {
      expect(new Set(sum.fields.map((f) => f.id)).size).toBe(sum.fields.length);
      const parts = sum.parts.map((p) => p.id);
      for (const { from } of sum.fields) if (from) expect(parts).toContain(from.part);
      const typed = Object.fromEntries(sum.fields.map((f) => [f.id, f.usual ?? Math.max(1, f.sheet.least ?? 1)]));
      const found = answerOf(sum, valuesOf(sum, typed, {}));
      expect(found?.lines.length).toBeGreaterThan(0);
      for (const l of found?.lines ?? []) expect(l.text).not.toMatch(/NaN|undefined|Infinity/);
      const bare = Object.fromEntries(sum.fields.flatMap((f) => (f.isOptional ? [[f.id, null]] : [])));
      for (const l of answerOf(sum, valuesOf(sum, { ...typed, ...bare }, {}))?.lines ?? []) expect(l.text).not.toMatch(/NaN|undefined/); // prettier-ignore
    },
  );

  it('whether an interface drives a microphone', () => {
    const typed = { sensitivity: 1.6, fullScale: 14, ein: -128, mostGain: 54 };
    expect(line('drive', typed, 'Gain needed above the least')).toBe('59.7 dB');
    expect(answer('drive', typed)?.words[0]).toBe('It does not: 5.7 dB of gain are missing.');
    expect(answer('drive', { ...typed, boosterGain: 25 })?.words).toEqual([
      expect.stringMatching(/^It does, with 19\.3 dB/),
      expect.stringMatching(/^The booster is of use/),
    ]);
  });

  it('headphones without a sensitivity have a power, and no loudness', () => {
    const typed = { load: 32, open: 2, output: 32 };
    expect(line('headphones', typed, 'Loudest')).toBe('needs a sensitivity');
    expect(answer('headphones', typed)?.words[0]).toMatch(/more than one eighth/);
    expect(line('headphones', { ...typed, perMw: 98 }, 'Loudest')).toBe('113 dB SPL');
    expect(answer('headphones', { ...typed, output: 1, perMw: 98 })?.words.join(' ')).toMatch(/stiff enough.*minute/);
  });

  it('which gives out first, and which way the delay goes', () => {
    expect(answer('clipping', { sensitivity: 20, mostInput: 10, mostLevel: 130 })?.words).toEqual(['The microphone gives out first.']); // prettier-ignore
    expect(answer('clipping', { sensitivity: 20, mostInput: 10, mostLevel: 150 })?.words).toEqual(['The input gives out first.']); // prettier-ignore
    expect(line('delay', { link: 0, metres: 3.43 }, 'which is')).toBe('480.0 samples');
    expect(answer('delay', { link: 20, metres: 3.43 })?.words[0]).toMatch(/delay the other/);
    expect(answer('recording', { battery: 4 })?.words).toEqual(['The battery ends first.']);
    expect(answer('phantom', { current: 20 })?.lines[0].text).toBe('nothing');
  });
});

describe('a unit of the catalogue', () => {
  it('begins with the sum that it is most asked for in', () => {
    expect(sumWith({ id: '7', category: 'interface' })).toEqual({ sum: 'drive', interface: '7' });
    expect(sumWith({ id: '7', category: 'field-microphone' })).toEqual({ sum: 'drive', microphone: '7' });
    expect(sumWith({ id: '7', category: 'headphones' })).toEqual({ sum: 'headphones', headphones: '7' });
  });

  it('of a kind of one’s own is what it is measured like; an accessory is part of none', () => {
    registerKinds([{ id: 'portable', version: 1, name: 'Portable', like: 'interface', hatch: null, withoutFields: [], columns: null, fields: [] }]); // prettier-ignore
    expect(sumWith({ id: '7', category: 'portable' })).toEqual({ sum: 'drive', interface: '7' });
    registerKinds([]);
    expect(sumWith({ id: '7', category: 'accessory' })).toBeNull();
  });
});

describe('levels on a line', () => {
  it('stand in order, and hang lower where their names would meet', () => {
    const placed = placedMarks([{ label: 'b', value: 10 }, { label: 'a', value: 0 }, { label: 'c', value: 11 }], 'dB'); // prettier-ignore
    expect(placed.map((m) => m.label)).toEqual(['a', 'b', 'c']);
    expect(placed[1].y).toBe(placed[0].y);
    expect(placed[2].y).toBeGreaterThan(placed[1].y);
    expect(placedMarks([{ label: 'a', value: 3 }], 'dB')[0].x).toBe(360);
  });
});

describe('an answer that is kept', () => {
  it('has every number in its address, those of the catalogue and those that are usual, and says what it came to', () => {
    const sum = find('phantom');
    const values = valuesOf(sum, {}, { current: { value: 3, source: 'data sheet' } });
    const reply = answerOf(sum, values);
    if (!reply) throw new Error('no answer');
    const kept = keptSum(sum, values, reply, '2026-05-02');
    expect(kept).toMatchObject({ kind: 'sum', day: '2026-05-02' });
    expect(kept.note).toContain(sum.title);
    expect(kept.note).toContain(reply.lines[0].text);
    const address = new URLSearchParams(kept.sum ?? '');
    const again = valuesOf(
      sum,
      typedIn(sum, (name) => address.get(name)),
      {},
    );
    expect(answerOf(sum, again)).toEqual(reply);
    expect(unitEventSchema.parse(kept)).toEqual(kept);
  });

  it('keeps what was left out left out, and no more words than are kept', () => {
    const sum = { ...find('phantom'), title: 'x'.repeat(470) };
    const values = { ...valuesOf(sum, {}, { current: { value: 3, source: 'measured' } }), volts: { value: null, source: null } }; // prettier-ignore
    const kept = keptSum(sum, values, { lines: [{ label: 'long', text: 'y'.repeat(40) }], words: [], marks: [], markUnit: '' }, '2026-05-02'); // prettier-ignore
    expect(new URLSearchParams(kept.sum ?? '').get('volts')).toBe('');
    expect(kept.note).toBe(sum.title);
  });
});
