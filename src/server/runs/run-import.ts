import { gearKindIds } from '#core/gear/kinds';
import { claimAsSheetValue } from '#core/gear/claim-comparison';
import { lstat, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { Rubric } from '#core/rules/rubric';
import type { Clip } from '#contracts/clip';
import type { ProblemDetail } from '#contracts/problem';
import type { ImportResult, NewRun, RunDocument } from '#contracts/run-document';
import type { Database, Queryable } from '../platform/db/database';
import { orderAnalysis } from './queries/analysis';
import { noteSheetEntry } from '../catalogue/queries/sheet';
import { findClip } from './queries/clip';
import { givePoints } from '../catalogue/queries/points';
import { notePrice } from '../catalogue/queries/price';
import { listProtocols, protocolIds } from '../sessions/queries/protocol';
import { currentRubric } from '../catalogue/queries/rubric';
import { ensureSession, findRunByKey, insertRun, insertTake } from './queries/run';
import { rigOnDay } from '../rigs/queries/rig';
import { ensureSpecimen, noteCustody } from '../catalogue/queries/specimen';
import { restOfFamily } from '../catalogue/queries/variant';
import { fillTable, tablesOf } from './queries/table-reading';
import { runIdentity } from '#domain/runs/run-identity';
import { Failure } from '../platform/failure';
import { hashOf } from '../platform/secret';
import type { AnalysisQueue } from './analysis-queue';
import { fileBytes, type ClipIngest, type InspectedFile } from './clip-ingest';
import type { EventHub } from '../platform/event-hub';
import { checkRunDocument, RUN_FILE, type RunCheckContext } from './run-check';

/** Runs come in whole or not at all: from a folder on disk, or from files uploaded before. */
export class RunImport {
  constructor(
    private readonly database: Database,
    private readonly ingest: ClipIngest,
    private readonly queue: AnalysisQueue,
    private readonly hub: EventHub,
  ) {}

  /**
   * Imports a run folder (run.json beside its clips). Files are received and inspected first; only when nothing at
   * all is wrong do clips enter the archive and the run the database.
   *
   * @throws Failure `run-refused` with every problem
   */
  async importFolder(folder: string): Promise<ImportResult> {
    const raw = await readRunFile(folder);
    const { document, problems, files } = checkRunDocument(raw, await this.checkContext());
    const inspected: InspectedFile[] = [];
    try {
      for (const name of files) {
        const path = join(folder, name);
        const missing = await fileProblem(path, name);
        if (missing) {
          problems.push(missing);
          continue;
        }
        const file = await this.ingest.receive(fileBytes(path), name, { keepPart: false });
        inspected.push(file);
        if (!file.verdict.ok) problems.push({ file: name, field: null, message: file.verdict.message });
      }
      if (!document || problems.length > 0) throw refused(problems);
      const clips = new Map<string, Clip>();
      for (const file of inspected) clips.set(file.name, await this.ingest.keep(file));
      return await this.store(document, clips);
    } finally {
      // What was kept has left its temporary place; this takes away the rest.
      await Promise.all(inspected.map((file) => this.ingest.discard(file)));
    }
  }

  /**
   * Imports a run whose clips are in the archive already.
   *
   * @throws Failure `run-refused` with every problem
   */
  async importUploaded(run: NewRun): Promise<ImportResult> {
    const { document, problems, files } = checkRunDocument(run.document, await this.checkContext());
    const clips = new Map<string, Clip>();
    for (const name of files) {
      const sha256 = run.clips[name];
      const clip = sha256 ? await findClip(this.database, sha256) : null;
      const isSound = clip !== null && (await this.ingest.isSound(clip.sha256));
      if (clip && isSound) clips.set(name, clip);
      else if (clip)
        problems.push({
          file: name,
          field: null,
          message: 'the file of this clip is missing or damaged; upload it again',
        });
      else problems.push({ file: name, field: null, message: 'this file has not been uploaded' });
    }
    if (!document || problems.length > 0) throw refused(problems);
    return this.store(document, clips);
  }

  private async checkContext(): Promise<RunCheckContext> {
    const rubrics = new Map<string, Rubric | null>();
    for (const category of gearKindIds())
      rubrics.set(category, (await currentRubric(this.database, category))?.rubric ?? null);
    return { protocols: await listProtocols(this.database), rubricOf: (category) => rubrics.get(category) ?? null };
  }

  private async store(document: RunDocument, clips: ReadonlyMap<string, Clip>): Promise<ImportResult> {
    const key = hashOf(runIdentity(document, (file) => clips.get(file)?.sha256 ?? null));
    const { result, ordered, isFilled } = await this.database.transaction(async (tx) => {
      const before = await findRunByKey(tx, key);
      if (before?.left_out)
        throw refused([
          {
            file: RUN_FILE,
            field: null,
            message:
              'this run is in the archive, and was left out; take it back on the page of its unit, under “Corrections”',
          },
        ]);
      const specimenId = before?.specimen_id ?? (await ensureSpecimen(tx, document.specimen));
      const { runId, ordered } = before
        ? { runId: before.id, ordered: [] }
        : await addRun(tx, document, clips, specimenId, key);
      const isFilled = before !== null && (await fillWhatIsMissing(tx, before.id, document));
      for (const price of document.prices) await notePrice(tx, specimenId, price);
      for (const claim of document.claims)
        await noteSheetEntry(tx, specimenId, { field: claim.quantity, value: claimAsSheetValue(claim) }, document.date);
      for (const [field, value] of Object.entries(document.sheet))
        await noteSheetEntry(tx, specimenId, { field, value }, document.date);
      await addPoints(tx, document, specimenId, runId);
      return { result: { runId, specimenId, created: !before }, ordered, isFilled };
    });
    // Where the one is, the others are; and a first run may have brought its unit in with it.
    const family = await restOfFamily(this.database, result.specimenId);
    for (const id of [result.specimenId, ...family]) this.hub.specimenChanged(id);
    this.queue.enqueue(ordered);
    // Clips that were analysed before need no analysis, so nobody else would measure the run.
    if (result.created || isFilled) await this.queue.measureRun(result.runId);
    return result;
  }
}

async function addRun(
  tx: Queryable,
  document: RunDocument,
  clips: ReadonlyMap<string, Clip>,
  specimenId: string,
  key: string,
): Promise<{ runId: string; ordered: string[] }> {
  const protocol = await protocolIds(tx, document.protocol, document.protocolVersion);
  const runId = await insertRun(tx, {
    sessionId: await ensureSession(tx, document.date),
    specimenId,
    protocolVersionId: protocol.versionId,
    source: document.source,
    importKey: key,
    fullScaleDbu: document.inputFullScaleDbu ?? null,
    rigId: document.rig === undefined ? null : ((await rigOnDay(tx, document.rig, document.date))?.id ?? null),
    purpose: document.purpose,
  });
  for (const table of document.tables) await fillTable(tx, { run: runId }, table);
  await noteCustody(tx, specimenId, true, document.date);
  const ordered: string[] = [];
  for (const [i, take] of document.takes.entries()) {
    const { sha256 } = clips.get(take.file) as Clip;
    await insertTake(tx, runId, protocol.steps.get(take.step) as string, sha256, take, i + 1);
    const id = await orderAnalysis(tx, sha256, ALGORITHM_VERSION);
    if (id) ordered.push(id);
  }
  return { runId, ordered };
}

/** Tables that a run does not have yet; those that it has are corrected, not overwritten. */
async function fillWhatIsMissing(tx: Queryable, run: string, { tables }: RunDocument): Promise<boolean> {
  const filled = new Set((await tablesOf(tx, 'run', [run])).map((t) => t.step));
  const missing = tables.filter((t) => t.cells.length > 0 && !filled.has(t.step));
  for (const table of missing) await fillTable(tx, { run }, table);
  return missing.length > 0;
}

async function addPoints(tx: Queryable, document: RunDocument, specimenId: string, runId: string): Promise<void> {
  const rubric = await currentRubric(tx, document.specimen.category);
  if (!rubric) return;
  for (const points of document.points) {
    await givePoints(tx, { specimenId, rubricVersionId: rubric.versionId, runId, day: document.date }, points);
  }
}

const refused = (problems: readonly ProblemDetail[]): Failure =>
  new Failure(
    'run-refused',
    `The run has ${problems.length === 1 ? 'one problem' : `${problems.length} problems`}.`,
    problems,
  );

async function readRunFile(folder: string): Promise<unknown> {
  let text: string;
  try {
    text = await readFile(join(folder, RUN_FILE), 'utf8');
  } catch {
    throw refused([{ file: RUN_FILE, field: null, message: `there is no ${RUN_FILE} in ${folder}` }]);
  }
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    throw refused([{ file: RUN_FILE, field: null, message: `is not valid JSON: ${(error as Error).message}` }]);
  }
}

async function fileProblem(path: string, name: string): Promise<ProblemDetail | null> {
  try {
    const info = await lstat(path);
    if (info.isSymbolicLink())
      return { file: name, field: null, message: 'is a link; put the file itself into the folder' };
    return info.isFile() ? null : { file: name, field: null, message: 'is not a file' };
  } catch {
    return { file: name, field: null, message: 'is not in the folder' };
  }
}
