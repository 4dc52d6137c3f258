import { describe, expect, it } from 'vitest';
import type { KindDocument } from '#core/gear/kind-document';
import type { SheetField } from '#core/gear/sheet/sheet-field';
import { kindDocumentSchema, kindProblems } from './kind';

const mute: SheetField = { id: 'muteButton', name: 'Mute button', group: 'Body', type: 'yes-no' };
const foam: SheetField = { id: 'foam', name: 'Foam', group: 'Body', type: 'number', unit: 'mm' };
const kind = (change: Partial<KindDocument> = {}): KindDocument => ({ id: 'recorder', version: 1, name: 'Recorder', like: 'interface', hatch: 'rings', fields: [mute], withoutFields: [], columns: null, ...change }); // prettier-ignore
const problems = (next: KindDocument, stands: KindDocument | null = null, used: string[] = []): string[] =>
  kindProblems(next, stands, new Set(used)).map((p) => p.message);

describe('a kind as a document', () => {
  it('is sound as it is', () => {
    expect(problems(kind())).toEqual([]);
    expect(kindDocumentSchema.parse(kind())).toEqual(kind());
  });

  it('refuses a field that is there twice, is there already, or has no words to choose from', () => {
    expect(problems(kind({ fields: [mute, mute] }))).toEqual(['"muteButton" is there twice']);
    expect(problems(kind({ fields: [{ ...mute, id: 'weight' }] }))).toEqual([
      '"weight" is a field of interface already',
    ]);
    const choice: SheetField = { id: 'colour', name: 'Colour', group: 'Body', type: 'choice', options: [] };
    expect(problems(kind({ fields: [choice] }))).toEqual(['“Colour” needs words to choose from']);
  });

  it('lets a kind that ships keep its name, and any kind what it is measured like', () => {
    const microphone = kind({ id: 'microphone', name: 'Microphone', like: 'microphone', hatch: null });
    expect(problems(microphone)).toEqual([]);
    for (const change of [{ name: 'Mic' }, { like: 'booster' as const }, { hatch: 'rings' as const }])
      expect(problems({ ...microphone, ...change })[0]).toBe('a kind that ships keeps its name, its hatch and its measurements'); // prettier-ignore
    expect(problems(kind({ like: 'headphones' }), kind())).toEqual(['a kind cannot be measured like another one once it is there']); // prettier-ignore
  });

  it('lets a field that is filled in keep its type and unit, and stay', () => {
    const stands = kind({ fields: [mute, foam] });
    expect(problems(kind({ fields: [mute, { ...foam, name: 'Foam height' }] }), stands, ['foam'])).toEqual([]);
    expect(problems(kind({ fields: [mute, { ...foam, unit: 'g' }] }), stands, ['foam'])[0]).toMatch(/keeps its type and its unit/); // prettier-ignore
    expect(problems(kind({ fields: [{ ...mute, type: 'text' }, foam] as SheetField[] }), stands, ['muteButton'])[0]).toMatch(/keeps its type/); // prettier-ignore
    expect(problems(kind({ fields: [mute] }), stands, ['foam'])).toEqual([
      '“Foam” is filled in somewhere, so it stays',
    ]);
    expect(problems(kind({ fields: [mute] }), stands)).toEqual([]);
  });

  it('hides only fields that there are', () => {
    expect(problems(kind({ withoutFields: ['warranty'] }))).toEqual([]);
    expect(problems(kind({ withoutFields: ['nothing'] }))).toEqual(['interface has no field "nothing"']);
  });

  it('shows only columns that there are', () => {
    expect(problems(kind({ columns: ['einA', 'sheet:muteButton', 'sheet:weight'] }))).toEqual([]);
    expect(problems(kind({ columns: ['sheet:nothing'] }))).toEqual(['there is no figure and no field "sheet:nothing" to show']); // prettier-ignore
  });
});
