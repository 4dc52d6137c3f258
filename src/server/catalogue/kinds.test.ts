import { quantity } from '#core/measure/registry';
import { expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise, mixed, scaled, sine } from '#core/testing/signals';
import { SHIPPED_KIND_IDS } from '#core/gear/kinds';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

const SECONDS = 4;
const noise = (levelDb: number) => scaled(lcgNoise(SECONDS * 48_000, 1, 3), levelDb);
/** An interface whose full scale lies at +10 dBu without gain, and whose noise at about −125 dBu. */
const FILES = {
  'electrical.wav': encodeWav([mixed(sine(1000, -10, SECONDS), noise(-100))], 48_000, 'pcm24'),
  'noise-150.wav': encodeWav([noise(-75 + 1.8 + 0.8)], 48_000, 'pcm24'),
};
const interfaceRun = (change: Partial<ReturnType<typeof runDocument>> = {}) =>
  runDocument({
    specimen: { maker: 'Oarlock', model: 'Gauge', label: 'A', category: 'interface' },
    protocol: 'input-stage',
    protocolVersion: 2,
    takes: [
      { step: 'electrical', file: 'electrical.wav', gainDb: 20 },
      { step: 'noise-150', file: 'noise-150.wav', gainDb: 60 },
    ],
    points: [],
    ...change,
  });

it('an interface is measured, listed and ranked by rules of its own, beside the microphones', async () => {
  const application = await testApplication();
  await application.runImport.importFolder(writeRunFolder(temporaryFolder(), interfaceRun(), FILES));
  await application.runImport.importFolder(writeRunFolder(temporaryFolder()));
  await application.queue.idle();
  const rows = await application.catalogue.specimens();
  const row = rows.find((r) => r.category === 'interface');
  expect(row?.figures.map((f) => f.quantity)).toEqual(['einA', 'noiseFigure']);
  // Noise at −72.4 − 1.8 − 0.8 dBFS, 60 dB of gain, +10 dBu: −125 dBu, and 2.05 dB less A-weighted.
  expect(Math.abs((row?.figures[0].value ?? 0) - -127.05)).toBeLessThan(0.15);
  expect(row?.hasRules).toBe(true);
  expect((await application.catalogue.ranking('interface')).map((r) => r.specimen)).toEqual(['Oarlock Gauge · A']);
  expect((await application.catalogue.ranking('microphone')).map((r) => r.specimen)).toEqual(['Oarlock Purser · A']);
  expect((await application.catalogue.rubrics()).map((r) => r.category).sort()).toEqual([...SHIPPED_KIND_IDS].sort());
});

it('takes the level of the tone from the take before that of the step, and keeps it', async () => {
  const application = await testApplication();
  const [tone, silent] = interfaceRun().takes;
  // Ten decibels less at the input than the step says: everything lies ten lower.
  const document = interfaceRun({ takes: [{ ...tone, levelDbu: -30 }, silent] });
  const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), document, FILES));
  await application.queue.idle();
  const { runs } = await application.catalogue.sheet(specimenId);
  const ein = runs[0].measurements.find((m) => m.quantity === 'einA');
  // −137 dBu(A) lies below what 150 Ω make: refused, and the reason names both.
  expect(ein?.value).toBeNull();
  expect(ein?.notMeasured).toMatch(/^It would be −13[67]\.\d dBu, below the −133\.0 dBu/);
});

it('what is recorded without a booster is the microphone’s: it gives the booster no figure of its own but those of pairs', async () => {
  const application = await testApplication();
  const document = runDocument({
    specimen: { maker: 'Oarlock', model: 'Winch', label: 'A', category: 'booster' },
    protocol: 'inline-booster',
    takes: [
      { step: 'without', file: 'speech.wav', gainDb: 40 },
      { step: 'silence-without', file: 'silence.wav', gainDb: 40 },
      { step: 'with', file: 'rear.wav', gainDb: 20 },
    ],
    points: [],
  });
  const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), document));
  await application.queue.idle();
  const { row, runs } = await application.catalogue.sheet(specimenId);
  expect(runs[0].takes).toHaveLength(3);
  // What lies between its takes is the booster's; what is read of one of them is not.
  expect(runs[0].measurements.every((m) => quantity(m.quantity).group === 'pair')).toBe(true);
  expect(runs[0].measurements.find((m) => m.quantity === 'gainAdded')?.value).not.toBeNull();
  expect(row).toMatchObject({ hasRules: true });
});

it('a run of a room protocol is not told that speech and rear are missing', async () => {
  const application = await testApplication();
  const protocols = await application.protocols.versions();
  const room = protocols.find((v) => v.protocol.id === 'room');
  const step = room?.protocol.steps.find((s) => s.role === 'silence') ?? room?.protocol.steps[0];
  const document = runDocument({
    protocol: 'room',
    protocolVersion: room?.protocol.version ?? 1,
    takes: [{ step: step?.id ?? '', file: 'silence.wav', gainDb: 40 }],
  });
  const { specimenId } = await application.runImport.importFolder(writeRunFolder(temporaryFolder(), document));
  await application.queue.idle();
  const { runs } = await application.catalogue.sheet(specimenId);
  const planned = room?.protocol.steps.map((s) => s.role);
  expect(planned).not.toContain('rear');
  expect(runs[0].measurements.map((m) => m.quantity)).not.toContain('rearRejection');
});
