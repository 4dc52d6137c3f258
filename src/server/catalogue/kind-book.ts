import type { KindDocument } from '#core/gear/kind-document';
import {
  gearKindIds,
  isGearKind,
  isShippedKind,
  registerKinds,
  shippedKind,
  type ShippedKindId,
} from '#core/gear/kinds';
import { kindProblems, type Kind } from '#contracts/kind';
import type { ProblemDetail } from '#contracts/problem';
import { groupBy } from '#domain/group-by';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { addKindVersion, kindDocuments, unitsByKind, usedFields } from './queries/kind';

/** Kinds of gear as a person has them: those that ship, with what was added to them, and their own. */
export class KindBook {
  constructor(
    private readonly database: Database,
    private readonly hub: EventHub,
  ) {}

  /** All kinds, in their order. */
  async kinds(): Promise<Kind[]> {
    const saved = new Map((await kindDocuments(this.database)).map((d) => [d.id, d]));
    const units = await unitsByKind(this.database);
    const used = groupBy(await usedFields(this.database), (u) => u.category);
    return gearKindIds().map((id) => ({
      document: saved.get(id) ?? asShipped(id as ShippedKindId),
      isSaved: saved.has(id),
      units: units.get(id) ?? 0,
      usedFields: (used.get(id) ?? []).map((u) => u.field),
    }));
  }

  /**
   * Saves a kind as its next version; the version that was sent is the one that it goes on from.
   *
   * @throws Failure `invalid-request` with everything that is wrong, or where it was saved meanwhile
   */
  async save(sent: KindDocument): Promise<Kind> {
    // Read and written in one: of two that go on from the same version, the second is told.
    await this.database.transaction(async (tx) => {
      const used = (await usedFields(tx)).filter((u) => u.category === sent.id).map((u) => u.field);
      const saved = (await kindDocuments(tx)).find((d) => d.id === sent.id) ?? null;
      const stands = saved ?? (isShippedKind(sent.id) ? asShipped(sent.id) : null);
      const problems: ProblemDetail[] = kindProblems(sent, stands, new Set(used)).map((p) => ({ file: null, ...p }));
      if ((stands?.version ?? 1) !== sent.version)
        problems.push({
          file: null,
          field: 'version',
          message: `this goes on from version ${sent.version}; version ${stands?.version ?? 1} is the newest. Load it anew.`,
        });
      if (stands === null && isGearKind(sent.id))
        problems.push({ file: null, field: 'id', message: `there is a kind "${sent.id}" already` });
      if (problems.length > 0) throw new Failure('invalid-request', 'This kind cannot be saved as it is.', problems);
      await addKindVersion(tx, { ...sent, version: stands === null ? 1 : stands.version + 1 });
    });
    await registerSavedKinds(this.database);
    this.hub.rulesChanged();
    const kind = (await this.kinds()).find((k) => k.document.id === sent.id);
    if (!kind) throw new Error(`the kind ${sent.id} was saved and is not there`);
    return kind;
  }
}

/** Makes the kinds of an archive known to this process. */
export async function registerSavedKinds(database: Database): Promise<void> {
  registerKinds(await kindDocuments(database));
}

/** A kind that ships as a document: nothing is added to it. */
function asShipped(id: ShippedKindId): KindDocument {
  const { name } = shippedKind(id);
  return { id, version: 1, name, like: id, hatch: null, fields: [], withoutFields: [], columns: null };
}
