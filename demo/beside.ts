import { Readable } from 'node:stream';
import { drawnBox, drawnMicrophone } from './draw-picture';
import type { KindDocument } from '#core/gear/kind-document';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import type { NewPhotograph } from '#contracts/photograph';
import type { NewRelation } from '#contracts/relation';
import type { PriceInput } from '#contracts/run-document';
import type { Application } from '#server/wiring';

// What is noted with units beside their tests: later prices, what they need, what they replace. All invented.

interface DemoPart {
  readonly model: string;
  /** Model of the other unit, or words for what is not in the catalogue. */
  readonly other?: string;
  readonly relation: Omit<Partial<NewRelation>, 'other'> & Pick<NewRelation, 'kind'>;
}

const typed = (name: string, amount: number, date: string): Pick<NewRelation, 'name' | 'price'> => ({
  name,
  price: { amount, currency: 'EUR', date },
});

const DEMO_RELATIONS: readonly DemoPart[] = [
  { model: 'Reed II', other: 'Reed', relation: { kind: 'replaces' } },
  { model: 'Ribbon Two', other: 'Ribbon One', relation: { kind: 'same-capsule' } },
  { model: 'Reed', other: 'Sedge', relation: { kind: 'cheaper-sibling' } },
  { model: 'Ribbon One', other: 'Lift', relation: { kind: 'needs' } },
  { model: 'Long Reach', other: 'Fur 2', relation: { kind: 'needs', uses: ['on a camera'] } },
  { model: 'Long Reach', relation: { kind: 'needs', uses: ['on a camera'], ...typed('shock mount for the shoe', 29, '2020-02-08') } }, // prettier-ignore
  { model: 'Warden 2', relation: { kind: 'needs', ...typed('shock mount', 45, '2019-03-09') } },
  { model: 'Warden 2', other: 'Double Screen', relation: { kind: 'needs', uses: ['singing'] } },
];

const DEMO_PRICES: readonly { readonly model: string; readonly prices: readonly PriceInput[] }[] = [
  {
    model: 'Warden 2',
    prices: [
      { amount: 399, currency: 'EUR', kind: 'list', date: '2019-03-09', region: 'EU', tax: 'with' },
      { amount: 299, currency: 'EUR', kind: 'sale', date: '2021-11-26', shop: 'music shop' },
      { amount: 359, currency: 'EUR', kind: 'street', date: '2022-08-13', shop: 'music shop' },
      { amount: 240, currency: 'EUR', kind: 'used', date: '2023-05-06', note: 'with the case, one dent' },
      { amount: 339, currency: 'USD', kind: 'street', date: '2024-05-11', region: 'US', tax: 'without' },
    ],
  },
  {
    model: 'Reed',
    prices: [
      { amount: 199, currency: 'EUR', kind: 'street', date: '2021-01-23' },
      { amount: 179, currency: 'EUR', kind: 'street', date: '2021-03-06', shop: 'by mail' },
      { amount: 90, currency: 'EUR', kind: 'used', date: '2024-09-21' },
    ],
  },
];

/** Rates of two days, so that a price in dollars counts. Invented. */
const DEMO_RATES = [
  { date: '2019-03-09', currency: 'USD', rate: 1.12 },
  { date: '2024-05-11', currency: 'USD', rate: 1.08 },
];

const yesOrNo = (yes: boolean): SheetValue => ({ type: 'yes-no', yes });

/** Two fields of the desk’s own, and a kind that does not ship. */
const DEMO_KINDS: readonly KindDocument[] = [
  {
    id: 'microphone',
    version: 1,
    name: 'Microphone',
    like: 'microphone',
    hatch: null,
    fields: [
      { id: 'muteButton', name: 'Mute button', group: 'Body', type: 'yes-no', isClass: true },
      { id: 'lamp', name: 'Lamp', group: 'Body', type: 'choice', options: ['none', 'status', 'bright'] },
    ],
    withoutFields: [],
    columns: ['noiseReSpeechA', 'rearRejection', 'sheet:muteButton'],
  },
  {
    id: 'portable-recorder',
    version: 1,
    name: 'Portable recorder',
    like: 'interface',
    hatch: 'rings',
    fields: [{ id: 'cardSlots', name: 'Card slots', group: 'What it is', type: 'number', unit: '' }],
    withoutFields: ['loopback', 'directMonitoring'],
    columns: null,
  },
];
const DEMO_MUTES: Readonly<Partial<Record<string, boolean>>> = { Lantern: true, Beacon: true, Reed: false, 'Reed II': true, Skipper: true, 'Warden 2': false }; // prettier-ignore

const DEMO_PICTURES = (): readonly (readonly [Uint8Array, NewPhotograph])[] => [
  [drawnMicrophone(0), { subject: 'unit', caption: 'As it came', date: '2019-03-09' }],
  [drawnBox(), { subject: 'box', caption: '', date: '2019-03-09' }],
  [drawnMicrophone(0.35), { subject: 'set-up', caption: 'At 15 cm, a little from below', date: '2025-09-06' }],
];

/** Notes them once: what is there already is left as it is. */
export async function buildBeside({
  catalogue,
  kindBook,
  photographs,
  relations,
  scoring,
  sheets,
}: Application): Promise<void> {
  const units = await catalogue.specimens();
  const find = (model: string) => units.find((u) => u.model === model);
  const first = find(DEMO_RELATIONS[0].model);
  if (!first || (await catalogue.sheet(first.id)).relations.length > 0) return;
  if ((await scoring.rates()).length === 0) await scoring.noteRates(DEMO_RATES);
  for (const kind of DEMO_KINDS) await kindBook.save(kind);
  for (const unit of units) {
    const mute = DEMO_MUTES[unit.model];
    if (mute === undefined || unit.category !== 'microphone') continue;
    await sheets.put(unit.id, { entries: [{ field: 'muteButton', value: yesOrNo(mute) }], reason: '' });
  }
  await scoring.addUnit({ maker: 'Mooring', model: 'Pocket Two', label: 'A', category: 'portable-recorder' });
  const warden = find('Warden 2');
  for (const [bytes, about] of warden ? DEMO_PICTURES() : [])
    await photographs.add(warden?.id ?? '', Readable.from([bytes]), about);
  for (const { model, prices } of DEMO_PRICES) {
    const unit = find(model);
    for (const price of unit ? prices : []) await scoring.notePrice(unit?.id ?? '', price);
  }
  for (const { model, other, relation } of DEMO_RELATIONS) {
    const [unit, part] = [find(model), other === undefined ? null : find(other)];
    if (!unit || part === undefined) continue;
    await relations.add(unit.id, { name: '', uses: [], price: null, ...relation, other: part?.id ?? null });
  }
}
