import { expect, it } from 'vitest';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

it('saving makes the next version, ranks by it at once, and keeps what was there', async () => {
  const application = await testApplication();
  await application.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument()));
  await application.queue.idle();
  const [{ rubric }] = await application.rubricBook.versions('microphone');
  const [before] = await application.catalogue.ranking('microphone');
  const saved = await application.rubricBook.save({
    ...rubric,
    weights: { ...Object.fromEntries(rubric.criteria.map((c) => [c.id, 0])), build: 1 },
  });
  expect(saved.rubric.version).toBe(rubric.version + 1);
  const [after] = await application.catalogue.ranking('microphone');
  // Points for build are 3.5, and nothing else counts now.
  expect(after.composite).toBeCloseTo(3.5, 12);
  expect(before.composite).not.toBeCloseTo(3.5, 2);
  const versions = await application.rubricBook.versions('microphone');
  expect(versions.map((v) => v.rubric.version)).toEqual([3, 2, 1]);
  // Three points were given by hand under the version before.
  expect(versions.map((v) => v.points)).toEqual([0, 3, 0]);
  expect(versions[1].rubric).toEqual(rubric);
});

it('what does not go on from the newest version is refused, and so is what asks for what is not there', async () => {
  const { rubricBook } = await testApplication();
  const [{ rubric }] = await rubricBook.versions('interface');
  await rubricBook.save(rubric);
  await expect(rubricBook.save(rubric)).rejects.toMatchObject({
    code: 'invalid-request',
    details: [{ field: 'version', message: expect.stringMatching(/Load them anew/) as string }],
  });
  const [{ rubric: newest }] = await rubricBook.versions('interface');
  const wrong = { ...newest, weights: { ...newest.weights, wings: 1 }, criteria: [...newest.criteria, { id: 'wings', name: 'Wings', meaning: 'm', kind: 'sheet-number' as const, field: 'wings', curve: [[0, 1]] as const }] }; // prettier-ignore
  await expect(rubricBook.save(wrong)).rejects.toMatchObject({
    details: [{ message: 'the sheet of this kind has no field "wings"' }],
  });
  // Two at once: one is the next version, the other is told.
  const both = await Promise.allSettled([rubricBook.save(newest), rubricBook.save(newest)]);
  expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected']);
  const versions = (await rubricBook.versions('interface')).map((v) => v.rubric.version);
  expect(versions).toEqual(Array.from({ length: newest.version + 1 }, (_, i) => newest.version + 1 - i));
});

it('kinds without a figure are ranked by what is heard, noted and given by hand, once they were tested', async () => {
  const application = await testApplication();
  const { scoring, sheets, catalogue } = application;
  const { specimenId } = await application.runImport.importFolder(
    writeRunFolder(
      temporaryFolder(),
      runDocument({
        specimen: { maker: 'Oarlock', model: 'Hush', label: 'A', category: 'headphones' },
        protocol: 'headphones',
        protocolVersion: 1,
        takes: [],
        tables: [{ step: 'isolation', cells: [{ row: '500 Hz', column: 'attenuation', value: 12, source: 'typed' }] }],
        points: [{ criterion: 'comfort', value: 4 }],
      }),
    ),
  );
  const { id } = await scoring.addUnit({ maker: 'Oarlock', model: 'Hush', label: 'B', category: 'headphones' });
  await sheets.put(id, { entries: [{ field: 'spareParts', value: { type: 'yes-no', yes: true } }], reason: '' });
  // The second has a sheet and no test.
  expect((await catalogue.ranking('headphones')).map((r) => r.id)).toEqual([specimenId]);
  const [row] = await catalogue.ranking('headphones');
  expect(row.points['comfort']).toBe(4);
  expect(row.missing).toContain('features');
  await sheets.put(specimenId, {
    entries: [
      { field: 'spareParts', value: { type: 'yes-no', yes: true } },
      { field: 'detachableCable', value: { type: 'yes-no', yes: false } },
    ],
    reason: '',
  });
  expect((await catalogue.ranking('headphones'))[0].points['features']).toBe(3);
  expect((await catalogue.specimen(specimenId)).classes).toEqual({ spareParts: ['yes'], detachableCable: ['no'] });
});

it('a price in another currency counts as soon as there is a rate, and the sheet says what it came to', async () => {
  const application = await testApplication();
  const usd = { amount: 162.5, currency: 'USD', kind: 'street' as const, date: '2026-05-01' };
  const { specimenId } = await application.runImport.importFolder(
    writeRunFolder(temporaryFolder(), runDocument({ prices: [usd] })),
  );
  await application.queue.idle();
  const value = async () => (await application.catalogue.ranking('microphone'))[0].points['value'];
  expect(await value()).toBeNull();
  expect((await application.catalogue.specimen(specimenId)).price).toEqual(usd);
  await application.scoring.noteRates([{ date: '2026-04-30', currency: 'USD', rate: 1.5 }]);
  await application.scoring.noteRates([{ date: '2026-04-30', currency: 'USD', rate: 1.25 }]);
  // 130 EUR, between 80 at 4.5 points and 150 at 3.8.
  expect(await value()).toBeCloseTo(4.5 - (0.7 * 50) / 70, 9);
  expect((await application.catalogue.specimen(specimenId)).price).toMatchObject({ amount: 130, currency: 'EUR' });
  const [noted] = (await application.catalogue.sheet(specimenId)).prices;
  expect(noted).toMatchObject({ ...usd, also: { EUR: { amount: 130, rateOn: '2026-04-30' } } });
  expect(await application.scoring.rates()).toEqual([{ date: '2026-04-30', currency: 'USD', rate: 1.25 }]);
});
