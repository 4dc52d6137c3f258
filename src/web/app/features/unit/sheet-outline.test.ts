import { describe, expect, it } from 'vitest';
import type { Run, SpecimenRow, SpecimenSheet, Take } from '#contracts/specimen';
import { sheetOutline } from './sheet-outline';
import { curvesSchema } from '#contracts/curves';
import { row } from '../../testing/rows';

describe('the outline of a sheet', () => {
  const missing = (
    change: Partial<SpecimenRow>,
    runs: readonly Partial<Run>[] = [],
    sheet: Partial<SpecimenSheet> = {},
  ) =>
    Object.fromEntries(
      sheetOutline({ row: row(change), prices: [], sheet: [], runs, ...sheet } as unknown as SpecimenSheet, null)
        .filter((part) => part.missing !== '')
        .map((part) => [part.id, part.missing]),
    );
  const run = (change: Partial<Run> = {}): Partial<Run> => ({
    purpose: 'unit',
    takes: [],
    tables: [],
    measurements: [],
    curves: curvesSchema.parse({}),
    ...change,
  });

  it('says what is missing of a unit that nothing is known of', () => {
    expect(missing({ place: null, hasRules: false })).toEqual({
      'data-sheet': 'empty',
      prices: 'no price',
      takes: 'no takes',
      measured: 'no figures',
      heard: 'by nobody yet',
      points: 'no rules yet',
      place: 'not ranked',
    });
  });

  it('asks for no take of a unit of tables, and for no figure of a kind that is heard through another', () => {
    const table = { step: 'isolation', title: '', unit: '', cell: '', role: 'isolation', asked: null };
    const cell = { row: '', column: '', value: 12, source: 'typed', clip: null } as const;
    const tables = run({ tables: [{ ...table, cells: [cell] }] });
    expect(missing({ category: 'headphones' }, [run({ tables: [{ ...table, cells: [] }] })])['takes']).toBe('no takes');
    expect(missing({ category: 'headphones' }, [tables])).toEqual({ 'data-sheet': 'empty', prices: 'no price', heard: 'by nobody yet', measured: 'no figures' }); // prettier-ignore
    expect(missing({ category: 'accessory' }, [run({ takes: [{ analysis: { status: 'done' }, summary: null } as unknown as Take] })])['measured']).toBeUndefined(); // prettier-ignore
    expect(missing({ category: 'interface' }, [tables])['measured']).toBe('no figures');
  });

  it('counts what failed and what is missing, and a sheet that was emptied as empty', () => {
    const failed = run({ takes: [{ analysis: { status: 'failed' }, summary: null } as unknown as Take] });
    const taken = { field: 'weight', value: null, date: '2026-05-02', reason: '' };
    expect(missing({ missingPoints: ['sound'], heardAnswers: 2 }, [failed], { sheet: [taken] })).toMatchObject({
      takes: '1 failed',
      points: '1 missing',
      'data-sheet': 'empty',
    });
  });
});
