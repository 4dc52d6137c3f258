import { correctionText, fieldChanges } from '#core/rules/correction-text';
import { numberText } from '#core/text/read-number';
import { changeSchema, type Change, type Correction, type NewCorrection } from '#contracts/correction';
import { unitName } from '#contracts/unit-name';
import type { Database, Queryable } from '../platform/db/database';
import {
  addCorrection,
  answersOfTest,
  correctPrice,
  correctRig,
  correctTake,
  correctablePrice,
  correctableRun,
  correctableTake,
  findCorrection,
  isLeftOut,
  leaveOut,
  listCorrections,
  markUndone,
  moveRun,
  namesOf,
  renameUnit,
  takesOfSession,
  titleOf,
  type CorrectableTake,
} from './queries/correction';
import { findRig } from '../rigs/queries/rig';
import { ensureModel, findSpecimen, listSpecimens } from '../catalogue/queries/specimen';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { rigDocumentSchema } from '#contracts/rig';
import { Failure } from '../platform/failure';
import type { AnalysisQueue } from './analysis-queue';
import type { EventHub } from '../platform/event-hub';

/** What a change would do: what stands now, in the shape of a change, and what it is about. */
interface Prepared {
  readonly before: Change;
  readonly text: string;
  readonly specimens: readonly string[];
  /** Runs whose figures hang on it. */
  readonly runs: readonly string[];
  readonly apply: (tx: Queryable) => Promise<void>;
}

/** Corrects what was brought in. Every correction is kept with what stood before it, and can be undone. */
export class Corrections {
  constructor(
    private readonly database: Database,
    private readonly queue: AnalysisQueue,
    private readonly hub: EventHub,
    private readonly now: () => Date,
  ) {}

  async list(specimenId: string | null): Promise<Correction[]> {
    return (await listCorrections(this.database, specimenId)).map((row) => ({
      id: row.id,
      kind: changeSchema.parse(row.change).kind,
      text: row.text,
      reason: row.reason,
      madeAt: row.made_at.toISOString(),
      undoneAt: row.undone_at?.toISOString() ?? null,
      specimens: row.specimens as string[],
    }));
  }

  /** @throws Failure `not-found`, `correction-refused` */
  async correct({ change, reason }: NewCorrection): Promise<{ id: string }> {
    const prepared = await this.prepare(change);
    const id = await this.database.transaction(async (tx) => {
      await prepared.apply(tx);
      const { before, text, specimens } = prepared;
      return addCorrection(tx, { change, before, text, reason, specimens, at: this.now() });
    });
    await this.follow(change, prepared);
    return { id };
  }

  /**
   * Puts back what stood before a correction.
   *
   * @throws Failure `not-found`, `correction-refused` where something was corrected again since
   */
  async undo(id: string): Promise<void> {
    const row = await findCorrection(this.database, id);
    if (!row) throw new Failure('not-found', 'There is no such correction.');
    if (row.undone_at !== null) throw refused('This correction has been undone already.');
    const [change, back] = [changeSchema.parse(row.change), changeSchema.parse(row.before)];
    const prepared = await this.prepare(back);
    if (!isSame(prepared.before, change))
      throw refused('The same was corrected again since; undo the later correction first.');
    await this.database.transaction(async (tx) => {
      await prepared.apply(tx);
      await markUndone(tx, id, this.now());
    });
    await this.follow(back, prepared);
  }

  /** Measures anew what hangs on it, and tells the pages. */
  private async follow(change: Change, { runs, specimens }: Prepared): Promise<void> {
    for (const run of runs) await this.queue.measureRun(run);
    for (const specimen of specimens) this.hub.specimenChanged(specimen);
    if (change.kind === 'rig') this.hub.rulesChanged();
    if (change.kind === 'session-left-out') this.hub.planChanged(change.session);
    if (change.kind === 'test-left-out') this.hub.emit({ type: 'listening', testId: change.test });
  }

  private prepare(change: Change): Promise<Prepared> {
    switch (change.kind) {
      case 'unit-name':
        return this.rename(change);
      case 'take':
        return this.retake(change);
      case 'take-left-out':
        return this.leaveTake(change);
      case 'run-left-out':
        return this.leaveRun(change);
      case 'run-moved':
        return this.move(change);
      case 'price':
        return this.reprice(change);
      case 'price-left-out':
        return this.leavePrice(change);
      case 'rig':
        return this.rerig(change);
      case 'session-left-out':
        return this.leaveUnused('session', change.session, change);
      case 'test-left-out':
        return this.leaveUnused('test', change.test, change);
    }
  }

  private async rename(change: Extract<Change, { kind: 'unit-name' }>): Promise<Prepared> {
    const { unit, maker, model, label } = change;
    const before = await namesOf(this.database, unit);
    const [base] = await listSpecimens(this.database, ALGORITHM_VERSION, [unit]);
    if (!before) throw new Failure('not-found', `There is no unit with the number ${unit}.`);
    const text = correctionText('Name', [{ name: '', before: unitName(before), after: unitName(change) }]);
    if (text === null) throw refused('That is its name already.');
    const taken = await findSpecimen(this.database, { maker, model, label, category: base.category });
    if (taken !== null && taken !== unit)
      throw refused(
        `There is a unit ${unitName(change)} already. If they are one and the same, move the runs of this one to it.`,
      );
    return {
      before: { kind: 'unit-name', unit, ...before },
      text: text.replace(':  ', ': '),
      specimens: [unit],
      runs: [],
      apply: async (tx) =>
        renameUnit(tx, unit, await ensureModel(tx, { maker, model, category: base.category }), { maker, model, label }),
    };
  }

  private async take(id: string): Promise<CorrectableTake> {
    const take = await correctableTake(this.database, id);
    if (!take) throw new Failure('not-found', 'There is no such take.');
    return take;
  }

  private async retake(change: Extract<Change, { kind: 'take' }>): Promise<Prepared> {
    const take = await this.take(change.take);
    const before: typeof change = {
      kind: 'take',
      take: change.take,
      gainDb: take.gain_db,
      distanceM: take.distance_m,
      angleDeg: take.angle_deg,
      settings: take.settings as typeof change.settings,
      note: take.note,
    };
    const text = correctionText(
      `Take “${take.step_title}” of ${take.day}`,
      fieldChanges(takeWords(before), takeWords(change)),
    );
    if (text === null) throw refused('Nothing differs from what is noted.');
    return {
      before,
      text,
      specimens: [take.specimen_id],
      runs: [take.run_id],
      apply: (tx) => correctTake(tx, change),
    };
  }

  private async leaveTake(change: Extract<Change, { kind: 'take-left-out' }>): Promise<Prepared> {
    const take = await this.take(change.take);
    if (change.isOut && take.counting <= 1)
      throw refused('It is the only take of its run; leave out the whole run instead.');
    return {
      ...(await this.left('take', change.take, change.isOut)),
      before: { ...change, isOut: !change.isOut },
      text: `Take “${take.step_title}” of ${take.day} ${change.isOut ? 'left out' : 'taken back'}`,
      specimens: [take.specimen_id],
      runs: [take.run_id],
    };
  }

  private async leaveRun(change: Extract<Change, { kind: 'run-left-out' }>): Promise<Prepared> {
    const run = await this.run(change.run);
    return {
      ...(await this.left('run', change.run, change.isOut)),
      before: { ...change, isOut: !change.isOut },
      text: `Run of ${run.day} ${change.isOut ? 'left out' : 'taken back'}`,
      specimens: [run.specimen_id],
      runs: change.isOut ? [] : [change.run],
    };
  }

  private async run(id: string) {
    const run = await correctableRun(this.database, id);
    if (!run) throw new Failure('not-found', 'There is no such run.');
    return run;
  }

  private async move(change: Extract<Change, { kind: 'run-moved' }>): Promise<Prepared> {
    const run = await this.run(change.run);
    const [from, to] = [await namesOf(this.database, run.specimen_id), await namesOf(this.database, change.unit)];
    const [target] = await listSpecimens(this.database, ALGORITHM_VERSION, [change.unit]);
    if (!from || !to) throw new Failure('not-found', `There is no unit with the number ${change.unit}.`);
    if (run.specimen_id === change.unit) throw refused('The run is that unit’s already.');
    if (target.category !== run.category)
      throw refused(`${unitName(to)} is gear of another kind; a run of its protocol cannot be its.`);
    return {
      before: { ...change, unit: run.specimen_id },
      text: `Run of ${run.day} moved from ${unitName(from)} to ${unitName(to)}`,
      specimens: [run.specimen_id, change.unit],
      runs: [change.run],
      apply: (tx) => moveRun(tx, change.run, change.unit),
    };
  }

  private async price(id: string) {
    const price = await correctablePrice(this.database, id);
    if (!price) throw new Failure('not-found', 'There is no such price.');
    return price;
  }

  private async reprice(change: Extract<Change, { kind: 'price' }>): Promise<Prepared> {
    const { specimen_id, kind, ...price } = await this.price(change.price);
    const before: typeof change = { kind: 'price', price: change.price, priceKind: kind, ...price };
    const text = correctionText('Price', fieldChanges(priceWords(before), priceWords(change)));
    if (text === null) throw refused('Nothing differs from what is noted.');
    return { before, text, specimens: [specimen_id], runs: [], apply: (tx) => correctPrice(tx, change) };
  }

  private async leavePrice(change: Extract<Change, { kind: 'price-left-out' }>): Promise<Prepared> {
    const { specimen_id, amount, currency, date } = await this.price(change.price);
    return {
      ...(await this.left('price', change.price, change.isOut)),
      before: { ...change, isOut: !change.isOut },
      text: `Price of ${amount} ${currency}, ${date}, ${change.isOut ? 'removed' : 'taken back'}`,
      specimens: [specimen_id],
      runs: [],
    };
  }

  private async rerig(change: Extract<Change, { kind: 'rig' }>): Promise<Prepared> {
    const row = await findRig(this.database, change.rig);
    if (!row) throw new Failure('not-found', `There is no rig ${change.rig}.`);
    if (row.runs > 0) throw refused('Runs were made on this rig as it is noted; note a change with its day instead.');
    const before = { ...change, document: rigDocumentSchema.parse(row.document) };
    const words = (d: Change & { kind: 'rig' }) =>
      Object.fromEntries(Object.entries(d.document).map(([k, v]) => [k, v === null ? '' : String(v)]));
    const text = correctionText(`Rig “${row.name}”`, fieldChanges(words(before), words(change)));
    if (text === null) throw refused('Nothing differs from what is noted.');
    const { name, since } = change.document;
    return {
      before,
      text,
      specimens: [],
      runs: [],
      apply: (tx) => correctRig(tx, change.rig, name, since, change.document),
    };
  }

  private async leaveUnused(
    what: 'session' | 'test',
    id: string,
    change: Extract<Change, { kind: 'session-left-out' | 'test-left-out' }>,
  ): Promise<Prepared> {
    const left = await this.left(what, id, change.isOut);
    const used = what === 'session' ? await takesOfSession(this.database, id) : await answersOfTest(this.database, id);
    if (used > 0)
      throw refused(
        what === 'session'
          ? 'Takes were made in this session, so it stays; end it, or leave out its runs.'
          : 'Somebody has sat this test, so it stays.',
      );
    const title = (await titleOf(this.database, what, id)) ?? id;
    return {
      ...left,
      before: { ...change, isOut: !change.isOut },
      text: `${what === 'session' ? 'Session' : 'Test'} “${title}” ${change.isOut ? 'removed' : 'taken back'}`,
      specimens: [],
      runs: [],
    };
  }

  private async left(
    what: Parameters<typeof leaveOut>[1],
    id: string,
    isOut: boolean,
  ): Promise<Pick<Prepared, 'apply'>> {
    const now = await isLeftOut(this.database, what, id);
    if (now === null) throw new Failure('not-found', `There is no such ${what}.`);
    if (now === isOut) throw refused(isOut ? 'It is left out already.' : 'It counts already.');
    return { apply: (tx) => leaveOut(tx, what, id, isOut) };
  }
}

const refused = (message: string): Failure => new Failure('correction-refused', message);

const isSame = (a: Change, b: Change): boolean => canonical(a) === canonical(b);

/** The order of fields says nothing. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
}

function takeWords({ gainDb, distanceM, angleDeg, settings, note }: Extract<Change, { kind: 'take' }>) {
  return {
    gain: numberText(gainDb, { unit: 'dB' }),
    distance: distanceM === null ? '' : numberText(100 * distanceM, { unit: 'cm' }),
    angle: angleDeg === null ? '' : numberText(angleDeg, { unit: '°' }),
    ...Object.fromEntries(Object.entries(settings).map(([key, value]) => [key, String(value)])),
    note,
  };
}

const priceWords = ({ amount, currency, priceKind, date }: Extract<Change, { kind: 'price' }>) => ({
  amount: `${amount} ${currency}`,
  kind: priceKind,
  day: date,
});
