import { expect, it } from 'vitest';
import { seededBits, uniform } from '#core/stats/random';
import { newRelationSchema } from '#contracts/relation';
import type { RankingInputs } from '#contracts/ranking';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const LABELS = ['A', 'B', 'C'];
const DAYS = Array.from({ length: 8 }, (_, i) => `2026-05-${String(3 * i + 1).padStart(2, '0')}`);

// A replay: facts come in day by day, and each evening is kept. What is said of a day later has to be what stood then.
it.each(['one', 'two'])(
  'says of any day what stood on it, whatever came later (facts drawn from “%s”)',
  async (seed) => {
    const bits = seededBits(seed);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(uniform(bits) * list.length)];
    let today = DAYS[0];
    const application = await testApplication({ now: () => new Date(`${today}T12:00:00Z`) });
    const { catalogue, runImport, scoring, sheets, relations, queue } = application;
    const held: string[] = [];
    const specimens = new Map<string, string>();
    const bring = async (label: string) => {
      const document = runDocument({
        specimen: { ...runDocument().specimen, label },
        date: today,
        protocolVersion: pick([1, 1, 2]),
        prices: [],
        points: [],
      });
      const folder = writeRunFolder(temporaryFolder(), document, {}, pick([4, 8, 12, 16]));
      specimens.set(label, (await runImport.importFolder(folder)).specimenId);
      await queue.idle();
    };
    const events: (() => Promise<unknown>)[] = [
      () => bring(pick(LABELS)),
      () => scoring.notePrice(pick([...specimens.values()]), { amount: pick([50, 90, 400]), currency: pick(['EUR', 'USD']), kind: pick(['street', 'sale']), date: today }), // prettier-ignore
      () => scoring.noteRates([{ date: today, currency: 'USD', rate: pick([1, 1.25, 2]) }]),
      () => scoring.givePoints(pick([...specimens.values()]), { criterion: pick(['build', 'features', 'sound']), value: pick([1, 2.5, 4]) }), // prettier-ignore
      () => scoring.setCustody(pick([...specimens.values()]), pick([true, false])),
      () => sheets.put(pick([...specimens.values()]), { entries: [{ field: 'weight', value: pick([null, { type: 'number', value: pick([100, 200]), unit: 'g', condition: '' }]) }], reason: '' }), // prettier-ignore
    ];
    events.push(
      async () => {
        const [unit, other] = [pick([...specimens.values()]), pick([...specimens.values()])];
        const part = { kind: 'needs', uses: pick([[], ['Desk']]) };
        const typed = {
          ...part,
          name: 'stand',
          price: { amount: pick([10, 30]), currency: pick(['EUR', 'USD']), date: today },
        };
        held.push((await relations.add(unit, newRelationSchema.parse(unit === other ? typed : { ...part, other }))).id);
      },
      async () => {
        const id = held.shift();
        if (id !== undefined) await relations.end(id);
      },
    );
    const stood = new Map<string, RankingInputs>();
    for (const day of DAYS) {
      today = day;
      if (specimens.size === 0) await bring('A');
      for (let i = 0; i < 4; i++) await pick(events)();
      stood.set(day, await catalogue.rankingInputs('microphone'));
    }
    for (const [day, inputs] of stood) {
      const then = await catalogue.rankingOnDay('microphone', day);
      expect(then.inputs, day).toEqual(inputs);
    }
    // Between two days the earlier one stands; before the first there is nothing.
    const between = await catalogue.rankingOnDay('microphone', '2026-05-05');
    expect(between.inputs).toEqual(stood.get('2026-05-04'));
    expect((await catalogue.rankingOnDay('microphone', '2020-01-01')).inputs.units).toEqual([]);
  },
);

it('counts what was noted late, and takes the rules that had been saved by then', async () => {
  const application = await testApplication();
  const { catalogue, rubricBook, database } = application;
  await application.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument()));
  await application.queue.idle();
  // Everything here was noted today, and holds for May: one run, one price, three points.
  const may = await catalogue.rankingOnDay('microphone', '2026-05-31');
  expect([may.lateFacts, may.rulesSavedOn]).toEqual([5, null]);
  expect(may.inputs.units).toHaveLength(1);
  await database.query(`UPDATE rubric_version SET recorded_at = '2026-01-01T12:00:00Z'`);
  await database.query(`UPDATE every_run SET recorded_at = '2026-05-02T12:00:00Z'`);
  const [{ rubric }] = await rubricBook.versions('microphone');
  await rubricBook.save({ ...rubric, weights: { ...rubric.weights, noise: 7 } });
  const later = await catalogue.rankingOnDay('microphone', '2026-05-31');
  expect([later.lateFacts, later.rulesSavedOn]).toEqual([4, '2026-01-01']);
  expect(later.inputs.rubric).toEqual(rubric);
  expect((await catalogue.rankingOnDay('microphone', '2199-01-01')).inputs.rubric.weights['noise']).toBe(7);
  await expect(catalogue.rankingOnDay('microphone', '2025-12-31')).resolves.toMatchObject({ rulesSavedOn: null });
});
