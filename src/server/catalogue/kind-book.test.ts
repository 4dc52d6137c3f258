import { afterEach, describe, expect, it } from 'vitest';
import type { KindDocument } from '#core/gear/kind-document';
import { registerKinds } from '#core/gear/kinds';
import { rubricSchema } from '#contracts/rubric';
import { runDocument, temporaryFolder, testApplication, writeRunFolder } from '../testing/application';
import { openApplication } from '../wiring';

const own: KindDocument = {
  id: 'mute-box', version: 1, name: 'Mute box', like: 'microphone', hatch: 'rings', withoutFields: ['warranty'], columns: ['sheet:muteButton'],
  fields: [{ id: 'muteButton', name: 'Mute button', group: 'Body', type: 'yes-no', isClass: true }],
}; // prettier-ignore
const yes = { type: 'yes-no', yes: true } as const;

afterEach(() => registerKinds([]));

describe('kinds of one’s own', () => {
  it('are tested by a protocol that serves them as well, measured, scored and ranked', async () => {
    const app = await testApplication();
    await app.kindBook.save(own);
    const specimen = { ...runDocument().specimen, category: 'mute-box' };
    const document = runDocument({ specimen, points: [], protocolVersion: 1 });
    const bring = (d: typeof document) => app.runImport.importFolder(writeRunFolder(temporaryFolder(), d));
    await expect(bring(document)).rejects.toThrow(/problem/);
    const protocol = (await app.protocols.protocols()).filter((p) => p.id === 'desk-voice').at(-1)!;
    const newest = {
      ...protocol,
      version: protocol.version + 1,
      alsoFor: ['mute-box'],
      changes: 'serves boxes as well',
    };
    await app.protocols.save(newest);
    const { specimenId } = await bring({ ...document, protocolVersion: newest.version });
    await app.queue.idle();
    await app.sheets.put(specimenId, { entries: [{ field: 'muteButton', value: yes }], reason: '' });
    const sheet = await app.catalogue.sheet(specimenId);
    expect(sheet.row).toMatchObject({
      category: 'mute-box',
      classes: { muteButton: ['yes'] },
      sheet: { muteButton: true },
    });
    expect(sheet.runs[0].measurements.find((m) => m.quantity === 'rearRejection')?.value).toBeGreaterThan(5);
    await app.rubricBook.save(
      rubricSchema.parse({
        id: 'mute-box', version: 1, name: 'Boxes', category: 'mute-box', weights: { mute: 1 }, stratumProbability: 0.9,
        criteria: [{ id: 'mute', name: 'Mute', meaning: 'it has one', kind: 'features', features: [{ field: 'muteButton', is: null }], curve: [[0, 0], [1, 5]] }],
      }),
    ); // prettier-ignore
    expect(await app.catalogue.ranking('mute-box')).toMatchObject([{ id: specimenId, place: 1, composite: 5 }]);
  }, 60_000);

  it('are there again after a restart, and what a kind shows changes at once', async () => {
    const folder = temporaryFolder();
    const app = await testApplication({ folder });
    await app.kindBook.save(own);
    const { id } = await app.scoring.addUnit({ maker: 'Oarlock', model: 'Purser', label: 'A', category: 'mute-box' });
    await app.sheets.put(id, { entries: [{ field: 'muteButton', value: yes }], reason: '' });
    expect((await app.catalogue.specimens())[0].sheet).toEqual({ muteButton: true });
    registerKinds([]);
    const again = await openApplication({ folder, database: app.database, pool: app.pool });
    expect((await again.kindBook.kinds()).at(-1)).toMatchObject({
      document: own,
      units: 1,
      usedFields: ['muteButton'],
    });
    // The field divides the kind no more: nothing else of the unit has changed.
    const undivided = { ...own, columns: null, fields: [{ ...own.fields[0], isClass: false }] } as KindDocument;
    await app.kindBook.save(undivided);
    expect((await app.catalogue.specimens())[0]).toMatchObject({ sheet: {}, classes: {} });
  });

  it('are refused where they go on from an older version, have a name that is there, or lose what is filled in', async () => {
    const app = await testApplication();
    await app.kindBook.save(own);
    await expect(app.kindBook.save({ ...own, version: 3 })).rejects.toMatchObject({ details: [{ field: 'version' }] });
    const saved = await app.kindBook.save({ ...own, name: 'Boxes' });
    expect(saved.document.version).toBe(2);
    await expect(app.kindBook.save(own)).rejects.toMatchObject({ details: [{ field: 'version' }] });
    const { id } = await app.scoring.addUnit({ maker: 'Oarlock', model: 'Purser', label: 'A', category: 'mute-box' });
    await app.sheets.put(id, { entries: [{ field: 'muteButton', value: yes }], reason: '' });
    await expect(app.kindBook.save({ ...saved.document, fields: [], columns: null })).rejects.toMatchObject({ details: [{ message: '“Mute button” is filled in somewhere, so it stays' }] }); // prettier-ignore
    const nobody = { maker: 'Oarlock', model: 'Purser', label: 'B', category: 'no-kind' };
    expect((await import('#contracts/specimen')).newUnitSchema.safeParse(nobody).error?.issues[0].message).toMatch(/must be a kind of gear: .*mute-box/); // prettier-ignore
  });
});
