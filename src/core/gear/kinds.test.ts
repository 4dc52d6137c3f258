import { afterEach, describe, expect, it } from 'vitest';
import { isQuantity, quantity } from '../measure/registry';
import type { KindDocument } from './kind-document';
import {
  CLAIMED_QUANTITIES,
  SHIPPED_KIND_IDS,
  STEP_ROLE_IDS,
  gearKind,
  gearKindIds,
  isGearKind,
  registerKinds,
  sheetField,
  shippedKind,
  stepRole,
} from './kinds';
import { listColumns, possibleColumns, sheetColumns } from './list-columns';

describe('kinds of gear', () => {
  it.each(SHIPPED_KIND_IDS)('%s: its figures and claims are figures of the registry, its roles are known', (id) => {
    const kind = gearKind(id);
    expect(kind.id).toBe(id);
    expect(kind.name).not.toBe('');
    for (const figure of [...kind.keyFigures, ...Object.keys(kind.claims)])
      expect(isQuantity(figure), figure).toBe(true);
    for (const role of kind.roles) expect(stepRole(role.id)).toMatchObject({ id: role.id, plays: role.plays });
    // A key figure comes from steps that a protocol of the kind can have.
    const roles = new Set<string>(kind.roles.map((r) => r.id));
    // Halves of pairs are steps of any role.
    const ofSteps = kind.keyFigures.filter((figure) => quantity(figure).group !== 'pair');
    for (const figure of ofSteps) for (const step of quantity(figure).steps) expect(roles.has(step), step).toBe(true);
    expect(new Set(roles).size).toBe(kind.roles.length);
  });

  it('that have no sound of their own are heard through another: boosters and accessories', () => {
    expect(SHIPPED_KIND_IDS.filter((id) => gearKind(id).isHeardThroughAnother)).toEqual(['booster', 'accessory']);
  });

  it('share what they share: one role or claim is the same for every kind that has it', () => {
    expect(new Set(STEP_ROLE_IDS).size).toBe(STEP_ROLE_IDS.length);
    expect(new Set(CLAIMED_QUANTITIES).size).toBe(CLAIMED_QUANTITIES.length);
    for (const id of SHIPPED_KIND_IDS)
      for (const role of gearKind(id).roles) expect(role.answersSweep).toBe(stepRole(role.id)?.answersSweep);
    // Interfaces and headphones play sweeps as well; what tells those of a pattern apart stays.
    expect(stepRole('sweep')?.expectedLevel?.group).toBe('sweep');
    expect(stepRole('no role of ours')).toBeUndefined();
  });
});

const document = (change: Partial<KindDocument> = {}): KindDocument => ({
  id: 'microphone', version: 2, name: 'Microphone', like: 'microphone', hatch: null, withoutFields: [], columns: null,
  fields: [{ id: 'muteButton', name: 'Mute button', group: 'Body', type: 'yes-no', isClass: true }], ...change,
}); // prettier-ignore

describe('what a person has made of kinds', () => {
  afterEach(() => registerKinds([]));

  it('adds fields to a kind that ships, and takes away what it need not show', () => {
    registerKinds([document({ withoutFields: ['warranty'] })]);
    expect(sheetField('microphone', 'muteButton')?.name).toBe('Mute button');
    expect(sheetField('microphone', 'warranty')).toBeUndefined();
    expect(sheetField('interface', 'warranty')).toBeDefined();
    expect(shippedKind('microphone').sheet.some((f) => f.id === 'muteButton')).toBe(false);
    expect(gearKindIds()).toEqual(SHIPPED_KIND_IDS);
  });

  it('is a kind of its own, measured like one that ships, after those that ship', () => {
    registerKinds([document({ id: 'recorder', name: 'Recorder', like: 'interface', hatch: 'rings' })]);
    expect(gearKindIds()).toEqual([...SHIPPED_KIND_IDS, 'recorder']);
    const recorder = gearKind('recorder');
    expect(recorder).toMatchObject({ id: 'recorder', name: 'Recorder', hatch: 'rings' });
    expect(recorder.runFigures).toBe(gearKind('interface').runFigures);
    expect(recorder.sheet.map((f) => f.id)).toEqual([...gearKind('interface').sheet.map((f) => f.id), 'muteButton']);
  });

  it('is forgotten where it is not among those that are made known', () => {
    registerKinds([document(), document({ id: 'recorder', like: 'interface' })]);
    registerKinds([]);
    expect(isGearKind('recorder')).toBe(false);
    expect(gearKind('microphone')).toBe(shippedKind('microphone'));
    expect(() => gearKind('recorder')).toThrow(RangeError);
  });

  it('is a list with other columns: figures, and fields of the sheet; what is gone is passed over', () => {
    registerKinds([document({ columns: ['sheet:muteButton', 'rearRejection', 'sheet:gone', 'sheet:sensitivity'] })]);
    const kind = gearKind('microphone');
    expect(listColumns(kind).map((c) => [c.id, c.from, c.name])).toEqual([
      ['sheet:muteButton', 'sheet', 'Mute button'],
      ['rearRejection', 'figure', quantity('rearRejection').shortName ?? quantity('rearRejection').name],
      ['sheet:sensitivity', 'sheet', 'Sensitivity'],
    ]);
    expect(sheetColumns(kind.columns ?? [])).toEqual(['muteButton', 'gone', 'sensitivity']);
    // A figure and the claim of it are two columns.
    const ids = possibleColumns(kind, ['sensitivity']).map((c) => c.id);
    expect(ids).toContain('sensitivity');
    expect(ids).toContain('sheet:sensitivity');
    expect(new Set(ids).size).toBe(ids.length);
    expect(listColumns(shippedKind('interface')).map((c) => c.id)).toEqual(shippedKind('interface').keyFigures);
  });
});
