import { expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import type { SpecimenRow } from '#contracts/specimen';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';

/** Its rear rejection, as lists show it. */
const rejectionOf = (row: SpecimenRow) => row.figures.find((f) => f.quantity === 'rearRejection');

it('answers from one snapshot while units come in', async () => {
  const application = await testApplication();
  const arrivals = ['A', 'B', 'C', 'D'].map((label) =>
    writeRunFolder(temporaryFolder(), runDocument({ specimen: { ...runDocument().specimen, label } })),
  );
  let isArriving = true;
  const asking = (async () => {
    while (isArriving) {
      const rows = await application.catalogue.ranking('microphone');
      expect(rows.map((r) => r.place)).toEqual(rows.map((_, i) => i + 1));
      // A snapshot that is there answers at once; without a pause nothing else would get a turn.
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
  })();
  for (const folder of arrivals) await application.runImport.importFolder(folder);
  await application.queue.idle();
  isArriving = false;
  await asking;
  expect(await application.catalogue.ranking('microphone')).toHaveLength(4);
  // A list without such units is no error; a kind without rules says so.
  expect(await application.catalogue.ranking('booster')).toEqual([]);
  await application.database.query(
    `DELETE FROM rubric_version v USING rubric r WHERE r.id = v.rubric_id AND r.category = 'booster'`,
  );
  application.hub.rulesChanged();
  await expect(application.catalogue.ranking('booster')).rejects.toMatchObject({ code: 'not-found' });
});

it('counts the figures of the latest run by the day of its recording, not of its import', async () => {
  const application = await testApplication();
  const run = (date: string, rejection: number) =>
    application.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument({ date }), {}, rejection));
  await run('2026-05-02', 12);
  const { specimenId } = await run('2024-01-10', 4);
  await application.queue.idle();
  const { row, runs } = await application.catalogue.sheet(specimenId);
  expect(runs.map((r) => r.date)).toEqual(['2026-05-02', '2024-01-10']);
  expect(row).toMatchObject({ firstTested: '2024-01-10', lastTested: '2026-05-02', takes: 6 });
  expect(Math.abs((rejectionOf(row)?.value ?? 0) - 12)).toBeLessThan(0.6);
  expect((await application.catalogue.sessions()).map((s) => [s.date, s.takes])).toEqual([
    ['2026-05-02', 3],
    ['2024-01-10', 3],
  ]);
});

it('counts no run that opens or closes a session: it is the rig that it speaks of', async () => {
  const application = await testApplication();
  const run = (date: string, purpose: 'opening' | 'unit' | 'closing', rejection: number) =>
    application.runImport.importFolder(
      writeRunFolder(temporaryFolder(), runDocument({ date, purpose }), {}, rejection),
    );
  const { specimenId } = await run('2026-05-02', 'unit', 12);
  await run('2026-05-03', 'opening', 4);
  await run('2026-05-03', 'closing', 5);
  await application.queue.idle();
  const { row } = await application.catalogue.sheet(specimenId);
  expect(Math.abs((rejectionOf(row)?.value ?? 0) - 12)).toBeLessThan(0.6);
});

it('does not rank a noise that was read over half of the band among the others, and says why', async () => {
  const application = await testApplication();
  const rate = 8000;
  const noise = lcgNoise(6 * rate, 10 ** (-70 / 20), 3);
  const speech = syllables([[0.3, 2.5], [3.2, 5]], 6, -14, rate); // prettier-ignore
  const low = {
    'speech.wav': encodeWav([mixed(speech, noise)], rate, 'pcm24'),
    'silence.wav': encodeWav([noise], rate, 'pcm24'),
    'rear.wav': encodeWav([mixed(scaled(speech, -12), noise)], rate, 'pcm24'),
  };
  const add = async (label: string, files = {}): Promise<string> => {
    const specimen = { ...runDocument().specimen, label };
    const folder = writeRunFolder(temporaryFolder(), runDocument({ specimen }), files);
    return (await application.runImport.importFolder(folder)).specimenId;
  };
  const [wide, , narrow] = [await add('A'), await add('B'), await add('C', low)];
  await application.queue.idle();
  const { units } = await application.catalogue.rankingInputs('microphone');
  const fact = (id: string) => units.find((u) => u.id === id)?.figures.noiseReSpeechA;
  expect(fact(wide)?.value).toBeLessThan(-20);
  expect(fact(narrow)).toMatchObject({
    value: null,
    notMeasured: expect.stringContaining('up to 4 kHz, the others up to 8 kHz') as string,
  });
  // Its page shows the figure all the same, with the band that it was read over.
  const [run] = (await application.catalogue.sheet(narrow)).runs;
  expect(run.measurements.find((m) => m.quantity === 'noiseReSpeechA')?.condition).toMatch(/20 Hz–4 kHz/);
});

it('learns from repeats what another reading differs by, and ranks by it', async () => {
  const application = await testApplication();
  const add = (date: string, rejection: number) =>
    application.runImport.importFolder(writeRunFolder(temporaryFolder(), runDocument({ date }), {}, rejection));
  const { specimenId } = await add('2026-05-02', 12);
  await application.queue.idle();
  const another = async () => {
    const [run] = (await application.catalogue.sheet(specimenId)).runs;
    return run.measurements.find((m) => m.quantity === 'rearRejection');
  };
  const before = await another();
  expect(before?.anotherReading).toBeGreaterThan(before?.uncertainty ?? Infinity);
  // Read again on other days it comes out up to 8 dB apart: that is what the next reading is worth.
  for (const [day, rejection] of [['2026-05-03', 4], ['2026-05-04', 14], ['2026-05-05', 6], ['2026-05-06', 12]] as const) await add(day, rejection); // prettier-ignore
  await application.queue.idle();
  const after = await another();
  expect(after?.anotherReading).toBeGreaterThan(1.8 * (before?.anotherReading ?? Infinity));
  // The list of gear says the same as the page of the unit.
  expect(rejectionOf(await application.catalogue.specimen(specimenId))?.anotherReading).toBeCloseTo(
    after?.anotherReading ?? NaN,
    9,
  );
  const { units } = await application.catalogue.rankingInputs('microphone');
  expect(units[0].figures.rearRejection?.between).toBeGreaterThan(2);
});
