import { originalExtension } from '#core/audio/sound-files';
import { isSameName } from '#core/text/same-name';
import type { NewRemoval, Removable, Removal, RemovalPreview } from '#contracts/removal';
import { unitName } from '#contracts/unit-name';
import { removalLines } from '#domain/mending/removal-words';
import { restOfFamily, variantsOf } from '../catalogue/queries/variant';
import type { ClipStore } from '../platform/archive/clip-store';
import type { FilesByHash } from '../platform/archive/files-by-hash';
import type { Database, Queryable } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import type { ClipPreparation } from '../listening/clip-preparation';
import type { AnalysisQueue } from '../runs/analysis-queue';
import type { HandedClips } from '../publish/handed-clips';
import type { ClipPictures } from '../runs/clip-pictures';
import type { HeardScale } from '../scale/heard-scale';
import { namesOf } from './queries/correction';
import { rigsControlledBy } from './queries/unit-merge';
import {
  addRemoval,
  answeredUnits,
  filesAreGone,
  isOnlyTake,
  listRemovals,
  ownerOf,
  removalCounts,
  removalScope,
  removeRows,
  runningSessions,
  titleOfRemoved,
  unfinishedRemovals,
  type GoingFile,
  type RemovalScope,
} from './queries/removal';

/** Where files lie that go with what is deleted. */
interface FileHomes {
  readonly store: ClipStore;
  readonly pictures: ClipPictures;
  readonly handed: HandedClips;
  readonly originals: FilesByHash;
  readonly photos: FilesByHash;
  readonly listening: ClipPreparation;
}

/**
 * Deletes for good what must not stay: a wrong upload, somebody’s voice. Everything else is left out, and stays.
 * Rows go first, in one transaction that names the files; then the files, and a start goes on where a process ended.
 */
export class Removals {
  constructor(
    private readonly database: Database,
    private readonly homes: FileHomes,
    private readonly queue: AnalysisQueue,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<Removal[]> {
    return (await listRemovals(this.database)).map(({ id, what, text, reason, removed_at }) => ({
      id,
      what,
      text,
      reason,
      removedAt: removed_at.toISOString(),
    }));
  }

  /**
   * What would go.
   *
   * @throws Failure `not-found`
   */
  async preview(what: Removable, id: string): Promise<RemovalPreview> {
    return (await this.look(this.database, what, id)).preview;
  }

  /**
   * Deletes it.
   *
   * @throws Failure `not-found`, `invalid-request` where the name is not that of the unit, `correction-refused` where
   *   something that runs hangs on it
   */
  async remove({ what, id, name, reason }: NewRemoval): Promise<Removal> {
    // What hangs on it is looked at where it is deleted: nothing comes between.
    const { scope, removal, files, others } = await this.database.transaction(async (tx) => {
      const { scope, preview } = await this.look(tx, what, id);
      if (preview.refusal !== null) throw new Failure('correction-refused', preview.refusal);
      if (!isSameName(name, preview.unit)) throw otherName(preview.unit);
      const others = [
        ...(await answeredUnits(tx, scope.units)),
        ...(what === 'unit' ? await restOfFamily(tx, id) : []),
      ];
      const files = filesOf(scope);
      await removeRows(tx, scope);
      const text = what === 'unit' ? preview.title : `${preview.title}, of ${preview.unit}`;
      const at = this.now();
      const removalId = await addRemoval(tx, { what, text, reason, files, at });
      return { scope, removal: { id: removalId, what, text, reason, removedAt: at.toISOString() }, files, others };
    });
    await this.removeFiles(removal.id, files);
    if (what === 'take' && scope.ownRun !== null) await this.queue.measureRun(scope.ownRun);
    this.scale.changed([scope.specimenId, ...scope.units, ...others], true);
    for (const { id: testId } of scope.tests) this.hub.emit({ type: 'listening', testId });
    return removal;
  }

  /** After a start: files of what was deleted go, where a process ended before they were gone. */
  async finish(): Promise<void> {
    for (const { id, files } of await unfinishedRemovals(this.database)) await this.removeFiles(id, files);
  }

  private async look(
    db: Queryable,
    what: Removable,
    id: string,
  ): Promise<{ readonly scope: RemovalScope; readonly preview: RemovalPreview }> {
    const owner = await ownerOf(db, what, id);
    const names = owner && (await namesOf(db, owner.specimen_id));
    if (!owner || !names) throw new Failure('not-found', `There is no such ${what}.`);
    const unit = unitName(names);
    const scope = await removalScope(db, what, id, owner);
    const refusal = await this.refusal(db, scope, id);
    const title = what === 'unit' ? unit : await titleOfRemoved(db, what, id);
    const lines = removalLines(what, await removalCounts(db, scope));
    const { specimenId, bytes } = scope;
    return { scope, preview: { what, title, unit, specimenId, ...lines, bytes, refusal } };
  }

  /** Why it cannot go now. */
  private async refusal(
    db: Queryable,
    { what, units, slots, tests }: RemovalScope,
    id: string,
  ): Promise<string | null> {
    const open = tests.find((t) => t.status === 'open' || t.status === 'preparing');
    if (open) return `The listening test “${open.name}” is made of it and can still be answered; close it first.`;
    const [session] = await runningSessions(db, slots);
    if (session) return `The session “${session}” is running with it; end it first.`;
    if (what === 'unit') {
      const [variant] = await variantsOf(db, id);
      if (variant)
        return `It is there in other configurations, ${variant.configuration} for one; delete these first, or let them stand by themselves.`;
    }
    const [rig] = units.length > 0 ? await rigsControlledBy(db, units) : [];
    if (rig)
      return `It is, or was, the control unit of the rig “${rig}”, which is measured by it; leave out its runs instead.`;
    if (what === 'take' && (await isOnlyTake(db, id)))
      return 'It is the only take of its run; delete the whole run instead.';
    return null;
  }

  private async removeFiles(removalId: string, files: readonly GoingFile[]): Promise<void> {
    const { store, originals, pictures, handed, photos, listening } = this.homes;
    for (const file of files) {
      if ('clip' in file) {
        await store.remove(file.clip);
        await pictures.forget(file.clip);
        await handed.forget(file.clip);
      } else if ('original' in file) await originals.remove(file.original, file.extension);
      else if ('photo' in file) await photos.remove(file.photo, file.format);
      else await listening.removeClip(file.test, file.item);
    }
    await filesAreGone(this.database, removalId);
  }
}

/** Clips that nothing else uses, and what was prepared of them for listeners. */
const filesOf = ({ clips, originals, photoFiles, tests }: RemovalScope): GoingFile[] => [
  ...clips.map((clip) => ({ clip })),
  ...originals.map(({ sha256, name }) => ({ original: sha256, extension: originalExtension(name) })),
  ...photoFiles.map(({ sha256, format }) => ({ photo: sha256, format })),
  ...tests.flatMap((t) => t.items.map((item) => ({ test: t.id, item }))),
];

function otherName(unit: string): Failure {
  const message = `the name of the unit is ${unit}`;
  return new Failure('invalid-request', 'Nothing was deleted: another name was typed.', [
    { file: null, field: 'name', message },
  ]);
}
