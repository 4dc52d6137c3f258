import { describe, expect, it } from 'vitest';
import type { Protocol } from '#contracts/protocol';
import { runDocument, takeWav, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import type { Application } from '../wiring';
import { join } from 'node:path';

const latest = async (app: Application): Promise<Protocol> =>
  (await app.protocols.versions()).filter((v) => v.protocol.id === 'desk-voice').at(-1)?.protocol as Protocol;

const changed = (protocol: Protocol, step: string, change: Partial<Protocol['steps'][number]>): Protocol => ({
  ...protocol,
  version: protocol.version + 1,
  steps: protocol.steps.map((s) => ({ ...s, comparable: null, ...(s.id === step ? change : {}) })),
});

/** Imports a run of a unit under a version, with speech and silence at given levels. */
async function run(app: Application, label: string, version: number, noiseDb: number, date: string): Promise<string> {
  const folder = join(temporaryFolder(), 'run');
  const document = runDocument({
    specimen: { maker: 'Oarlock', model: 'Purser', label, category: 'microphone' },
    date,
    protocolVersion: version,
    takes: [
      { step: 'speech', file: 'speech.wav', gainDb: 40, distanceM: 0.15, angleDeg: 0 },
      { step: 'silence', file: 'silence.wav', gainDb: 40 },
      { step: 'rear', file: 'rear.wav', gainDb: 40, distanceM: 0.15, angleDeg: 180 },
    ],
  });
  const seed = label.charCodeAt(0) * 10 + version;
  writeRunFolder(folder, document, {
    'speech.wav': takeWav(-14, noiseDb, seed),
    'silence.wav': takeWav(null, noiseDb, seed + 3),
    'rear.wav': takeWav(-26, noiseDb, seed + 5),
  });
  const { specimenId } = await app.runImport.importFolder(folder);
  await app.queue.idle();
  return specimenId;
}

describe('protocol versions', () => {
  it('ship for all six categories, in order, none used', async () => {
    const app = await testApplication();
    const versions = await app.protocols.versions();
    expect(new Set(versions.map((v) => v.protocol.category)).size).toBe(6);
    expect(versions.every((v) => !v.isFrozen)).toBe(true);
    for (const { protocol } of versions.filter((v) => v.protocol.version === 1 && v.protocol.id !== 'desk-voice')) {
      expect(
        protocol.steps.every((s) => s.purpose !== '' && s.play !== null),
        protocol.id,
      ).toBe(true);
    }
  });

  it('are frozen by use; an unused one can be written over', async () => {
    const app = await testApplication();
    const unused = await latest(app);
    const saved = await app.protocols.save({ ...unused, name: 'Desk voice, ours' });
    expect(saved.protocol.name).toBe('Desk voice, ours');
    await run(app, 'A', 3, -70, '2026-05-02');
    expect((await app.protocols.versions()).find((v) => v.protocol.version === 3)).toMatchObject({
      isFrozen: true,
      runs: 1,
      firstUsed: '2026-05-02',
    });
    await expect(app.protocols.save(unused)).rejects.toMatchObject({ code: 'protocol-frozen' });
    // What the run was made by is still there, word for word.
    expect((await latest(app)).name).toBe('Desk voice, ours');
  });

  it('need a decision with a reason for every step whose shape changed, and no other', async () => {
    const app = await testApplication();
    const next = changed(await latest(app), 'close', { distanceM: 0.05 });
    await expect(app.protocols.save(next)).rejects.toMatchObject({
      code: 'protocol-refused',
      details: [{ field: 'steps.close.comparable' }],
    });
    const decided = changed(await latest(app), 'close', {
      distanceM: 0.05,
      comparable: { withPrevious: false, reason: 'two centimetres more' },
    });
    expect((await app.protocols.save(decided)).protocol.version).toBe(4);
  });

  it('are refused with everything that is wrong', async () => {
    const app = await testApplication();
    const protocol = await latest(app);
    const refusal = await app.protocols
      .save({
        ...protocol,
        version: 9,
        category: 'booster',
        steps: [
          { ...protocol.steps[0], gain: { rule: 'as-step', step: 'nowhere', byDb: 0 }, measures: ['loudnessOfTea'] },
          { ...protocol.steps[0] },
        ],
      })
      .catch((e: unknown) => e);
    const fields = (refusal as { details: { field: string }[] }).details.map((d) => d.field);
    expect(fields).toEqual(
      expect.arrayContaining(['version', 'category', 'steps[0].gain', 'steps[1].id', 'steps[0].measures']),
    );
    await expect(app.protocols.save({ id: 'x' })).rejects.toMatchObject({ code: 'protocol-refused' });
    expect((await app.protocols.versions()).filter((v) => v.protocol.id === 'desk-voice')).toHaveLength(3);
  });

  it('come in and go out as the same document', async () => {
    const app = await testApplication();
    const protocol = (await app.protocols.versions()).find((v) => v.protocol.id === 'input-stage')?.protocol;
    const text = JSON.stringify({ ...protocol, id: 'our-input-stage' });
    const saved = await app.protocols.save(JSON.parse(text));
    expect(JSON.stringify(saved.protocol)).toBe(text);
  });
});

describe('ranking over versions', () => {
  it('leaves figures of an incomparable version out, says why, and takes them in again once two units bridge', async () => {
    const app = await testApplication();
    const decided = changed(await latest(app), 'silence', {
      gain: { rule: 'maximum' },
      comparable: { withPrevious: false, reason: 'at full gain' },
    });
    await app.protocols.save(decided);
    const old = await run(app, 'A', 3, -70, '2026-05-01');
    await run(app, 'B', 4, -64, '2026-05-03');
    const figure = async (id: string) =>
      (await app.catalogue.rankingInputs('microphone')).units.find((u) => u.id === id)?.figures['noiseReSpeechA'];
    const alone = await figure(old);
    expect(alone?.value).toBeNull();
    expect(alone?.remark).toMatch(/not comparable with version 4: Silence: Version 4 changed gain: at full gain/);

    // Two units under both: the noise reads 6 dB more by version 4.
    const measured = (await app.catalogue.sheet(old)).runs[0].measurements.find((m) => m.quantity === 'noiseReSpeechA');
    for (const label of ['C', 'D']) {
      await run(app, label, 3, -70, '2026-05-02');
      await run(app, label, 4, -64, '2026-05-04');
    }
    const bridged = await figure(old);
    // Two takes of other noise: 0.05 dB is their scatter.
    expect(Math.abs((bridged?.value ?? NaN) - (measured?.value ?? 0) - 6)).toBeLessThan(0.05);
    expect(bridged?.uncertainty ?? 0).toBeGreaterThan(measured?.uncertainty ?? 0);
    expect(bridged?.remark).toMatch(/moved by \+[56]\.\d+ ±\d\.\d+ as 2 units/);
    const bridges = await app.protocols.bridges('desk-voice', 3, 4);
    expect(bridges.units).toBe(2);
    expect(bridges.offsets.find((o) => o.quantity === 'noiseReSpeechA')).toMatchObject({ units: [{}, {}] });
    await expect(app.protocols.bridges('desk-voice', 3, 12)).rejects.toMatchObject({ code: 'not-found' });
  }, 60_000);

  it('keeps figures of a version that only words things otherwise', async () => {
    const app = await testApplication();
    const old = await run(app, 'A', 1, -70, '2026-05-01');
    await run(app, 'B', 3, -64, '2026-05-03');
    const figures = (await app.catalogue.rankingInputs('microphone')).units.find((u) => u.id === old)?.figures;
    expect(figures?.['noiseReSpeechA']?.value).not.toBeNull();
    expect(figures?.['noiseReSpeechA']?.remark).toBeNull();
  });
});
