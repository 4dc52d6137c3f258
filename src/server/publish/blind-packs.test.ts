import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { HtmlValidate } from 'html-validate';
import { describe, expect, it } from 'vitest';
import { answerCode } from '#core/rules/listening/answer-code';
import { CODE_NAMES } from '#core/rules/listening/code-names';
import { blindKeySchema } from '#contracts/blind-pack';
import { PLAIN_PATHS } from '#contracts/http';
import { newTestSchema, type NewTestDraft } from '#contracts/listening';
import { scaleRequestSchema } from '#contracts/scale';
import { serve, temporaryFolder, testApplication } from '../testing/application';
import { importUnits, type HeardUnit } from '../testing/heard-catalogue';
import { unzipped } from '../testing/unzipped';
import { heardAnswers } from '../scale/queries/heard';
import { openKey } from '../../reader/open-key';
import type { Application } from '../wiring';

const sha256 = (bytes: Uint8Array | string): string => createHash('sha256').update(bytes).digest('hex');
const PACK = { title: 'Four for a desk', note: 'Headphones, please.', asks: ['order' as const, 'points' as const], revealOn: '2026-12-24' }; // prettier-ignore

async function sent(count: number, change: Partial<NewTestDraft> = {}, secret?: string) {
  const app = await testApplication();
  const units = await importUnits(app, count);
  const test = newTestSchema.parse({ name: `Sent: ${units.map((u) => u.name).join()}`, design: 'pack', takes: units.map((u) => u.takeId), passage: { fromS: 0.5, lengthS: 3 }, pack: PACK, ...change }); // prettier-ignore
  const { row } = await app.tests.create(test, undefined, secret);
  await app.listeningClips.settled();
  const page = await app.tests.page(row.id);
  expect(page.row.problem).toBeNull();
  return { app, units, id: row.id, page };
}

async function zipOf(app: Application, id: string): Promise<Map<string, Buffer>> {
  const address = await serve(app);
  const answer = await fetch(address + PLAIN_PATHS.blindPackZip.replace(':id', id));
  expect(answer.status).toBe(200);
  return unzipped(Buffer.from(await answer.arrayBuffer()));
}

/** Chunks of a RIFF file. */
function chunksOf(wav: Buffer): string[] {
  const names: string[] = [];
  for (let at = 12; at < wav.length;) {
    names.push(wav.toString('latin1', at, at + 4));
    const size = wav.readUInt32LE(at + 4);
    at += 8 + size + (size % 2);
  }
  return names;
}

/** Letters in the order of the units as the test knows them, the copy left out. */
async function letters(app: Application, id: string): Promise<Map<string, string>> {
  const rows = await app.database.query<{ specimen_id: string; ordinal: number; role: string }>('SELECT specimen_id, ordinal, role FROM test_item WHERE test_id = $1', [id]); // prettier-ignore
  return new Map(rows.map((r) => [r.role === 'known-worse' ? 'copy' : r.specimen_id, CODE_NAMES[r.ordinal][0]]));
}

describe('what is sent out', () => {
  it('gives nothing away: bytes, names, metadata, durations, order', async () => {
    const { app, units, id } = await sent(4);
    const files = await zipOf(app, id);
    expect([...files.keys()].map((p) => p.split('/').slice(1).join('/'))).toEqual(['read-me.txt', 'listen.html', 'clips/Alder.wav', 'clips/Birch.wav', 'clips/Cedar.wav', 'clips/Dogwood.wav', 'clips/Elm.wav', 'key.sealed']); // prettier-ignore
    // Names: of units, takes, steps, files, hashes of the recordings; anywhere, in any case.
    const rows = await app.database.query<{ sha256: string; maker: string; model: string }>('SELECT t.clip_sha256 AS sha256, u.maker, u.model FROM take t JOIN run r ON r.id = t.run_id JOIN unit u ON u.id = r.specimen_id'); // prettier-ignore
    const secrets = [...units.map((u) => u.name), ...rows.flatMap((r) => [r.sha256.slice(0, 12), r.maker, r.model]), 'speech', 'known-worse', 'without highs']; // prettier-ignore
    for (const [path, bytes] of files) {
      // Samples as text are compared below, byte by byte: in millions of signs five letters meet by chance.
      const text = `${path} ${bytes.toString('latin1').replaceAll(/[A-Za-z0-9+/]{2000,}/g, '')}`.toLowerCase();
      for (const secret of new Set(secrets))
        expect(text.includes(secret.toLowerCase()), `${secret} in ${path}`).toBe(false);
    }
    // Metadata and durations: the same headers, nothing but the samples.
    const wavs = [...files].filter(([path]) => path.endsWith('.wav')).map(([, bytes]) => bytes);
    expect(new Set(wavs.map((w) => w.length)).size).toBe(1);
    expect(new Set(wavs.map((w) => w.subarray(0, 44).toString('hex'))).size).toBe(1);
    for (const wav of wavs) expect(chunksOf(wav)).toEqual(['fmt ', 'data']);
    // No two are the same, and the page has the same samples.
    expect(new Set(wavs.map(sha256)).size).toBe(wavs.length);
    const html = [...files].find(([path]) => path.endsWith('listen.html'))?.[1].toString('utf8') ?? '';
    for (const wav of wavs) expect(html).toContain(wav.toString('base64'));
    // The seal is as long whatever the order is: it holds the same lines.
    const other = await sent(4, {}, 'another secret');
    const sealOf = (f: Map<string, Buffer>) => [...f].find(([p]) => p.endsWith('key.sealed'))?.[1] ?? Buffer.alloc(0);
    expect(sealOf(await zipOf(other.app, other.id)).length).toBe(sealOf(files).length);
  });

  it('is drawn from the secret of the test', async () => {
    const orders = new Set<string>();
    const { app, id } = await sent(3);
    const { settings } = await app.tests.page(id);
    for (let i = 0; i < 8; i++) {
      const { row } = await app.tests.create(settings);
      orders.add(JSON.stringify([...(await letters(app, row.id))].sort()));
    }
    // Of 24 orders; that eight draws give one or two is less likely than 1 in a million.
    expect(orders.size).toBeGreaterThan(2);
    await app.listeningClips.settled();
  });

  it('has the same bytes each time, goes on where it broke off, and its page is sound HTML that loads nothing', async () => {
    const { app, id } = await sent(3);
    const url = (await serve(app)) + PLAIN_PATHS.blindPackZip.replace(':id', id);
    const whole = Buffer.from(await (await fetch(url)).arrayBuffer());
    const rest = await fetch(url, { headers: { range: 'bytes=1000-' } });
    expect(rest.status).toBe(206);
    expect(Buffer.from(await rest.arrayBuffer()).equals(whole.subarray(1000))).toBe(true);
    const { html } = await app.blindPacks.page(id);
    expect(html).toMatch(/Content-Security-Policy" content="default-src 'none'/);
    expect(html).not.toMatch(/(src|href)="(?!#)/);
    const report = await new HtmlValidate({ extends: ['html-validate:standard'], rules: { 'void-style': 'off', 'script-type': 'off', 'long-title': 'off', 'no-inline-style': 'error' } }).validateString(html); // prettier-ignore
    expect(report.results.flatMap((r) => r.messages.map((m) => `${m.ruleId}: ${m.message}`))).toEqual([]);
  });

  it('names units only where they are guessed among, in the order of the alphabet', async () => {
    const { app, id, units } = await sent(3, { controls: false, pack: { ...PACK, asks: ['names'] } });
    const { html } = await app.blindPacks.page(id);
    const places = units.map((u) => u.name).sort().map((name) => html.indexOf(name)); // prettier-ignore
    expect(places.every((p) => p > 0)).toBe(true);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect((await app.tests.page(id)).pack?.clips).toHaveLength(3);
  });

  it('says in words what makes no pack', () => {
    const draft = { name: 'x', design: 'pack' as const, takes: ['1', '2'], pack: PACK };
    const faults = (change: object) => newTestSchema.safeParse({ ...draft, ...change }).error?.issues.map((i) => i.message).join('; '); // prettier-ignore
    expect(faults({})).toBeUndefined();
    expect(faults({ pack: null })).toMatch(/how the pack goes out/);
    expect(faults({ design: 'pairs' })).toMatch(/only a blind pack/);
    expect(faults({ pack: { ...PACK, asks: [] } })).toMatch(/what the pack asks/);
    expect(faults({ pack: { ...PACK, asks: ['order', 'order'] } })).toMatch(/twice/);
    expect(faults({ pack: { ...PACK, title: ' ' } })).toMatch(/title/);
    expect(faults({ pack: { ...PACK, asks: ['names'] } })).toMatch(/no room for the copy/);
    expect(faults({ sighted: true })).toMatch(/blind/);
    const many = Array.from({ length: 12 }, (_, i) => String(i + 1));
    expect(faults({ takes: many })).toMatch(/12 code names/);
    expect(faults({ takes: many, controls: false })).toBeUndefined();
  });
});

describe('on the site', () => {
  it('is only what was meant to be there: sealed first, then opened with what the answers said', async () => {
    const { app, id, page, units } = await sent(3, { pack: { ...PACK, onSite: true } });
    const { row } = await app.tests.create({ ...page.settings, pack: { ...PACK, note: '', onSite: false } });
    await app.listeningClips.settled();
    const hidden = (await app.tests.page(row.id)).pack?.tag ?? '';
    const out = join(temporaryFolder(), 'site');
    const read = (path: string) => readFileSync(join(out, path), 'utf8');
    await app.site.publish(out, { codec: 'flac' });
    const { tag = '', keySha256 = '' } = page.pack ?? {};
    const before = read('blind.html');
    expect(before).toContain(keySha256);
    expect(before).not.toContain(hidden);
    expect(before).toContain(`href="blind/${tag}.html"`);
    expect(read(`blind/${tag}.html`)).toContain('Four for a desk');
    for (const unit of units) expect(before + read(`blind/${tag}.html`).replaceAll(/[A-Za-z0-9+/]{2000,}/g, '')).not.toContain(unit.name); // prettier-ignore
    expect(existsSync(join(out, `blind/${tag}-key.json`))).toBe(false);
    const opened = await app.tests.reveal(id);
    await app.site.publish(out, { codec: 'flac' });
    expect(read('blind.html')).toContain(opened.pack?.openingCode);
    expect(read('blind.html')).toContain('needs two listeners');
    expect(sha256(read(`blind/${tag}-key.json`))).toBe(keySha256);
    // A voice that goes for good goes from here: the page that played it, not the key that was made known.
    const take = page.items[0].takeId ?? '';
    for (const test of [id, row.id]) await app.tests.close(test);
    const { unit } = await app.removals.preview('take', take);
    await app.removals.remove({ what: 'take', id: take, name: unit, reason: '' });
    await app.site.publish(out, { codec: 'flac' });
    expect(existsSync(join(out, `blind/${tag}.html`))).toBe(false);
    expect(read('blind.html')).toContain('a clip of it was deleted');
    expect(read('blind.html')).not.toContain(`href="blind/${tag}.html"`);
    expect(sha256(read(`blind/${tag}-key.json`))).toBe(keySha256);
    // A site that is begun now can be written all the same.
    const anew = join(temporaryFolder(), 'site');
    await app.site.publish(anew, { codec: 'flac' });
    expect(existsSync(join(anew, `blind/${tag}.html`))).toBe(false);
  });
});

describe('the key', () => {
  it('is sealed with the clips that go out, stays shut until it is revealed, and is never changed', async () => {
    const { app, id, page, units } = await sent(3);
    expect(page.pack).toMatchObject({ openingCode: null, sealedOn: page.row.day });
    await expect(app.blindPacks.key(id)).rejects.toThrow(/sealed until/);
    // What the operator's page shows before is in no order of the key.
    expect(page.items.map((i) => i.name)).toEqual(page.items.map((i) => i.name).sort((a, b) => a.localeCompare(b)));
    const files = await zipOf(app, id);
    await expect(app.database.query('UPDATE blind_pack SET opening_code = $1', ['x'])).rejects.toThrow(/never changed/);
    const open = await app.tests.reveal(id);
    const { text } = await app.blindPacks.key(id);
    expect(sha256(text)).toBe(page.pack?.keySha256);
    const key = blindKeySchema.parse(JSON.parse(text));
    expect(key.clips.map((c) => c.name)).toEqual(['Alder', 'Birch', 'Cedar', 'Dogwood']);
    expect(key.clips.filter((c) => c.part === '').map((c) => c.unit).sort()).toEqual(units.map((u) => u.name).sort()); // prettier-ignore
    for (const clip of key.clips) {
      const wav = [...files].find(([path]) => path.endsWith(`clips/${clip.name}.wav`))?.[1] ?? Buffer.alloc(0);
      expect(sha256(wav)).toBe(clip.sha256);
    }
    // The seal that went out opens with the code, and says the same.
    const seal = [...files].find(([path]) => path.endsWith('key.sealed'))?.[1] ?? Buffer.alloc(0);
    const opened = openKey(new Uint8Array(seal), open.pack?.openingCode ?? '', page.pack?.keySha256 ?? '');
    expect(opened).toMatchObject({ kind: 'open', clips: key.clips.map(({ letter, unit }) => ({ letter, unit })) });
    // The draw is the key: what the database holds under each letter.
    const behind = await letters(app, id);
    for (const { letter, unit, part } of key.clips)
      if (part === '') expect(behind.get(units.find((u) => u.name === unit)?.specimenId ?? '')).toBe(letter);
      else expect(behind.get('copy')).toBe(letter);
  });
});

describe('answers that come back', () => {
  const best = async (app: Application, id: string, order: readonly (HeardUnit | 'copy')[]): Promise<string> => {
    const behind = await letters(app, id);
    return order.map((u) => behind.get(u === 'copy' ? 'copy' : u.specimenId) ?? '').join(' > ');
  };
  const keepAll = async (app: Application, id: string, text: string) => {
    const { answers } = await app.returnedAnswers.read(id, text);
    const kept = answers.filter((a) => a.problem === null).map(({ line, listener }) => ({ line, listener, isSomebodyElse: false })); // prettier-ignore
    return app.returnedAnswers.keep(id, { text, kept });
  };

  it('are read, kept once, weighed by who listened, and join the scale', async () => {
    const { app, id, page, units } = await sent(3);
    const [a, b, c] = units;
    const good = await best(app, id, [a, b, c, 'copy']);
    const bad = await best(app, id, ['copy', c, b, a]);
    const text = [...Array.from({ length: 6 }, (_, i) => `Listener ${i}: ${good}`), `Deaf: ${bad}`, good, 'nice film'].join('\n'); // prettier-ignore
    const read = await app.returnedAnswers.read(id, text);
    expect(read.answers.map((x) => x.problem)).toEqual([
      ...Array<null>(8).fill(null),
      'It names no clip of this pack.',
    ]);
    expect(await keepAll(app, id, text)).toEqual({ kept: 8, skipped: 0 });
    // The same paste again brings nothing.
    expect((await app.returnedAnswers.read(id, text)).answers.filter((x) => x.isThere)).toHaveLength(8);
    expect(await keepAll(app, id, text)).toEqual({ kept: 0, skipped: 8 });
    const now = await app.tests.page(id);
    expect(now.sittings.map((s) => s.listener)).toEqual([...Array.from({ length: 6 }, (_, i) => `Listener ${i}`), 'Deaf', 'unnamed 1']); // prettier-ignore
    expect(now.pack?.answers).toMatchObject({ listeners: 8, passed: 7, failed: 1 });
    const weights = now.sittings.map((s) => s.reliability ?? -1);
    expect(weights[6]).toBe(0);
    expect(new Set(weights.filter((w) => w > 0)).size).toBe(1);
    expect(weights[0]).toBeCloseTo((2 * (now.pack?.answers.share ?? 0)) / (1 + (now.pack?.answers.share ?? 0)), 9);
    // On the scale: who failed is not there, the others weigh what they weigh.
    const heard = await heardAnswers(app.database, 'microphone', 'preference');
    expect(heard).toHaveLength(7);
    expect(heard.every((h) => Math.abs(h.weight - weights[0]) < 1e-12)).toBe(true);
    expect(heard.every((h) => h.specimens.length === 3)).toBe(true);
    const scale = await app.scale.scale(scaleRequestSchema.parse({}));
    expect(scale.items.map((i) => i.name)).toEqual(units.map((u) => u.name));
    expect(page.result).toBeNull();
    const { result } = await app.tests.reveal(id);
    expect(result?.worths[0].name).toBe(a.name);
    expect(result?.sentences[0].words).toContain('7 of 8 put the copy');
    await expect(app.returnedAnswers.read(id, text)).rejects.toThrow(/key of this pack is open/);
  });

  it('by the code that the page makes, by a table, by a poll', async () => {
    const { app, id, page, units } = await sent(3);
    const tag = page.pack?.tag ?? '';
    const behind = await letters(app, id);
    const order = units.map((u) => behind.get(u.specimenId) ?? '');
    await keepAll(
      app,
      id,
      `Ines: my answer ${answerCode(tag, { order, points: { [order[0]]: 9, [order[1]]: 5 }, names: {} })}`,
    );
    await keepAll(app, id, `listener;clip;place\nBram;${order[0]};1\nBram;${order[1]};2`);
    await keepAll(app, id, `clip,votes\n${order[0]},60\n${order[1]},40`);
    const { sittings } = await app.tests.page(id);
    expect(sittings.map((s) => [s.listener, s.answered])).toEqual([
      ['Ines', 2],
      ['Bram', 1],
      ['Poll, 100 votes', 1],
    ]);
    // A poll is nobody's taste; its votes are a hundred choices, each as sure as an answer without a check.
    const heard = await heardAnswers(app.database, 'microphone', 'preference');
    // Who gave an order and points has said one thing: it counts once.
    const ofInes = sittings.find((s) => s.listener === 'Ines')?.listenerId;
    expect(heard.filter((h) => h.listener_id === ofInes)).toHaveLength(1);
    expect(heard.filter((h) => h.listener_id === null).map((h) => h.weight)).toEqual([60 * 0.5, 40 * 0.5]);
    await expect(app.returnedAnswers.keep(id, { text: 'hello', kept: [{ line: 1, listener: null, isSomebodyElse: false }] })).rejects.toThrow(/cannot be kept/); // prettier-ignore
    await expect(app.returnedAnswers.keep(id, { text: 'A > B', kept: [{ line: 7, listener: null, isSomebodyElse: false }] })).rejects.toThrow(/cannot be kept/); // prettier-ignore
    await expect(app.returnedAnswers.read(id, 'clip,place\n"A,1\nB,2')).rejects.toThrow(/cannot be read/);
  });

  it('of two people with one name, the second is asked for; a name that was typed over counts', async () => {
    const { app, id } = await sent(3);
    await keepAll(app, id, 'Ines: A > B > C > D');
    const text = 'Ines: D > C > B > A\nA > C > B > D';
    const [first, second] = (await app.returnedAnswers.read(id, text)).answers;
    expect([first.isThere, second.isThere]).toEqual([true, false]);
    const keep = (kept: { line: number; listener: string | null; isSomebodyElse: boolean }[]) => app.returnedAnswers.keep(id, { text, kept }); // prettier-ignore
    expect(await keep([{ line: 1, listener: 'Ines', isSomebodyElse: false }])).toEqual({ kept: 0, skipped: 1 });
    expect(await keep([{ line: 2, listener: 'ines', isSomebodyElse: false }])).toEqual({ kept: 0, skipped: 1 });
    expect(await keep([{ line: 1, listener: 'Ines', isSomebodyElse: true }])).toEqual({ kept: 1, skipped: 0 });
    expect((await app.tests.page(id)).sittings.map((s) => s.listener)).toEqual(['Ines', 'Ines (2)']);
    // A name that was emptied is no name.
    expect(await keep([{ line: 2, listener: '', isSomebodyElse: false }])).toEqual({ kept: 1, skipped: 0 });
    expect((await app.tests.page(id)).sittings.map((s) => s.listener)).toEqual(['Ines', 'Ines (2)', 'unnamed 1']);
  });

  it('are refused by other tests, before the key is sealed, and after the test is closed', async () => {
    const { app, id, page } = await sent(3);
    const pairs = newTestSchema.parse({ name: 'x', design: 'pairs', takes: page.settings.takes, passage: page.settings.passage }); // prettier-ignore
    const { row } = await app.tests.create(pairs);
    await expect(app.returnedAnswers.read(row.id, 'A > B')).rejects.toThrow(/held here/);
    await expect(app.blindPacks.page(row.id)).rejects.toThrow(/Nothing is sent out/);
    await expect(app.sittings.join(page.invitation, { name: 'Ines' })).rejects.toThrow(/sent out as a pack/);
    await app.tests.close(id);
    await expect(app.returnedAnswers.read(id, 'A > B')).rejects.toThrow(/closed/);
    await app.listeningClips.settled();
  });
});
