import { expect, it } from 'vitest';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/bench';

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
  // A category without rules says so; a list without such units is no error.
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
  expect(Math.abs((row.rejection?.value ?? 0) - 12)).toBeLessThan(0.6);
  expect((await application.catalogue.sessions()).map((s) => [s.date, s.takes])).toEqual([
    ['2026-05-02', 3],
    ['2024-01-10', 3],
  ]);
});
