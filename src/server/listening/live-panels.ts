import { atLetter } from '#core/rules/listening/letters';
import type { Category } from '#contracts/common';
import { newTestSchema, QUESTIONS, type NewTest } from '#contracts/listening';
import type { PanelCommand, PanelEntry, PanelPage, PanelSeat, PanelSettings, SeatCommand } from '#contracts/live-panel';
import { drawnAgain, drawnHeat, NO_OFFERS, panelOffers, type PanelRules } from '#domain/listening/panel/panel-offers';
import { panelRefusal, turnTitle } from '#domain/listening/panel/panel-refusal';
import { openTurn, type PanelState, type PanelTurn } from '#domain/listening/panel/panel-state';
import { panelTables } from '#domain/listening/panel/panel-tables';
import { panelTrials } from '#domain/listening/panel/panel-trials';
import { seatView } from '#domain/listening/panel/seat-view';
import type { SittingRow } from '#domain/listening/sitting';
import type { ItemRow } from '#domain/listening/test-item';
import { isRanked } from '#domain/listening/trial-plan';
import type { Clock } from '../platform/clock';
import type { Database, Queryable } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { newKey, newSecret } from '../platform/listening-key';
import type { WorkerPool } from '../platform/worker-pool';
import type { HeardScale } from '../scale/heard-scale';
import { insertWords } from '../scale/queries/heard';
import type { ClipPreparation } from './clip-preparation';
import { keepHeard } from './kept-answer';
import { mustFindTest } from './must-find-test';
import { readPanel } from './panel-journal';
import { insertPanelEntry, removeWordsOfEntry, setItemTake, takesOfUnits } from './queries/live-panel';
import { addTrials, answerTrial, ensureListener, ensureSitting, findSitting, findTestByInvitation, finishSitting, insertItem, itemsOfTest, sittingsOfTest, trialsOfSitting, type TestDbRow } from './queries/listening'; // prettier-ignore
import { unitsById } from './queries/panel-units';

/** More cannot sit in one room and be heard out. */
const MOST_LISTENERS = 60;

interface OpenedPanel {
  readonly row: TestDbRow;
  readonly test: NewTest;
  readonly settings: PanelSettings;
  readonly items: readonly ItemRow[];
  readonly sittings: readonly SittingRow[];
  readonly state: PanelState;
  readonly rules: PanelRules;
}

/** Listening tests that are held live, with everybody in one room: drawn, heard and decided on the spot. */
export class LivePanels {
  constructor(
    private readonly database: Database,
    private readonly pool: WorkerPool,
    private readonly clips: ClipPreparation,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /** @throws Failure `not-found`; `invalid-request` for a test that is no live panel */
  async page(id: string): Promise<PanelPage> {
    return this.pageOf(await this.open(this.database, id));
  }

  /**
   * What the one who leads does.
   *
   * @param id - of the test
   * @param command - what is done
   * @param secret - what is drawn from; given by the demo only
   * @throws Failure `not-found`, `answer-refused` with the reason
   */
  async lead(id: string, command: PanelCommand, secret = newSecret()): Promise<PanelPage> {
    await this.act(id, command, null, secret);
    return this.page(id);
  }

  /**
   * What a listener does by their own page.
   *
   * @throws Failure `not-found`, `answer-refused` with the reason
   */
  async sit(key: string, command: SeatCommand): Promise<PanelSeat> {
    const sitting = await this.sittingOf(key);
    await this.act(sitting.test_id, withSitting(command, sitting.id), sitting.id, '');
    return this.seat(key);
  }

  /** What a listener’s page shows. @throws Failure `not-found` */
  async seat(key: string): Promise<PanelSeat> {
    const sitting = await this.sittingOf(key);
    const panel = await this.open(this.database, sitting.test_id);
    return seatView(panel.state, { question: questionOf(panel.test), isOpen: panel.row.status === 'open', sitting: { id: sitting.id, name: sitting.listener } }); // prettier-ignore
  }

  /** What the screen in the room shows. @throws Failure `not-found` */
  async screen(invitation: string): Promise<PanelSeat> {
    const row = await findTestByInvitation(this.database, invitation);
    if (!row) throw new Failure('not-found', 'There is no test behind this link.');
    const panel = await this.open(this.database, row.id);
    return seatView(panel.state, {
      question: questionOf(panel.test),
      isOpen: row.status === 'open',
      sitting: null,
    });
  }

  /**
   * A clip of the turn that is being heard, for the loudspeakers in the room.
   *
   * @throws Failure `not-found` where nothing is heard, or no clips are played
   */
  async clip(id: string, letter: string): Promise<Uint8Array> {
    const { row, settings, state } = await this.open(this.database, id);
    const item = atLetter(openTurn(state)?.items ?? [], letter);
    if (item === null || settings.source !== 'played' || row.status !== 'open')
      throw new Failure('not-found', 'There is no such clip in what is heard now.');
    return this.pool.run('render-blind-clip', this.clips.clipPath(id, item));
  }

  private async act(id: string, command: PanelCommand, own: string | null, secret: string): Promise<void> {
    // One after another: an order that arrives with the closing is in it, or is told that it came late.
    const tells = await this.database.transaction(async (tx) => {
      const panel = await this.open(tx, id);
      if (panel.row.status !== 'open' && command.kind !== 'take')
        throw new Failure('answer-refused', panel.row.status === 'preparing' ? 'The clips of this panel are still being prepared.' : 'This panel is closed.'); // prettier-ignore
      const sittings = panel.sittings.map((s) => s.id);
      const refusal = panelRefusal(panel.state, command, { rules: panel.rules, sittings, own });
      if (refusal !== null) throw new Failure('answer-refused', refusal);
      return this.keep(tx, panel, command, secret);
    });
    if (tells.length > 0) this.scale.changed(tells);
    this.hub.emit({ type: 'listening', testId: id });
  }

  /** @returns units of which something is known now */
  private async keep(tx: Queryable, panel: OpenedPanel, command: PanelCommand, secret: string): Promise<string[]> {
    const { row, state, rules, items } = panel;
    const note = (entry: PanelEntry, sitting: string | null = null): Promise<string> =>
      insertPanelEntry(tx, { testId: row.id, sitting, at: this.clock.now() }, entry);
    switch (command.kind) {
      case 'heat':
        await note(drawnHeat(state, rules, secret));
        return [];
      case 'again':
        await note(drawnAgain(state, command.turn, secret));
        return [];
      case 'place': {
        const table = panelTables(state).find((t) => t.turn === command.into);
        if (table)
          await note({
            kind: 'place',
            into: table.turn,
            round: table.round,
            table: table.rows.map((r) => r.item),
            item: command.item,
          });
        return [];
      }
      case 'now':
      case 'close':
        if (command.kind === 'now') await note(command);
        else {
          await note({ kind: 'closed' });
          const turn = openTurn(state);
          if (turn) return this.count(tx, panel, turn);
        }
        return [];
      case 'drop':
        await note({ kind: 'dropped', reason: command.reason });
        return [];
      case 'order':
      case 'placed':
      case 'wish': {
        const { sitting, ...entry } = command;
        await note(entry, sitting);
        return [];
      }
      case 'said':
        return this.said(tx, panel, command);
      case 'take-back': {
        await note({ kind: 'taken-back', entry: command.entry });
        await removeWordsOfEntry(tx, command.entry);
        const item = state.notes.find((n) => n.entry === command.entry)?.item;
        return items.flatMap((i) => (i.id === item ? [i.specimen_id] : []));
      }
      case 'came': {
        if (panel.sittings.length >= MOST_LISTENERS)
          throw new Failure('too-many', `A panel has ${MOST_LISTENERS} listeners at most.`);
        const { isNew } = await ensureSitting(tx, row.id, await ensureListener(tx, command.name), newKey(), newSecret()); // prettier-ignore
        if (!isNew) throw new Failure('answer-refused', `${command.name} is here already.`);
        return [];
      }
      case 'add':
        await this.add(tx, panel, command.specimen);
        return [];
      case 'take':
        await this.link(tx, panel, command.item, command.take);
        return [];
    }
  }

  /** Orders of a turn count from its closing on. */
  private async count(tx: Queryable, { row, test, items, sittings }: OpenedPanel, turn: PanelTurn): Promise<string[]> {
    for (const { sitting, trial, answer } of panelTrials(turn)) {
      const listenerId = sittings.find((s) => s.id === sitting)?.listener_id;
      if (listenerId === undefined) continue;
      const from = (await trialsOfSitting(tx, sitting)).length;
      await addTrials(tx, sitting, from, [trial]);
      const { id: trialId } = (await trialsOfSitting(tx, sitting))[from];
      await answerTrial(tx, trialId, answer, {}, 0, this.clock.now());
      await keepHeard(tx, { test, day: row.day, items }, { trialId, listenerId, trial, answer });
      await finishSitting(tx, sitting, this.clock.now());
    }
    return items.flatMap((i) => (turn.items.includes(i.id) ? [i.specimen_id] : []));
  }

  private async said(
    tx: Queryable,
    { row, state, items, sittings }: OpenedPanel,
    { sitting, ...said }: PanelCommand & { kind: 'said' },
  ): Promise<string[]> {
    const panelEntryId = await insertPanelEntry(tx, { testId: row.id, sitting, at: this.clock.now() }, said);
    const itemId = atLetter(state.turns[said.turn - 1].items, said.letter);
    const specimenId = items.find((i) => i.id === itemId)?.specimen_id;
    if (specimenId === undefined) return [];
    const listenerId = sittings.find((s) => s.id === sitting)?.listener_id ?? null;
    await insertWords(tx, { trialId: null, panelEntryId, listenerId, specimenId, day: row.day }, said);
    return [specimenId];
  }

  private async add(tx: Queryable, { row, test, settings, items }: OpenedPanel, specimen: string): Promise<void> {
    if (settings.source === 'played')
      throw new Failure('answer-refused', 'Clips are matched before the panel begins: a unit without one cannot join.');
    const unit = (await unitsById(tx, [specimen])).at(0);
    if (unit?.category !== test.category)
      throw new Failure('answer-refused', 'There is no such unit of the kind that is heard here.');
    if (items.some((i) => i.specimen_id === specimen))
      throw new Failure('answer-refused', `${unit.name} is in this panel already.`);
    if (items.length >= MOST_UNITS) throw new Failure('too-many', `A panel has ${MOST_UNITS} units at most.`);
    await insertItem(tx, {
      test_id: row.id,
      ordinal: items.length,
      specimen_id: specimen,
      take_id: null,
      role: 'unit',
    });
  }

  private async link(
    tx: Queryable,
    { settings, items }: OpenedPanel,
    item: string,
    take: string | null,
  ): Promise<void> {
    if (settings.source === 'played')
      throw new Failure('answer-refused', 'The clips that are played are the takes of this panel already.');
    const specimen = items.find((i) => i.id === item)?.specimen_id ?? '';
    if (take !== null && !(await takesOfUnits(tx, [specimen])).some((t) => t.id === take))
      throw new Failure('answer-refused', 'This unit has no such take.');
    await setItemTake(tx, item, take);
  }

  private async sittingOf(key: string): Promise<SittingRow> {
    const sitting = await findSitting(this.database, key);
    if (!sitting) throw new Failure('not-found', 'There is no sitting behind this link.');
    return sitting;
  }

  private async open(db: Queryable, id: string): Promise<OpenedPanel> {
    const row = await mustFindTest(db, id);
    const test = newTestSchema.parse(row.document);
    if (test.panel === null) throw new Failure('invalid-request', 'This test is no live panel.');
    const items = await itemsOfTest(db, id);
    return {
      row,
      test,
      settings: test.panel,
      items,
      sittings: await sittingsOfTest(db, id),
      state: await readPanel(db, id),
      rules: { items: items.filter(isRanked).map((i) => i.id), heatSize: test.heatSize, goOn: test.panel.goOn },
    };
  }

  private async pageOf({ row, test, settings, items, sittings, state, rules }: OpenedPanel): Promise<PanelPage> {
    const isPerformed = settings.source === 'performed';
    // Who goes on was decided by all who were there; when it is over, the tables say what counts.
    const leftOut = new Set(row.status === 'open' ? [] : sittings.flatMap((s) => (s.left_out === null ? [] : [s.id])));
    const takes = isPerformed ? await takesOfUnits(this.database, items.map((i) => i.specimen_id)) : []; // prettier-ignore
    return {
      testId: row.id,
      name: test.name,
      question: questionOf(test),
      invitation: row.invitation,
      isOpen: row.status === 'open',
      length: state.length + items.length + sittings.length + (row.status === 'open' ? 0 : 1),
      settings,
      category: test.category satisfies Category,
      items: items.map((i) => ({
        id: i.id,
        specimenId: i.specimen_id,
        name: i.name,
        takeId: i.take_id,
        takes: takes.flatMap((t) => (t.specimen_id === i.specimen_id ? [{ id: t.id, name: `${t.title}, ${t.day}` }] : [])), // prettier-ignore
      })),
      listeners: sittings.map((s) => ({ sitting: s.id, name: s.listener, isOut: s.left_out !== null })),
      turns: state.turns.map((t) => ({
        ...t,
        title: turnTitle(t, state),
        items: [...t.items],
        heard: { ...t.heard } as Record<string, number>,
        wishes: [...t.wishes],
        orders: [...t.orders].map(([sitting, order]) => ({ sitting, items: [...order] })),
      })),
      tables: panelTables(state, leftOut).map((t) => ({ turn: t.turn, rows: [...t.rows] })),
      notes: [...state.notes],
      offers: row.status === 'open' ? panelOffers(state, rules) : NO_OFFERS,
    };
  }
}

/** As many as a test of any other design holds. */
const MOST_UNITS = 40;

const questionOf = (test: NewTest): string => QUESTIONS[test.attribute];

/** What a listener does is theirs, whatever their page says. */
function withSitting(command: SeatCommand, sitting: string): PanelCommand {
  return command.kind === 'take-back' ? command : { ...command, sitting };
}
