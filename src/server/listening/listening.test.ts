import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { newTestSchema, type NewTest, type SendAnswer, type SittingState, type TestPage } from '#contracts/listening';
import { scaleRequestSchema } from '#contracts/scale';
import type { z } from 'zod';
import { serve, temporaryFolder, testApplication } from '../testing/application';
import { firstTrials } from '#domain/listening/trial-plan';
import { importUnits, type HeardUnit } from '../testing/heard-catalogue';
import type { Application } from '../wiring';
import { mustFindTest } from './must-find-test';

type Answer = SendAnswer['answer'];

interface Rig {
  readonly application: Application;
  readonly folder: string;
  readonly units: HeardUnit[];
}

async function bench(count: number): Promise<Rig> {
  const folder = temporaryFolder();
  const application = await testApplication({ folder });
  return { application, folder, units: await importUnits(application, count) };
}

const testOf = (units: readonly HeardUnit[], change: Partial<z.input<typeof newTestSchema>> = {}): NewTest =>
  newTestSchema.parse({ name: 'Spring four', design: 'heats', takes: units.map((u) => u.takeId), passage: { fromS: 0.5, lengthS: 3 }, ...change }); // prettier-ignore

async function prepared(application: Application, test: NewTest): Promise<TestPage> {
  const { row } = await application.tests.create(test);
  await application.listeningClips.settled();
  const page = await application.tests.page(row.id);
  expect(page.row.problem).toBeNull();
  expect(page.row.status).toBe('open');
  return page;
}

/** Answers after having heard everything. */
async function answer(application: Application, sitting: string, sent: SendAnswer): Promise<SittingState> {
  await application.sittings.heardElsewhere(sitting);
  return application.sittings.answer(sitting, sent);
}

/** Answers every trial by what the operator knows, as a listener who hears everything would. */
async function goThrough(
  { application, units }: Rig,
  page: TestPage,
  name: string,
  worthOf: (specimenId: string) => number,
  most = 100,
): Promise<string> {
  const { sitting } = await application.sittings.join(page.invitation, { name });
  for (let i = 0; i < most; i++) {
    const state = await application.sittings.state(sitting);
    if (!state.trial) return sitting;
    const behind = await itemsOf(application, page, sitting, state.trial.ordinal);
    const worth = (code: string): number => {
      const item = page.items.find((x) => x.id === behind[code.charCodeAt(0) - 65]);
      return item?.role === 'known-worse' || item?.role.startsWith('anchor') ? -100 : worthOf(item?.specimenId ?? '');
    };
    await answer(application, sitting, {
      trial: state.trial.ordinal,
      answer: answerFor(state, worth),
      words: state.trial.askWords ? { A: { words: ['natural'], free: 'like tar' } } : {},
      seconds: 20,
    });
  }
  expect(units.length).toBeGreaterThan(0);
  return sitting;
}

async function itemsOf(application: Application, page: TestPage, sitting: string, ordinal: number): Promise<string[]> {
  const rows = await application.database.query<{ document: { items: string[] } }>(
    'SELECT tr.document FROM trial tr JOIN sitting si ON si.id = tr.sitting_id WHERE si.key = $1 AND tr.ordinal = $2',
    [sitting, ordinal],
  );
  expect(page.items.length).toBeGreaterThan(0);
  return rows[0].document.items;
}

function answerFor({ trial }: SittingState, worth: (code: string) => number): Answer {
  if (!trial) throw new Error('nothing is asked');
  const best = [...trial.codes].sort((a, b) => worth(b) - worth(a));
  switch (trial.kind) {
    case 'familiarise':
      return { kind: 'familiarise' };
    case 'order':
      return { kind: 'order', codes: best };
    case 'pair':
      return { kind: 'pair', preferred: worth(best[0]) === worth(best[1]) ? null : best[0] };
    case 'ratings':
      return { kind: 'ratings', ratings: Object.fromEntries(trial.codes.map((c) => [c, Math.max(0, Math.min(100, 95 + worth(c)))])) }; // prettier-ignore
    default:
      throw new Error(`no answer for ${trial.kind}`);
  }
}

describe('preparing', () => {
  it('makes clips of one length and size, level-matched to 0.1 LU, without a name in them', async () => {
    const { application, folder, units } = await bench(3);
    const page = await prepared(application, testOf(units));
    const files = readdirSync(join(folder, 'listening', page.row.id));
    expect(files).toHaveLength(4);
    expect(files.every((f) => /^\d+\.wav$/.test(f))).toBe(true);
    const bytes = files.map((f) => readFileSync(join(folder, 'listening', page.row.id, f)));
    expect(new Set(bytes.map((b) => b.length)).size).toBe(1);
    for (const unit of units) expect(bytes.some((b) => b.includes(unit.name))).toBe(false);
    expect(page.residualLu).toBeLessThan(0.1);
    const levels = page.items.filter((i) => i.role === 'unit').map((i) => i.gainDb ?? 0);
    // The readings lie 2 dB apart.
    expect(Math.max(...levels) - Math.min(...levels)).toBeGreaterThan(3);
  });

  it('refuses what cannot be compared, in words', async () => {
    const { application, units } = await bench(2);
    const sheet = await application.catalogue.sheet(units[0].specimenId);
    const rear = sheet.runs[0].takes.find((t) => t.step === 'rear')?.id ?? '';
    const test = testOf(units);
    await expect(application.tests.create({ ...test, takes: [units[0].takeId, rear] })).rejects.toThrow(
      /different steps/,
    );
    await expect(application.tests.create({ ...test, takes: [units[0].takeId, '999'] })).rejects.toThrow(
      /no measured take/,
    );
    await expect(application.tests.create({ ...test, category: 'booster' })).rejects.toThrow(/category/);
    expect(newTestSchema.safeParse({ ...test, design: 'abx', takes: [units[0].takeId] }).success).toBe(false);
    const late = { ...test, passage: { fromS: 40, lengthS: 5 } };
    const { row } = await application.tests.create(late);
    await application.listeningClips.settled();
    const failed = (await application.tests.page(row.id)).row;
    expect(failed.status).toBe('failed');
    expect(failed.problem).toContain('half a second');
  });

  it('names the units of which nothing is to be heard, and what can be done', async () => {
    const { application, units } = await bench(2);
    const silence = async ({ specimenId }: HeardUnit) =>
      (await application.catalogue.sheet(specimenId)).runs[0].takes.find((t) => t.step === 'silence')?.id ?? '';
    const takes = [await silence(units[0]), await silence(units[1])];
    const { row } = await application.tests.create({ ...testOf(units), takes });
    await application.listeningClips.settled();
    const { problem } = (await application.tests.page(row.id)).row;
    expect(problem).toContain(`${units[0].name}, ${units[1].name}`);
    expect(problem).toContain('Choose another passage');
  });
});

describe('heats and a final', () => {
  it('go on until one is left, check the listener, and feed the scale', async () => {
    const rig = await bench(5);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units, { heatSize: 3, yardstick: units[4].takeId }));
    expect(page.items.map((i) => i.role)).toEqual(['unit', 'unit', 'unit', 'unit', 'yardstick', 'known-worse']);
    const worth = (id: string): number => -units.findIndex((u) => u.specimenId === id);
    for (const name of ['Ines', 'Bram']) await goThrough(rig, page, name, worth);
    const before = await application.tests.page(page.row.id);
    expect(before.result).toBeNull();
    expect(before.row).toMatchObject({ listeners: 2, finished: 2, isRevealed: false });
    const { result } = await application.tests.reveal(page.row.id);
    expect(result?.worths[0].name).toBe(units[0].name);
    expect(result?.reveals).toHaveLength(2);
    expect(result?.sentences.map((s) => s.words).join(' ')).toContain("Kendall's W 1.00");
    expect(result?.sentences.filter((s) => s.words.startsWith('Found the same clip'))).toHaveLength(2);
    expect(result?.sentences.filter((s) => s.words.startsWith('Knew the copy'))).toHaveLength(2);
    // Once for each of the three orders of both listeners; of controls, words are no words about a unit.
    const natural = result?.words.filter((w) => w.word === 'natural').reduce((sum, w) => sum + w.count, 0);
    expect(natural).toBe(6);

    const scale = await application.scale.scale(scaleRequestSchema.parse({}));
    expect(scale.items.map((i) => i.name)[0]).toBe(units[0].name);
    expect(scale).toMatchObject({ components: 1, listeners: 2 });
    // Three orders each: two heats and a final. Controls are no answers.
    expect(scale.answers).toBe(6);

    await application.tests.leaveOut(page.row.id, before.sittings[0].id, 'was tired');
    expect((await application.scale.scale(scaleRequestSchema.parse({}))).answers).toBe(3);
    const without = (await application.tests.page(page.row.id)).result;
    expect(without?.worths).toHaveLength(5);
    expect(without?.words.filter((w) => w.word === 'natural').reduce((sum, w) => sum + w.count, 0)).toBe(3);
    const said = (await Promise.all(units.map((u) => application.catalogue.sheet(u.specimenId)))).flatMap(
      (s) => s.words,
    );
    expect(said.filter((w) => w.word === 'natural').reduce((sum, w) => sum + w.count, 0)).toBe(3);
  });
});

describe('pairs, ABX, names, ratings, performing', () => {
  it('pairs count ties, consistency and the order of hearing', async () => {
    const rig = await bench(4);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units, { design: 'pairs' }));
    const worth = (id: string): number => -units.findIndex((u) => u.specimenId === id);
    await goThrough(rig, page, 'Ines', worth);
    await goThrough(rig, page, 'Bram', worth);
    const { result } = await application.tests.reveal(page.row.id);
    const words = result?.sentences.map((s) => s.words).join('\n');
    expect(words).toContain('No answer contradicts another.');
    expect(words).toContain('decided pairs');
    expect(result?.worths.map((w) => w.name)).toEqual(units.map((u) => u.name));
  });

  it('an ABX of 16 is found out by a listener who hears it, and by nobody who guesses', async () => {
    const rig = await bench(2);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units, { design: 'abx' }));
    const { sitting } = await application.sittings.join(page.invitation, { name: 'Ines' });
    let xs = 0;
    for (let i = 0; i < 17; i++) {
      const { trial } = await application.sittings.state(sitting);
      if (!trial) throw new Error('ended too early');
      if (trial.kind === 'familiarise') {
        await answer(application, sitting, {
          trial: 0,
          answer: { kind: 'familiarise' },
          words: {},
          seconds: 1,
        });
        continue;
      }
      const [{ document }] = await application.database.query<{ document: { items: string[]; x: string } }>(
        'SELECT document FROM trial tr JOIN sitting si ON si.id = tr.sitting_id WHERE si.key = $1 AND tr.ordinal = $2',
        [sitting, trial.ordinal],
      );
      const right = document.items.indexOf(document.x) === 0 ? 'A' : 'B';
      if (right === 'A') xs++;
      // Wrong in four of sixteen.
      const x = i > 12 ? (right === 'A' ? 'B' : 'A') : right;
      await answer(application, sitting, {
        trial: trial.ordinal,
        answer: { kind: 'abx', x },
        words: {},
        seconds: 5,
      });
    }
    // X is drawn from a secret: that a fair one is the same letter sixteen times happens in 3 of 100,000 runs.
    expect(xs).toBeGreaterThan(0);
    expect(xs).toBeLessThan(16);
    expect((await application.sittings.state(sitting)).isFinished).toBe(true);
    const { result } = await application.tests.reveal(page.row.id);
    expect(result?.sentences[0].words).toBe(
      '12 of 16 right: a guesser does this 4 times in 100. The difference was heard.',
    );
    expect((await application.sittings.reveal(sitting)).trials[0].words).toMatch(/^X was Oarlock .*; right\.$/);
  });

  it('names are guessed against the matching numbers', async () => {
    const { application, units } = await bench(3);
    const page = await prepared(application, testOf(units, { design: 'names' }));
    const { sitting } = await application.sittings.join(page.invitation, { name: 'Bram' });
    await answer(application, sitting, { trial: 0, answer: { kind: 'familiarise' }, words: {}, seconds: 1 });
    const { trial } = await application.sittings.state(sitting);
    expect(trial?.names.map((n) => n.name)).toEqual([...units.map((u) => u.name)].sort());
    const wrong: Answer = {
      kind: 'names',
      names: { A: units[0].specimenId, B: units[0].specimenId, C: units[1].specimenId },
    };
    await expect(application.sittings.answer(sitting, { trial: 1, answer: wrong, words: {}, seconds: 1 })).rejects.toThrow(/a name of its own/); // prettier-ignore
    const items = await itemsOf(application, page, sitting, 1);
    const names = Object.fromEntries(
      items.map((id, i) => [String.fromCharCode(65 + i), page.items.find((x) => x.id === id)?.specimenId ?? '']),
    );
    await answer(application, sitting, { trial: 1, answer: { kind: 'names', names }, words: {}, seconds: 9 });
    const { result } = await application.tests.reveal(page.row.id);
    expect(result?.sentences[0].words).toContain('3 of 3 names right: a guesser has as many or more 17 times in 100');
  });

  it('ratings screen out who misses the hidden reference', async () => {
    const rig = await bench(3);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units, { design: 'ratings' }));
    expect(page.items.map((i) => i.role)).toEqual(['reference', 'unit', 'unit', 'anchor-low', 'anchor-mid']);
    await goThrough(rig, page, 'Ines', (id) => -10 * units.findIndex((u) => u.specimenId === id));
    await goThrough(rig, page, 'Bram', (id) => -30 + units.findIndex((u) => u.specimenId === id));
    const { result } = await application.tests.reveal(page.row.id);
    expect(result?.sentences.find((s) => s.about === 'Bram')?.words).toContain('hidden reference below 90');
    expect(result?.ratings.map((r) => r.role)).toEqual(['reference', 'unit', 'unit', 'anchor-low', 'anchor-mid']);
    expect(result?.ratings[0]).toMatchObject({ median: 95, count: 1 });
  });

  it('a performer needs no clips: the operator enters order and words', async () => {
    const { application, units } = await bench(3);
    const { row, items } = await application.tests.create(testOf(units, { design: 'performer' }));
    expect(row.status).toBe('open');
    const order = [items[2].id, items[0].id, items[1].id];
    const words = { [items[2].id]: { words: ['full' as const], free: 'carries me' } };
    await application.performers.answer(row.id, { listener: 'Mirre', order, words });
    await expect(application.performers.answer(row.id, { listener: 'Mirre', order: [order[0], order[0]], words: {} })).rejects.toThrow(/twice/); // prettier-ignore
    const { result } = await application.tests.reveal(row.id);
    expect(result?.worths[0].name).toBe(units[2].name);
    expect(result?.words.map((w) => w.word).sort()).toEqual(['carries me', 'full']);
  });
});

function headerNames(headers: Headers): string[] {
  const names: string[] = [];
  headers.forEach((_, name) => names.push(name));
  return names.sort();
}

describe('a sitting', () => {
  it('leaks nothing: no name, no number of a unit, no size, no bytes, no tag, no clip ahead of its question', async () => {
    const rig = await bench(4);
    const { application, units } = rig;
    const address = await serve(application);
    const page = await prepared(
      application,
      testOf(units, { design: 'abx', takes: units.slice(0, 2).map((u) => u.takeId) }),
    );
    const { sitting } = await application.sittings.join(page.invitation, { name: 'Ines' });
    const response = await fetch(`${address}/api/listen/${sitting}`);
    const text = await response.text();
    for (const unit of units) {
      expect(text).not.toContain(unit.name);
      expect(text).not.toContain('Oarlock');
    }
    expect(text).not.toContain('Spring four');
    await answer(application, sitting, { trial: 0, answer: { kind: 'familiarise' }, words: {}, seconds: 1 });
    const clips = await Promise.all(
      ['A', 'B', 'X', 'X'].map(async (slot) => {
        const clip = await fetch(`${address}/api/listen/${sitting}/clips/1/${slot}`);
        return {
          headers: headerNames(clip.headers),
          bytes: new Uint8Array(await clip.arrayBuffer()),
        };
      }),
    );
    expect(new Set(clips.map((c) => c.bytes.length)).size).toBe(1);
    expect(new Set(clips.map((c) => c.headers.join())).size).toBe(1);
    expect(clips[0].headers).not.toContain('etag');
    expect(clips[0].headers).not.toContain('last-modified');
    expect(clips[0].headers).not.toContain('content-disposition');
    // Not even two deliveries of one clip are alike, while they sound alike: as loud within 0.1 LU. Subtracted sample
    // by sample, they leave more than the dither that they once differed by.
    const [x, y] = clips.slice(2).map((c) => new Int16Array(c.bytes.buffer.slice(44)));
    const rms = (samples: Int16Array): number => Math.sqrt(samples.reduce((sum, v) => sum + v * v, 0) / samples.length);
    expect(Math.abs(20 * Math.log10(rms(x) / rms(y)))).toBeLessThan(0.1);
    expect(rms(x.map((v, i) => v - y[i]))).toBeGreaterThan(3);
    const header = Buffer.from(clips[0].bytes.subarray(0, 44)).toString('latin1');
    expect(header.slice(36, 40)).toBe('data');
    // Neither ahead of its question nor behind it.
    expect((await fetch(`${address}/api/listen/${sitting}/clips/5/A`)).status).toBe(404);
    expect((await fetch(`${address}/api/listen/${sitting}/clips/0/A`)).status).toBe(404);
    expect((await fetch(`${address}/api/listen/${'a'.repeat(25)}/clips/1/A`)).status).toBe(404);
    expect((await fetch(`${address}/api/listen/${sitting}/reveal`)).status).toBe(404);
  });

  it('keeps answers over a closed tab, takes none twice, and lets nobody in by a name alone', async () => {
    const rig = await bench(3);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units));
    const { sitting } = await application.sittings.join(page.invitation, { name: 'Ines' });
    await answer(application, sitting, { trial: 0, answer: { kind: 'familiarise' }, words: {}, seconds: 1 });
    await application.sittings.about(sitting, { voice: 'lower', hearing: 'normal', device: 'headphones' });
    // Another device, by the same link.
    const again = await application.sittings.state(sitting);
    expect(again).toMatchObject({ done: 1, needsAbout: false, trial: { ordinal: 1, kind: 'order' } });
    const order: Answer = { kind: 'order', codes: ['C', 'A', 'B'] };
    const other: Answer = { kind: 'order', codes: ['A', 'B', 'C'] };
    await answer(application, sitting, { trial: 1, answer: order, words: {}, seconds: 1 });
    await answer(application, sitting, { trial: 1, answer: other, words: {}, seconds: 1 });
    const { answers } = await application.scale.scale(scaleRequestSchema.parse({}));
    expect(answers).toBe(1);
    const before = await application.tests.page(page.row.id);
    await application.tests.forgetAbout(before.sittings[0].listenerId);
    expect((await application.tests.page(page.row.id)).sittings[0].about).toBeNull();
    await application.tests.close(page.row.id);
    await expect(application.sittings.answer(sitting, { trial: 2, answer: { kind: 'pair', preferred: 'A' }, words: {}, seconds: 1 })).rejects.toThrow(/closed/); // prettier-ignore
    await expect(application.sittings.join(page.invitation, { name: 'Bram' })).rejects.toThrow(/closed/);
  });

  it('takes an answer only to the question that is open, and only when all of its clips went out', async () => {
    const rig = await bench(3);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units, { design: 'abx', takes: units.slice(0, 2).map((u) => u.takeId), trials: 5 })); // prettier-ignore
    const { sittings } = application;
    const { sitting } = await sittings.join(page.invitation, { name: 'Ines' });
    const send = (trial: number): Promise<SittingState> =>
      sittings.answer(sitting, { trial, answer: trial === 0 ? { kind: 'familiarise' } : { kind: 'abx', x: 'A' }, words: {}, seconds: 1 }); // prettier-ignore
    await expect(send(2)).rejects.toThrow(/not open yet/);
    await expect(send(0)).rejects.toThrow('Listen to A, B first.');
    await sittings.clip(sitting, 0, 'A');
    await expect(send(0)).rejects.toThrow('Listen to B first.');
    await sittings.clip(sitting, 0, 'B');
    expect((await send(0)).done).toBe(1);
    for (const slot of ['A', 'B']) await sittings.clip(sitting, 1, slot);
    await expect(send(1)).rejects.toThrow('Listen to X first.');
    for (let i = 0; i < 12; i++) await sittings.clip(sitting, 1, 'X');
    await expect(sittings.clip(sitting, 1, 'X')).rejects.toMatchObject({ code: 'too-many' });
    expect((await send(1)).done).toBe(2);
  });

  it('cannot be worked out from the link: orders, controls and every X come from secrets of the server', async () => {
    const rig = await bench(2);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units, { design: 'abx', trials: 100 }));
    const { sitting, listener } = await application.sittings.join(page.invitation, { name: 'Ines' });
    const [row] = await application.database.query<{ id: string }>('SELECT id FROM sitting WHERE key = $1', [sitting]);
    const asked = await application.database.query<{ document: { x?: string } }>(
      "SELECT document FROM trial WHERE sitting_id = $1 AND document->>'kind' = 'abx' ORDER BY ordinal",
      [row.id],
    );
    // What a listener knows, or can count through, put together as a program would.
    const known = [page.invitation, sitting, listener, 'Ines', row.id, page.row.id, ''];
    const seeds = known.flatMap((a) => known.flatMap((b) => [a, `${a}/${b}`, `${a}${b}`]));
    for (let id = 1; id < 50; id++) seeds.push(`${page.invitation}/${id}`, `${sitting}/${id}`);
    for (const seed of new Set(seeds)) {
      const guessed = firstTrials(page.settings, page.items, { ordinal: 0, seed, testSeed: page.invitation });
      const right = guessed.filter((t, i) => t.kind === 'abx' && t.x === asked.at(i - 1)?.document.x).length;
      // 100 fair coins: beyond 80 of them once in 10⁹ tries (binomial).
      expect(right).toBeLessThan(80);
    }
    expect(JSON.stringify(page)).not.toContain((await mustFindTest(application.database, page.row.id)).secret);
  });

  it('a listener is known by a key, never by a name; the operator says who is the same person', async () => {
    const rig = await bench(3);
    const { application, units } = rig;
    const page = await prepared(application, testOf(units));
    const { sittings, tests, scale } = application;
    const first = await sittings.join(page.invitation, { name: 'Ines' });
    const stranger = await sittings.join(page.invitation, { name: 'Ines' });
    expect(stranger.sitting).not.toBe(first.sitting);
    // Their own key leads back to what they have begun; the key with another name is somebody else at that browser.
    expect(await sittings.join(page.invitation, { name: 'Ines', listener: first.listener })).toEqual(first);
    const other = await sittings.join(page.invitation, { name: 'Bram', listener: first.listener });
    expect(other.listener).not.toBe(first.listener);
    const order = (codes: string[]): Answer => ({ kind: 'order', codes });
    for (const [who, codes] of [
      [first, ['A', 'B', 'C']],
      [stranger, ['C', 'B', 'A']],
    ] as const) {
      // prettier-ignore
      await answer(application, who.sitting, { trial: 0, answer: { kind: 'familiarise' }, words: {}, seconds: 1 });
      await answer(application, who.sitting, { trial: 1, answer: order([...codes]), words: {}, seconds: 1 });
    }
    const { sittings: rows } = await tests.page(page.row.id);
    expect(rows.map((r) => r.listener)).toEqual(['Ines', 'Ines (2)', 'Bram']);
    expect(new Set(rows.map((r) => r.listenerId)).size).toBe(3);
    const heard = async (): Promise<number> => (await scale.scale(scaleRequestSchema.parse({}))).listeners;
    expect(await heard()).toBe(2);
    await tests.sameListener(rows[1].listenerId, rows[0].listenerId);
    expect(await heard()).toBe(1);
    await expect(tests.sameListener(rows[0].listenerId, rows[1].listenerId)).rejects.toThrow(/one record already/);
    await tests.sameListener(rows[1].listenerId, null);
    expect(await heard()).toBe(2);
    await expect(tests.sameListener(rows[1].listenerId, '999')).rejects.toThrow(/not there/);
  });

  it('offers breaks after the time that was set', async () => {
    const { application, units } = await bench(3);
    const page = await prepared(application, testOf(units, { design: 'pairs', breakAfterMin: 2 }));
    const { sitting } = await application.sittings.join(page.invitation, { name: 'Ines' });
    const first = await answer(application, sitting, { trial: 0, answer: { kind: 'familiarise' }, words: {}, seconds: 100 }); // prettier-ignore
    expect(first.breakDue).toBe(false);
    const second = await answer(application, sitting, { trial: 1, answer: { kind: 'pair', preferred: 'A' }, words: {}, seconds: 30 }); // prettier-ignore
    expect(second.breakDue).toBe(true);
  });
});
