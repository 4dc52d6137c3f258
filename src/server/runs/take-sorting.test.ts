import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { shuffled } from '#core/stats/shuffle';
import { newPlanSchema } from '#contracts/session-plan';
import { readClip } from '#worker/read-clip';
import { takeSamples, runDocument, testApplication } from '../testing/application';
import type { Application } from '../wiring';

const STEPS = [
  'speech',
  'silence',
  'rear',
  'calibration',
  'sweep-0',
  'sweep-90',
  'sweep-180',
  'distance-15',
  'distance-60',
  'plosive',
];

async function slotOf(
  app: Application,
): Promise<{ id: string; protocol: Awaited<ReturnType<Application['planPages']['view']>>['protocol'] }> {
  const plan = await app.plans.add(
    newPlanSchema.parse({
      title: 'Files',
      day: '2026-05-02',
      category: 'microphone',
      protocol: 'desk-voice',
      protocolVersion: 3,
      units: [{ maker: 'Oarlock', model: 'Purser', label: 'A', source: 'own' }],
      withControl: false,
    }),
  );
  return { id: plan.slots[0].id, protocol: plan.protocol };
}

/** A take of a step from the simulated bench. */
async function takeOf(
  app: Application,
  protocol: Awaited<ReturnType<typeof slotOf>>['protocol'],
  step: string,
): Promise<Uint8Array> {
  const sheet = protocol.steps.find((s) => s.id === step);
  return app.bench.take({
    talker: 'north',
    room: ['sweep', 'tone'].includes(sheet?.play?.kind ?? '') ? 'crate' : 'loft',
    microphone: 'even',
    interface: 'new',
    faults: [],
    playKind: sheet?.play?.kind ?? 'text',
    gainDb: 36 + (sheet?.gain?.rule === 'as-step' ? sheet.gain.byDb : 0),
    distanceM: sheet?.distanceM ?? null,
    angleDeg: sheet?.angleDeg ?? null,
    seed: step,
  });
}

describe('files from elsewhere', () => {
  it('are matched to their steps without any help from their names', async () => {
    const app = await testApplication();
    const { id, protocol } = await slotOf(app);
    const files: { step: string; name: string; clip: string; gainDb: null }[] = [];
    for (const [i, step] of STEPS.entries()) {
      const name = `REC${String(i + 1).padStart(4, '0')}.WAV`;
      const clip = await app.ingest.ingest(Readable.from([await takeOf(app, protocol, step)]), name, {
        keepPart: false,
      });
      files.push({ step, name, clip: clip.sha256, gainDb: null });
    }
    const dropped = shuffled(files, 'as a file manager hands them over');
    const matches = await app.sorting.match(id, {
      clips: dropped.map(({ name, clip, gainDb }) => ({ name, clip, gainDb })),
    });
    const right = matches.filter((m, i) => m.step === dropped[i].step).length;
    // Ten files for fifteen steps: speech in front and behind may change places, as may neighbours of a ladder.
    expect(right, matches.map((m, i) => `${dropped[i].step} → ${m.step ?? 'none'}`).join(', ')).toBeGreaterThanOrEqual(
      7,
    );
    for (const [i, m] of matches.entries()) {
      const expected = protocol.steps.find((s) => s.id === dropped[i].step)?.play?.kind;
      const given = protocol.steps.find((s) => s.id === m.step)?.play?.kind;
      expect(given, `${dropped[i].step} → ${m.step ?? 'none'}`).toBe(expected);
      expect(m.reasons.length).toBeGreaterThan(0);
    }
    await expect(app.sorting.match('999', { clips: [] })).rejects.toMatchObject({ code: 'not-found' });
  }, 90_000);

  it('may be one long recording, which is cut without changing a sample', async () => {
    const app = await testApplication();
    const { protocol } = await slotOf(app);
    const parts: Float64Array[] = [];
    for (const step of ['speech', 'distance-15', 'rear']) {
      const clip = await app.ingest.ingest(Readable.from([await takeOf(app, protocol, step)]), step, {
        keepPart: false,
      });
      const { samples } = await readClip((await app.store.find(clip.sha256)) as string);
      parts.push(
        samples,
        new Float64Array(3 * 48_000).map((_, i) => 1e-4 * Math.sin(i * 12.9898) ** 3),
      );
    }
    const whole = Float64Array.from(parts.flatMap((p) => [...p]));
    const long = await app.ingest.ingest(Readable.from([encodeWav([whole], 48_000, 'pcm24')]), 'whole day.wav', {
      keepPart: false,
    });
    const request = { clip: long.sha256, method: 'silences', silenceS: null } as const;
    const { stretches } = await app.sorting.findCuts(request);
    expect(stretches).toHaveLength(3);
    // The first mark was moved by hand before cutting.
    const moved = [{ startS: stretches[0].startS + 0.25, endS: stretches[0].endS }, ...stretches.slice(1)];
    const { pieces } = await app.sorting.cut({ clip: long.sha256, stretches: moved });
    expect(pieces[0].startS).toBe(moved[0].startS);
    expect(pieces.map((p) => p.name)).toEqual(['whole day 01.wav', 'whole day 02.wav', 'whole day 03.wav']);
    const original = (await readClip((await app.store.find(long.sha256)) as string)).samples;
    for (const piece of pieces) {
      const { samples } = await readClip((await app.store.find(piece.clip.sha256)) as string);
      const from = Math.round(piece.startS * 48_000);
      expect(samples.every((x, i) => x === original[from + i])).toBe(true);
    }
    await expect(app.sorting.findCuts({ ...request, method: 'tones' })).rejects.toThrow(/No place to cut/);
    await expect(app.sorting.cut({ clip: long.sha256, stretches: [{ startS: 3, endS: 3000 }] })).rejects.toThrow(
      /no stretch from 3 to 3000 s/,
    );
    // The long one stays.
    expect(await app.store.find(long.sha256)).not.toBeNull();
  }, 60_000);
});

describe('files of a run that is no turn of a session', () => {
  it('are told by what they hold, among the steps that are free', async () => {
    const app = await testApplication();
    const store = (name: string, samples: Float64Array) =>
      app.ingest.ingest(Readable.from([Buffer.from(encodeWav([samples], 16_000, 'pcm24'))]), name, { keepPart: false }); // prettier-ignore
    const quiet = takeSamples(-14, -70).map((x) => 1e-4 * x);
    // As flat as noise: what it holds is nearest to a sweep.
    const [flat, silent] = [await store('001.wav', takeSamples(-14, -70)), await store('002.wav', quiet)];
    const clips = [flat, silent].map((c, i) => ({ name: `00${i + 1}.wav`, clip: c.sha256, gainDb: null }));
    const ask = (steps: string[], change: object = {}) =>
      app.sorting.matchSteps({ protocol: 'desk-voice', protocolVersion: 3, steps, clips, ...change });
    expect((await ask(['sweep-0', 'silence'])).map((m) => m.step)).toEqual(['sweep-0', 'silence']);
    expect((await ask(['silence'])).map((m) => m.step)).toEqual([null, 'silence']);
    expect((await ask([])).map((m) => m.step)).toEqual([null, null]);
    await expect(ask(['sweep-0'], { protocolVersion: 99 })).rejects.toMatchObject({ code: 'not-found' });
  }, 60_000);
});

describe('a recording of several channels', () => {
  it('becomes a clip for each channel, sample by sample; their takes know each other', async () => {
    const app = await testApplication();
    const [left, right] = [takeSamples(-14, -70), takeSamples(-20, -60)];
    const whole = await app.ingest.ingest(Readable.from([Buffer.from(encodeWav([left, right], 16_000, 'pcm24'))]), 'both.wav', { keepPart: false }); // prettier-ignore
    const { clips } = await app.sorting.splitChannels(whole.sha256);
    expect(clips.map((c) => [c.name, c.format.channels, c.channelOf])).toEqual([
      ['both channel 1.wav', 1, { sha256: whole.sha256, name: 'both.wav', channel: 1, channels: 2 }],
      ['both channel 2.wav', 1, { sha256: whole.sha256, name: 'both.wav', channel: 2, channels: 2 }],
    ]);
    for (const [i, samples] of [left, right].entries()) {
      const alone = Buffer.from(encodeWav([samples], 16_000, 'pcm24'));
      expect(readFileSync((await app.store.find(clips[i].sha256)) ?? '').equals(alone)).toBe(true);
    }
    expect(await app.sorting.splitChannels(whole.sha256)).toEqual({ clips });
    await expect(app.sorting.splitChannels(clips[0].sha256)).rejects.toThrow('one channel');

    for (const [i, clip] of clips.entries())
      await app.runImport.importUploaded({
        document: runDocument({ specimen: { maker: 'Oarlock', model: 'Purser', label: String(i), category: 'microphone' }, takes: [{ step: 'speech', file: 'a.wav', gainDb: 40 }] }), // prettier-ignore
        clips: { 'a.wav': clip.sha256 },
      });
    await app.queue.idle();
    const rows = await app.database.query<{ id: string }>('SELECT id FROM take ORDER BY id');
    const page = await app.takePages.page(rows[0].id);
    expect(page.siblings).toEqual([{ takeId: rows[1].id, unit: expect.stringContaining('Purser') as string, title: page.take.stepTitle, channel: 2 }]); // prettier-ignore
  });

  it('tells by how much one channel comes later than another one', async () => {
    const app = await testApplication();
    const left = takeSamples(-14, -70);
    // 24 samples at 16 kHz: 1.5 ms, or half a metre of air.
    const right = left.map((_, i) => 0.5 * (left[i - 24] ?? 0));
    const bytes = Buffer.from(encodeWav([left, right], 16_000, 'pcm24'));
    const whole = await app.ingest.ingest(Readable.from([bytes]), 'both.wav', { keepPart: false });
    const { clips } = await app.sorting.splitChannels(whole.sha256);
    const alone = Buffer.from(encodeWav([right], 16_000, 'float32'));
    const apart = await app.ingest.ingest(Readable.from([alone]), 'apart.wav', { keepPart: false });
    for (const [i, clip] of [...clips, apart].entries())
      await app.runImport.importUploaded({
        document: runDocument({ specimen: { maker: 'Oarlock', model: 'Purser', label: String(i), category: 'microphone' }, takes: [{ step: 'speech', file: 'a.wav', gainDb: 40 }] }), // prettier-ignore
        clips: { 'a.wav': clip.sha256 },
      });
    await app.queue.idle();
    const takes = (await app.database.query<{ id: string }>('SELECT id FROM take ORDER BY id')).map((t) => t.id);
    expect((await app.compare.difference(takes[0], takes[1])).delayMs).toBeCloseTo(1.5, 3);
    expect((await app.compare.difference(takes[1], takes[0])).delayMs).toBeCloseTo(-1.5, 3);
    expect((await app.compare.difference(takes[0], takes[2])).delayMs).toBeNull();
  }, 60_000);
});
