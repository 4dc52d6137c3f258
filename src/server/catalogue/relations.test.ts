import { expect, it } from 'vitest';
import { newRelationSchema, type NewRelation } from '#contracts/relation';
import { pricePoints } from '#core/rules/price-rule';
import type { PriceCriterion } from '#core/rules/rubric';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const relation = (change: Partial<NewRelation>): NewRelation => newRelationSchema.parse({ kind: 'needs', ...change });
const rule: PriceCriterion = { kind: 'price', id: 'value', name: 'Value', meaning: 'money', currency: 'EUR', basis: ['street'], curve: [[0, 5], [500, 0]], limit: null, parts: { use: 'Desk' } }; // prettier-ignore

it('what a unit needs is paid as well, and follows the part’s own price and name', async () => {
  const app = await testApplication();
  const { catalogue, scoring, relations } = app;
  const { specimenId: unit } = await app.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument()));
  await app.queue.idle();
  const { id: stand } = await scoring.addUnit({ maker: 'Thole', model: 'Arm', label: 'A', category: 'accessory' });
  await scoring.notePrice(stand, { amount: 40, currency: 'EUR', kind: 'street', date: '2026-05-01' });
  const cost = async () => {
    const facts = (await catalogue.rankingInputs('microphone')).units.find((u) => u.id === unit)!;
    const verdict = pricePoints(facts, rule);
    return verdict.points === null ? verdict.why : [verdict.total, verdict.parts.map((p) => p.name)];
  };
  expect(await cost()).toEqual([129, []]);
  const { id } = await relations.add(unit, relation({ other: stand, uses: ['Desk'] }));
  await relations.add(
    unit,
    relation({ name: 'pop filter', price: { amount: 11, currency: 'EUR', date: '2026-05-02' } }),
  );
  expect(await cost()).toEqual([180, ['Thole Arm · A', 'pop filter']]);
  // One fact of the part alone: what hangs on it is made anew.
  await scoring.notePrice(stand, { amount: 50, currency: 'EUR', kind: 'street', date: '2026-05-03' });
  expect(await cost()).toEqual([190, ['Thole Arm · A', 'pop filter']]);
  await app.corrections.correct({ change: { kind: 'unit-name', unit: stand, maker: 'Thole', model: 'Arm', label: 'B' }, reason: '' }); // prettier-ignore
  expect(await cost()).toEqual([190, ['Thole Arm · B', 'pop filter']]);
  expect((await catalogue.sheet(stand)).relations).toMatchObject([
    { kind: 'needs', isOwn: false, other: { id: unit } },
  ]);
  await relations.end(id);
  expect(await cost()).toEqual([140, ['pop filter']]);
  await expect(relations.end(id)).rejects.toThrow(/has ended/);
  expect((await catalogue.sheet(unit)).relations.map((r) => r.name)).toEqual(['pop filter']);
});

it('is refused to a unit itself, to one that is not there, and where the shape says two things', async () => {
  const app = await testApplication();
  const { id } = await app.scoring.addUnit({ maker: 'Thole', model: 'Arm', label: 'A', category: 'accessory' });
  await expect(app.relations.add(id, relation({ kind: 'replaces', other: id }))).rejects.toThrow(/to itself/);
  await expect(app.relations.add(id, relation({ other: '99' }))).rejects.toThrow(/no unit with the number 99/);
  await expect(app.relations.add('99', relation({ name: 'arm' }))).rejects.toThrow(/no unit with the number 99/);
  const problems = (body: object) => newRelationSchema.safeParse(body).error?.issues.map((i) => i.path.join('.'));
  expect(problems({ kind: 'needs' })).toEqual(['name']);
  expect(problems({ kind: 'needs', other: '1', name: 'arm' })).toEqual(['name']);
  expect(problems({ kind: 'needs', other: '1', price: { amount: 1, currency: 'EUR', date: '2026-05-01' } })).toEqual(['price']); // prettier-ignore
  expect(problems({ kind: 'replaces', other: '1', uses: ['Desk'] })).toEqual(['uses']);
});
