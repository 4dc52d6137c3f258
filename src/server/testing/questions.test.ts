import { inject, expect, it } from 'vitest';
import { newPlanSchema } from '#contracts/session-plan';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from './application';
import { countedDatabase } from './counted-database';
import { databaseClone } from './database-clones';

/** An application whose questions to the database are counted, not timed: the count is the same on every machine. */
async function countedApplication() {
  const database = countedDatabase(await databaseClone(inject('databaseDump')));
  const application = await testApplication({ database });
  const { questionsOf } = database;
  const bring = async (label: string, day: number) => {
    const specimen = { ...runDocument().specimen, label };
    const document = runDocument({ specimen, date: `2026-05-${String(day).padStart(2, '0')}` });
    const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), document));
    await application.queue.idle();
    return specimenId;
  };
  return { application, questionsOf, bring };
}

it('a sheet asks as many questions for one run as for five', async () => {
  const { application, questionsOf, bring } = await countedApplication();
  const id = await bring('A', 1);
  const sheet = () => application.catalogue.sheet(id);
  await sheet();
  const one = await questionsOf(sheet);
  for (const day of [2, 3, 4, 5]) await bring('A', day);
  const { runs } = await sheet();
  expect(runs.map((r) => r.date)).toEqual([5, 4, 3, 2, 1].map((day) => `2026-05-0${day}`));
  // Each has what is its own: three takes, and every figure once.
  expect(runs.map((r) => r.takes.length)).toEqual([3, 3, 3, 3, 3]);
  expect(new Set(runs.flatMap((r) => r.takes.map((t) => t.id))).size).toBe(15);
  for (const run of runs)
    expect(
      run.measurements.filter((m) => m.quantity === 'rearRejection'),
      run.date,
    ).toHaveLength(1);
  expect(await questionsOf(sheet)).toBe(one);
  expect(one).toBeLessThan(20);
});

it('a plan asks as many questions for one unit as for six', async () => {
  const { application, questionsOf, bring } = await countedApplication();
  const labels = ['A', 'B', 'C', 'D', 'E', 'F'];
  for (const [i, label] of labels.entries()) await bring(label, 1 + i);
  const plan = async (of: readonly string[]) => {
    const { maker, model } = runDocument().specimen;
    const units = of.map((label) => ({ maker, model, label, source: 'own' }));
    const rules = { category: 'microphone', protocol: 'desk-voice', protocolVersion: 1 };
    return application.plans.add(newPlanSchema.parse({ title: 'Six', day: '2026-06-01', ...rules, units }));
  };
  const [one, six] = [await plan(labels.slice(0, 1)), await plan(labels)];
  expect(six.slots.map((s) => s.lastSettings.length)).toEqual(labels.map(() => 3));
  expect(new Set(six.slots.map((s) => s.specimenId)).size).toBe(6);
  const asked = await questionsOf(() => application.planPages.view(one.row.id));
  expect(await questionsOf(() => application.planPages.view(six.row.id))).toBe(asked);
});

it('after one fact the catalogue reads that unit alone, and what is due asks no more for more days', async () => {
  const { application, questionsOf, bring } = await countedApplication();
  const { catalogue, dueTests, scoring } = application;
  const id = await bring('A', 1);
  await bring('B', 2);
  const price = (amount: number) =>
    scoring.notePrice(id, { amount, currency: 'EUR', kind: 'street', date: '2026-06-01' });
  const again = async (amount: number) => {
    await catalogue.specimens();
    await price(amount);
    return questionsOf(() => catalogue.specimens());
  };
  const [two, due] = [await again(100), await questionsOf(() => dueTests.list())];
  for (const [i, label] of ['C', 'D', 'E'].entries()) await bring(label, 3 + i);
  expect(await again(110)).toBe(two);
  expect(await questionsOf(() => dueTests.list())).toBe(due);
  expect(await questionsOf(() => catalogue.specimens())).toBe(0);
  // Both ask something: a count of nothing would hold all of this.
  expect([two, due].every((asked) => asked > 0)).toBe(true);
});
