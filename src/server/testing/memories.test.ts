import { expect, it } from 'vitest';
import { compareRequestSchema } from '#contracts/compare';
import type { NewCorrection } from '#contracts/correction';
import { scaleRequestSchema } from '#contracts/scale';
import { Devices } from '../platform/devices';
import type { Application } from '../wiring';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from './application';
import { importUnits, type HeardUnit } from './heard-catalogue';

const KNOWN = [
  'answers of listeners',
  'answers that the thread of the scale has',
  'what the ranking was told of answers',
  'differences between clips',
  'facts of units, and the rankings that follow from them',
  'protocols, rigs, rubrics and rates',
  'how the units of a kind stand to each other',
  'rankings of a kind for its uses',
];

/** Every question that is answered with the help of something remembered. */
async function answersOf({ catalogue, scale, compare, tables }: Application, units: readonly HeardUnit[]) {
  const takes = units.map((u) => u.takeId);
  const request = compareRequestSchema.parse({ takes, zero: takes[0], loop: { fromS: 2.6, toS: 4.2 } });
  return {
    rows: await catalogue.specimens(),
    ranking: await catalogue.ranking('microphone'),
    inputs: await catalogue.rankingInputs('microphone'),
    preference: await scale.scale(scaleRequestSchema.parse({})),
    fading: await scale.scale(scaleRequestSchema.parse({ halfLifeYears: 2, withEffects: false })),
    compare: await compare.table(request),
    difference: await compare.difference(takes[0], takes[1]),
    standing: await tables.ranking('microphone'),
  };
}

/** A fit that goes on from the last one ends within its tolerance of one that begins anew: nobody sees a millionth. */
const seen = (answers: unknown): unknown =>
  JSON.parse(JSON.stringify(answers, (_key, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(6)) : v)));

it('what is remembered changes no answer, whatever happened since, and in whatever order it was asked', async () => {
  const application = await testApplication();
  const { memories, scoring, corrections, answersImport, runImport, queue, unitAnswers } = application;
  expect(new Set(memories.names())).toEqual(new Set(KNOWN));
  const units = await importUnits(application, 3);
  const [a, b, c] = units;
  const sameAsForgotten = async (what: string) => {
    const warm = seen(await answersOf(application, units));
    memories.forget();
    expect(warm, what).toEqual(seen(await answersOf(application, units)));
  };
  const correct = (change: NewCorrection['change']) => corrections.correct({ change, reason: '' });
  const answer = (lines: readonly (readonly [HeardUnit, HeardUnit, number])[]) =>
    answersImport.importCsv(
      `winner,loser,count,date\n${lines.map(([w, l, n]) => `${w.name},${l.name},${n},2026-03-01`).join('\n')}\n`,
      'preference',
      'microphone',
    );
  await sameAsForgotten('three units');
  await answer([[a, b, 9], [b, c, 6], [c, a, 2]]); // prettier-ignore
  await sameAsForgotten('answers');
  await answer([[b, a, 4]]);
  await sameAsForgotten('more answers about two of them');
  const [given] = await unitAnswers.of(b.specimenId);
  await correct({ kind: 'answer-left-out', answer: given.id, isOut: true });
  await sameAsForgotten('an answer left out');
  await answer([[c, b, 1]]);
  await sameAsForgotten('as many answers as before, others');
  await correct({ kind: 'answer-left-out', answer: given.id, isOut: false });
  await sameAsForgotten('and it is back');
  await scoring.notePrice(a.specimenId, { amount: 80, currency: 'EUR', kind: 'street', date: '2026-05-02' });
  await sameAsForgotten('a price');
  const again = runDocument({ specimen: { maker: 'Oarlock', model: 'Bosun', label: 'A', category: 'microphone' }, date: '2026-05-08' }); // prettier-ignore
  await runImport.importFolder(writeRunFolder(temporaryFolder(), again, {}, 5));
  await queue.idle();
  await sameAsForgotten('another run');
  await correct({ kind: 'unit-merged', unit: c.specimenId, into: b.specimenId, isMerged: true });
  await sameAsForgotten('two units that are one');
  await correct({ kind: 'unit-merged', unit: c.specimenId, into: b.specimenId, isMerged: false });
  await sameAsForgotten('and are not');
});

it('a device that was shut out stays outside, whether it was remembered or not', async () => {
  const { database, clock, memories } = await testApplication();
  const devices = new Devices(database, clock.now, 'the token', memories);
  const key = (await devices.admit('the token', 'tablet', '10.0.0.7')) ?? '';
  const [{ id }] = await devices.list();
  expect(await devices.known(key)).toBe(id);
  memories.forget();
  expect(await devices.known(key)).toBe(id);
  await devices.revoke(id);
  expect(await devices.known(key)).toBeNull();
  memories.forget();
  expect(await devices.known(key)).toBeNull();
});
