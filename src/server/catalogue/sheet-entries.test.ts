import { expect, it } from 'vitest';
import { currentSheet } from '#contracts/sheet';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import { sheetValueText } from '#core/gear/sheet/sheet-value';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const number = (value: number, unit: string, condition = ''): SheetValue => ({
  type: 'number',
  value,
  unit,
  condition,
});
const UNIT = { maker: 'Oarlock', model: 'Tally', label: 'A', category: 'interface' } as const;

it('keeps every entry of a sheet; the newest counts, and what is taken back does not', async () => {
  const { scoring, sheets, catalogue } = await testApplication();
  const { id } = await scoring.addUnit(UNIT);
  const texts = async () =>
    Object.fromEntries([...currentSheet((await catalogue.sheet(id)).sheet)].map(([f, v]) => [f, sheetValueText(v)]));
  await sheets.put(id, {
    entries: [
      { field: 'einA', value: number(-128, 'dBu', 'A-weighted') },
      { field: 'connection', value: { type: 'words', words: ['USB-C'] } },
    ],
    reason: '',
  });
  await sheets.put(id, { entries: [{ field: 'einA', value: number(-129, 'dBu', 'A-weighted') }], reason: 'new sheet' });
  // The same said once more is nothing new.
  await sheets.put(id, { entries: [{ field: 'einA', value: number(-129, 'dBu', 'A-weighted') }], reason: '' });
  expect(await texts()).toEqual({ einA: '−129 dBu, A-weighted', connection: 'USB-C' });
  expect((await catalogue.sheet(id)).claims).toEqual([{ quantity: 'einA', value: -129, unit: 'dBu', condition: 'A-weighted' }]); // prettier-ignore
  expect((await catalogue.specimen(id)).classes).toEqual({ connection: ['USB-C'] });
  await sheets.put(id, { entries: [{ field: 'einA', value: null }], reason: 'of the older model' });
  const { sheet, claims } = await catalogue.sheet(id);
  expect(claims).toEqual([]);
  expect(sheet.filter((e) => e.field === 'einA').map((e) => [e.value && sheetValueText(e.value), e.reason])).toEqual([
    [null, 'of the older model'],
    ['−129 dBu, A-weighted', 'new sheet'],
    ['−128 dBu, A-weighted', ''],
  ]);
});

it('takes all entries or none, and says what is wrong with each', async () => {
  const { scoring, sheets, catalogue } = await testApplication();
  const { id } = await scoring.addUnit(UNIT);
  const put = sheets.put(id, {
    entries: [
      { field: 'phantom', value: { type: 'yes-no', yes: true } },
      { field: 'pattern', value: { type: 'words', words: ['cardioid'] } },
      { field: 'einA', value: number(-128, 'Ω') },
    ],
    reason: '',
  });
  await expect(put).rejects.toMatchObject({
    code: 'invalid-request',
    details: [
      { field: 'entries[1].field', message: 'is no field of the sheet of interface or preamp' },
      { field: 'entries[2].value', message: expect.stringMatching(/not in “Ω”/) as string },
    ],
  });
  expect((await catalogue.sheet(id)).sheet).toEqual([]);
  await expect(sheets.put('999', { entries: [{ field: 'einA', value: null }], reason: '' })).rejects.toMatchObject({
    code: 'not-found',
  });
});

it('a run brings fields of the sheet along, once, and is refused with each that does not fit', async () => {
  const application = await testApplication();
  const document = runDocument({
    claims: [{ quantity: 'sensitivity', value: 4, unit: 'mV/Pa', condition: '' }],
    sheet: { transducer: { type: 'words', words: ['ribbon'] } },
  });
  const folder = writeRunFolder(temporaryFolder(), document);
  const { specimenId } = await application.runImport.importFolder(folder);
  await application.sheets.put(specimenId, { entries: [{ field: 'sensitivity', value: null }], reason: 'wrong model' });
  // Brought in again, it does not bring back what was taken back.
  await application.runImport.importFolder(folder);
  const { sheet, claims, row } = await application.catalogue.sheet(specimenId);
  expect(claims).toEqual([]);
  expect(sheet).toHaveLength(3);
  expect(row.classes).toEqual({ transducer: ['ribbon'] });
  const wrong = writeRunFolder(
    temporaryFolder(),
    runDocument({ sheet: { einA: number(-128, 'dBu'), address: { type: 'words', words: ['end', 'side'] } } }),
  );
  await expect(application.runImport.importFolder(wrong)).rejects.toMatchObject({
    details: [
      { field: 'sheet.einA', message: 'is no field of the sheet of microphone' },
      { field: 'sheet.address', message: 'takes one word' },
    ],
  });
});

it('what a run says counts from its day on: said again it is one entry, said otherwise and back again it is three', async () => {
  const application = await testApplication();
  const bring = (date: string, value: number) =>
    application.runImport.importFolder(
      writeRunFolder(
        temporaryFolder(),
        runDocument({ date, claims: [{ quantity: 'sensitivity', value, unit: 'mV/Pa', condition: '' }] }),
      ),
    );
  const { specimenId } = await bring('2026-01-01', 4);
  const claims = async () => (await application.catalogue.sheet(specimenId)).claims.map((c) => c.value);
  await bring('2026-02-01', 4);
  expect((await application.catalogue.sheet(specimenId)).sheet).toHaveLength(1);
  await bring('2026-03-01', 5);
  expect(await claims()).toEqual([5]);
  await bring('2026-04-01', 4);
  expect(await claims()).toEqual([4]);
  // An older run is older, whenever it is brought in.
  await bring('2025-06-01', 9);
  expect(await claims()).toEqual([4]);
  expect((await application.catalogue.sheet(specimenId)).sheet.map((e) => e.date)).toEqual(['2026-04-01', '2026-03-01', '2026-01-01', '2025-06-01']); // prettier-ignore
});

it('a claimed sensitivity ties the figures of runs that are there to sound pressure', async () => {
  const application = await testApplication();
  const run = runDocument({ inputFullScaleDbu: 4 });
  const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), run));
  await application.queue.idle();
  const noise = async () =>
    (await application.catalogue.sheet(specimenId)).runs[0].measurements.find((m) => m.quantity === 'selfNoise')?.value;
  expect((await noise()) ?? null).toBeNull();
  await application.sheets.put(specimenId, {
    entries: [{ field: 'sensitivity', value: number(4, 'mV/Pa') }],
    reason: '',
  });
  const before = (await noise()) ?? NaN;
  expect(before).toBeGreaterThan(0);
  // Ten times the sensitivity, 20 dB less noise.
  await application.sheets.put(specimenId, {
    entries: [{ field: 'sensitivity', value: number(0.04, 'V/Pa') }],
    reason: '',
  });
  expect((await noise()) ?? NaN).toBeCloseTo(before - 20, 6);
});

it('a file that still calls an instrument’s sound a kind of its own brings in a microphone', async () => {
  const application = await testApplication();
  const document = { ...runDocument(), specimen: { ...runDocument().specimen, category: 'instrument-source' } };
  const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), document));
  expect((await application.catalogue.specimen(specimenId)).category).toBe('microphone');
});
