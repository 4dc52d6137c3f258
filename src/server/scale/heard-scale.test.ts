import { describe, expect, it } from 'vitest';
import { placeAnswerSchema, placeRequestSchema, scaleRequestSchema } from '#contracts/scale';
import { Failure } from '../platform/failure';
import { testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import { readAnswersCsv } from '#worker/answers-csv';

const PREFERENCE = scaleRequestSchema.parse({});

const PLACING = '11111111-1111-4111-8111-111111111111';

describe('answers from elsewhere', () => {
  it('are read whatever the order of the columns, with every wrong line named', () => {
    const { answers, problems } = readAnswersCsv('loser;winner;tie;date;count\nB;A;0;2024-03-01;3\nA;C;1;;\n');
    expect(problems).toEqual([]);
    expect(answers).toEqual([
      { winner: 'A', loser: 'B', isTie: false, count: 3, weight: 1, listener: null, day: '2024-03-01' },
      { winner: 'C', loser: 'A', isTie: true, count: 1, weight: 1, listener: null, day: null },
    ]);
    expect(readAnswersCsv('winner,loser,tie,count\nA,B,0,0\n').problems).toEqual([]);
    expect(readAnswersCsv('winner,loser,tie,count\nA,B,0,-1\nA,B,0,many\n').problems).toHaveLength(2);
    const wrong = readAnswersCsv('winner,loser,tie,date\nA,A,0,\nA,B,2,\nA,,0,\nA,B,0,yesterday\n');
    expect(wrong.problems.map((p) => p.field)).toEqual(['line 2', 'line 3', 'line 4', 'line 5']);
    expect(readAnswersCsv('a,b\n1,2').problems).toHaveLength(2);
    expect(readAnswersCsv('winner,loser\n').problems[0].message).toContain('no answers');
    expect(readAnswersCsv('winner,loser\n"A,B').problems).toHaveLength(1);
  });

  it('come in whole or not at all, once', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 3);
    const [a, b, c] = units.map((u) => u.name);
    const bad = `winner,loser,tie,listener,date\n${a},Nobody Nothing · Z,0,Ines,2025-02-01\n${a},${b},7,Ines,2025-02-01\n`;
    const refused = await application.answersImport.importCsv(bad, 'preference', 'microphone').catch((e: unknown) => e);
    expect(refused).toBeInstanceOf(Failure);
    expect((refused as Failure).details).toHaveLength(2);
    expect((await application.scale.scale(PREFERENCE)).answers).toBe(0);
    const good = `winner,loser,tie,listener,date\n${a},${b},0,Ines,2025-02-01\n${b.toUpperCase()},${c},0,Bram,2023-02-01\n${a},${c},1,Bram,2023-02-01\n`;
    expect(await application.answersImport.importCsv(good, 'preference', 'microphone')).toEqual({ answers: 3, units: 3, alreadyThere: false }); // prettier-ignore
    expect(await application.answersImport.importCsv(good, 'preference', 'microphone')).toMatchObject({
      alreadyThere: true,
    });
    const scale = await application.scale.scale(PREFERENCE);
    expect(scale).toMatchObject({ answers: 3, listeners: 2, components: 1, bridges: [] });
    expect(scale.tie).toBeGreaterThan(0);
    // Among some of them: each has its worth by all answers, and a place among these.
    const [first, second] = [scale.items[0], scale.items[1]];
    const among = await application.scale.scale({ ...PREFERENCE, among: [second.id, '999'] });
    expect(among.items).toMatchObject([{ id: second.id, logWorth: second.logWorth, answers: second.answers, place: 1, place90: [1, 1] }]); // prettier-ignore
    const others = scale.items.filter((i) => i.id !== first.id).map((i) => i.id);
    expect((await application.scale.scale({ ...PREFERENCE, among: others })).items.map((i) => [i.id, i.place])).toEqual(others.map((id, i) => [id, i + 1])); // prettier-ignore
    expect(await application.scale.scale({ ...PREFERENCE, among: [] })).toMatchObject({ items: [], answers: 3 });
    // As it stood on a day: Ines answered in 2025, Bram twice in 2023.
    const onDay = async (day: string) => [...(await application.scale.factsOnDay('microphone', day)).values()].map((f) => f.answers); // prettier-ignore
    expect(await onDay('2023-01-31')).toEqual([]);
    expect(await onDay('2024-06-01')).toEqual([1, 1, 2]);
    expect(await onDay('2025-02-01')).toEqual([2, 2, 2]);
    // Old answers fade where that is asked for: two of three are three years old.
    const faded = await application.scale.scale({ ...PREFERENCE, halfLifeYears: 1 });
    const width = (s: typeof scale): number => s.items.reduce((sum, i) => sum + i.se, 0);
    expect(width(faded)).toBeGreaterThan(width(scale) + 0.05);
    expect((await application.scale.scale({ ...PREFERENCE, attribute: 'natural' })).answers).toBe(0);
  });
});

describe('placing the new one', () => {
  it('proposes, takes the answer, narrows the place, and takes an answer back', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 6);
    const names = units.map((u) => u.name);
    const lines = names
      .slice(0, 5)
      .flatMap((w, i) => names.slice(i + 1, 5).flatMap((l) => [`${w},${l},0,8`, `${l},${w},0,2`]));
    await application.answersImport.importCsv(
      `winner,loser,tie,count\n${lines.join('\n')}\n`,
      'preference',
      'microphone',
    );
    const request = placeRequestSchema.parse({ step: 'speech', goal: 'stratum' });
    const { specimenId } = units[5];
    const first = await application.placings.place(specimenId, request);
    expect(first).toMatchObject({ answers: 0, units: 6, isSettled: false, problem: null });
    expect(first.place90).toEqual([1, 6]);
    expect(first.question?.kind).toBe('pair');
    let now = first;
    // The newcomer belongs between the second and the third.
    for (let i = 0; i < 12 && now.question; i++) {
      const other = now.question.takes[1].specimenId;
      const isBetter = units.findIndex((u) => u.specimenId === other) >= 2;
      const offered = now.question.takes.map((t) => t.specimenId);
      const order = isBetter ? [specimenId, other] : [other, specimenId];
      now = await application.placings.placeAnswer(specimenId, placeAnswerSchema.parse({ ...request, placing: PLACING, listener: 'Ines', order, offered })); // prettier-ignore
    }
    expect(now.answers).toBe(12);
    const width = (p: typeof now): number => p.place90[1] - p.place90[0];
    expect(width(now)).toBeLessThan(width(first));
    const { items } = await application.scale.scale(PREFERENCE);
    expect(items.findIndex((i) => i.id === specimenId)).toBe(2);
    const undo = (change: object = {}) => application.placings.placeUndo(specimenId, { ...request, placing: PLACING, listener: 'Ines', ...change }); // prettier-ignore
    // Nobody else's answer, of no other placing, about nothing else.
    for (const other of [{ listener: 'Bram' }, { placing: PLACING.replace('1', '2') }, { attribute: 'clear' as const }])
      await expect(undo(other)).rejects.toThrow(/no answer in this placing/);
    expect((await undo()).answers).toBe(11);
    const heat = await application.placings.place(specimenId, { ...request, kind: 'heat' });
    expect(heat.question?.takes).toHaveLength(4);
    const bad = placeAnswerSchema.parse({ ...request, placing: PLACING, listener: 'Ines', order: [units[0].specimenId, units[1].specimenId], offered: [specimenId, units[1].specimenId] }); // prettier-ignore
    await expect(application.placings.placeAnswer(specimenId, bad)).rejects.toThrow(/offered/);
    expect(await application.placings.place(specimenId, { ...request, step: 'nothing' })).toMatchObject({ question: null, problem: 'This unit has no measured clip of this step.' }); // prettier-ignore
  });

  it('what was heard is weighed with the points by hand in the ranking, and both are said', async () => {
    const application = await testApplication();
    const units = await importUnits(application, 3);
    const before = await application.catalogue.ranking('microphone');
    expect(before.map((r) => r.points['sound'])).toEqual([4, 4, 4]);
    const [a, b, c] = units.map((u) => u.name);
    await application.answersImport.importCsv(`winner,loser,tie,count\n${c},${a},0,1\n${c},${b},0,1\n${c},${a},0,1\n${c},${b},0,1\n${b},${a},0,1\n`, 'preference', 'microphone'); // prettier-ignore
    const after = await application.catalogue.ranking('microphone');
    const points = (name: string): number => after.find((r) => r.specimen === name)?.points['sound'] ?? 0;
    expect(points(c)).toBeGreaterThan(4);
    // Three answers are too few.
    expect([points(a), points(b)]).toEqual([4, 4]);
    const { units: facts, rubric } = await application.catalogue.rankingInputs('microphone');
    expect(rubric.version).toBe(2);
    expect(facts.find((f) => f.id === units[2].specimenId)?.heard?.answers).toBe(4);
    const scale = await application.scale.scale(PREFERENCE);
    expect(scale.items[0]).toMatchObject({ name: c, handPoints: 4 });
    // Four answers move the four points by hand a little, towards what was heard.
    const heard = scale.items[0].heardPoints ?? 0;
    expect(heard).toBeGreaterThan(points(c));
    expect(points(c) - 4).toBeLessThan((heard - 4) / 2);
  });

  it('a file with one bad line keeps nothing, and one that the database refuses in the middle keeps nothing either', async () => {
    const application = await testApplication();
    const [a, b] = (await importUnits(application, 2)).map((u) => u.name);
    const lines = (bad: string | null): string =>
      ['winner,loser,listener', ...Array.from({ length: 5000 }, (_, i) => (bad !== null && i === 3998 ? bad : `${a},${b},Ines`))].join('\n'); // prettier-ignore
    const kept = async (): Promise<unknown> => {
      const [row] = await application.database.query<{ answers: number; listeners: number }>(
        'SELECT (SELECT count(*)::int FROM heard_answer) AS answers, (SELECT count(*)::int FROM listener) AS listeners',
      );
      return row;
    };
    await expect(
      application.answersImport.importCsv(lines(`${a},nobody,Ines`), 'preference', 'microphone'),
    ).rejects.toMatchObject({
      code: 'answers-refused',
      details: [{ message: 'there is no unit called "nobody"' }],
    });
    await expect(
      application.answersImport.importCsv(lines(`${a},${a},Ines`), 'preference', 'microphone'),
    ).rejects.toMatchObject({
      details: [{ field: 'line 4000' }],
    });
    expect(await kept()).toEqual({ answers: 0, listeners: 0 });
    await application.database.script(`ALTER TABLE heard_answer ADD CONSTRAINT few CHECK (id < 4000)`);
    await expect(application.answersImport.importCsv(lines(null), 'preference', 'microphone')).rejects.toThrow();
    expect(await kept()).toEqual({ answers: 0, listeners: 0 });
    await application.database.script('ALTER TABLE heard_answer DROP CONSTRAINT few');
    expect(await application.answersImport.importCsv(lines(null), 'preference', 'microphone')).toMatchObject({
      answers: 5000,
    });
    expect(await kept()).toEqual({ answers: 5000, listeners: 1 });
  });
});

it('a unit is placed among its own kind, whatever was asked for', async () => {
  const application = await testApplication();
  const [a, b] = await importUnits(application, 2);
  await application.answersImport.importCsv(`winner,loser,tie\n${a.name},${b.name},0\n`, 'preference', 'microphone');
  const unit = { maker: 'Oarlock', model: 'Gauge', label: 'A', category: 'interface' as const };
  const { id } = await application.scoring.addUnit(unit);
  const asked = placeRequestSchema.parse({ category: 'microphone', step: 'speech' });
  expect((await application.placings.place(id, asked)).units).toBe(1);
  expect((await application.placings.place(a.specimenId, { ...asked, category: 'interface' })).units).toBe(2);
});
