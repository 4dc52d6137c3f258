import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { EMPTY, catchError, of, switchMap } from 'rxjs';
import { criterionPoints, type UnitFacts } from '#core/rules/criterion-points';
import { isGivenByHand, PRICE_KINDS, type Criterion, type PriceKind } from '#core/rules/rubric';
import { quantity } from '#core/measure/registry';
import type { Problem } from '#contracts/problem';
import type { Change } from '#contracts/correction';
import type { TakeSettings } from '#contracts/session-plan';
import type { Run, SpecimenSheet, Take } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CorrectionData } from '../../data/corrections';
import { CatalogueData, currentPoints } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { Ranker } from '../../data/ranker';
import { ClipPlayer } from '../../ui/clip-player';
import { Figure } from '../../ui/figure';
import { CATEGORY_NAMES, formatNumber, formatPrice, today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { Whisker, scaleAround } from '../../ui/whisker';
import { nameOf, standingSentences } from '../ranking/standing';
import { countingRun, priceGap } from './counting-run';
import { MeasuredPart } from './measured-part';
import { RunTable } from './run-table';
import { takeNotes, takeSetup } from './take-notes';
import { RunCorrections } from './run-corrections';
import { changeOfTake, settingsOfTake } from './take-change';
import { UnitCorrections } from './unit-corrections';
import { TakeSettingsForm } from '../../ui/take-settings-form';
import { UnitEvents } from './unit-events';
import { UnitHeard } from './unit-heard';
import { NumberField } from '../../ui/number-field';
import { SHEETS, priceSheet } from '../../ui/number-sheets';
import { Refusals } from '../../ui/refusals';

/** A sheet has all its parts after this time. */
const SETTLING_MS = 5_000;
/** By these somebody takes over. */
const TOUCHES = ['wheel', 'keydown', 'pointerdown', 'touchmove'] as const;
/** Neighbours shown to either side. */
const NEIGHBOURS = 3;
const SOURCE_WORDS: Readonly<Record<string, string>> = {
  bought: 'bought',
  lent: 'lent',
  sent: 'sent by the maker',
  own: 'own',
};

/** A price while it is corrected. */
interface PriceDraft {
  readonly id: string;
  readonly amount: number | null;
  readonly currency: string;
  readonly kind: PriceKind;
  readonly date: string;
}

/** One unit as a long sheet in the order of the work. */
@Component({
  selector: 'sd-unit',
  imports: [
    Button,
    ClipPlayer,
    Dialog,
    Figure,
    FormsModule,
    InputText,
    MeasuredPart,
    NumberField,
    ProblemBox,
    RouterLink,
    RunCorrections,
    RunTable,
    Select,
    TakeSettingsForm,
    UnitCorrections,
    UnitEvents,
    UnitHeard,
    Whisker,
  ],
  templateUrl: './unit.html',
  styleUrl: './unit.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Unit {
  protected readonly sheets = SHEETS;
  protected readonly priceSheet = priceSheet;
  readonly id = input.required<string>();

  private readonly data = inject(CatalogueData);
  private readonly corrections = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  private readonly ranker = inject(Ranker);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.sheet(id))), {
    initialValue: LOADING,
  });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly sheet = computed(() => this.loaded().value);
  protected readonly name = computed(() => {
    const row = this.sheet()?.row;
    return row ? unitName(row) : '';
  });

  /** Kind of gear to rank it among; null where there are no rules for it. */
  private readonly rankedAs = computed(() => {
    const row = this.sheet()?.row;
    return row?.hasRules ? row.category : null;
  });
  protected readonly inputs = toSignal(
    toObservable(this.rankedAs).pipe(
      switchMap((category) => (category === null ? of(LOADING) : this.data.rankingInputs(category))),
    ),
    { initialValue: LOADING },
  );
  protected readonly rubric = computed(() => this.inputs().value?.rubric ?? null);
  /** What counts: of every figure the newest, of the unit's own runs. */
  protected readonly counting = computed(() => countingRun(this.sheet()?.runs ?? []));
  private readonly ranked = toSignal(
    toObservable(this.inputs).pipe(
      switchMap(({ value }) =>
        value ? this.ranker.rank(value, value.rubric.weights).pipe(catchError(() => EMPTY)) : EMPTY,
      ),
    ),
    { initialValue: [] },
  );
  protected readonly standing = computed(() => this.ranked().find((u) => u.id === this.id()) ?? null);
  protected readonly neighbours = computed(() => {
    const place = this.standing()?.place;
    return place === undefined ? [] : this.ranked().filter((u) => Math.abs(u.place - place) <= NEIGHBOURS);
  });
  protected readonly scale = computed(() => scaleAround(this.neighbours().map((u) => u.composite90)));
  protected readonly sentences = computed(() => {
    const unit = this.standing();
    const names = this.inputs().value?.names;
    if (!unit || !names) return [];
    return standingSentences(
      unit,
      this.ranked(),
      names,
      new Map(this.rubric()?.criteria.map((c) => [c.id, c.name]) ?? []),
    );
  });

  /** Facts of this unit alone, for the points by rule. */
  private readonly facts = computed<UnitFacts | null>(
    () => this.inputs().value?.units.find((u) => u.id === this.id()) ?? null,
  );
  protected readonly pointRows = computed(() => {
    const facts = this.facts() ?? this.bareFacts();
    const given = currentPoints(this.sheet()?.points ?? []);
    return (this.rubric()?.criteria ?? []).map((criterion) => ({
      criterion,
      ...criterionPoints(criterion, facts),
      date: given.get(criterion.id)?.date ?? null,
      weight: this.rubric()?.weights[criterion.id] ?? 0,
    }));
  });
  protected readonly earlierPoints = computed(() => {
    const seen = new Set<string>();
    return (this.sheet()?.points ?? []).filter((p) => {
      const isCurrent = !seen.has(p.criterion);
      seen.add(p.criterion);
      return !isCurrent;
    });
  });

  protected readonly outline = computed(() => {
    const sheet = this.sheet();
    if (!sheet) return [];
    const takes = sheet.runs.flatMap((r) => r.takes);
    const figures = this.counting()?.run.measurements ?? [];
    const missingFigures = figures.filter((m) => m.value === null).length;
    const failed = takes.filter((t) => t.analysis.status === 'failed').length;
    const missingPoints = sheet.row.missingPoints.length;
    return [
      { id: 'intake', label: 'Intake', missing: '' },
      { id: 'prices', label: 'Prices', missing: priceGap(sheet.prices, this.rubric()) },
      { id: 'takes', label: 'Takes', missing: takes.length === 0 ? 'no takes' : failed > 0 ? `${failed} failed` : '' },
      {
        id: 'measured',
        label: 'Measured',
        missing: figures.length === 0 ? 'no figures' : missingFigures > 0 ? `${missingFigures} missing` : '',
      },
      { id: 'heard', label: 'Heard', missing: sheet.row.heardAnswers === 0 ? 'by nobody yet' : '' },
      {
        id: 'points',
        label: 'Points',
        missing: !sheet.row.hasRules ? 'no rules yet' : missingPoints > 0 ? `${missingPoints} missing` : '',
      },
      { id: 'place', label: 'Place', missing: sheet.row.place === null ? 'not ranked' : '' },
    ];
  });

  protected readonly actionProblem = signal<Problem | null>(null);
  protected readonly editing = signal<string | null>(null);
  protected readonly draftPoints = signal<number | null>(null);
  protected readonly draftReason = signal('');
  /** A correction that is being filled in. */
  protected readonly renaming = signal<{ maker: string; model: string; label: string } | null>(null);
  protected readonly repricing = signal<PriceDraft | null>(null);
  protected readonly retaking = signal<{ take: Take; settings: TakeSettings; note: string } | null>(null);
  protected readonly newAmount = signal<number | null>(null);
  protected readonly newCurrency = signal('EUR');
  protected readonly newKind = signal<PriceKind>('street');
  protected readonly newDate = signal(today());

  protected readonly priceKinds = PRICE_KINDS.map((value) => ({ label: value, value }));
  protected readonly categoryNames = CATEGORY_NAMES;
  protected readonly number = formatNumber;
  protected readonly isGivenByHand = isGivenByHand;
  protected readonly kindName = ({ kind }: Criterion): string =>
    ({ 'by-hand': 'by hand', heard: 'heard and by hand', measured: 'by rule', price: 'by rule' })[kind];
  protected readonly price = formatPrice;
  protected readonly notes = takeNotes;
  protected readonly setup = takeSetup;
  protected readonly quantityName = (id: Parameters<typeof quantity>[0]): string => quantity(id).name;
  protected readonly sourceWords = (source: string): string => SOURCE_WORDS[source] ?? source;

  /** What a run was for, and on which rig. */
  protected runWords(run: Run): string {
    const purpose = { opening: 'opened the session', unit: '', closing: 'closed the session' }[run.purpose];
    return [purpose, run.rig ? `rig: ${run.rig}` : ''].filter((x) => x !== '').join(' · ');
  }

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() =>
      breadcrumb.crumbs.set([
        { label: 'Gear', link: '/gear' },
        { label: this.name() || 'Unit', link: null },
      ]),
    );
    inject(ScreenKeys).hints.set([
      { keys: 'Tab', does: 'Walk the outline, then the sheet' },
      { keys: 'Enter', does: 'Play a take, save a value' },
    ]);
    let scrolledFor = '';
    effect(() => {
      // The fragment of the address names a section that is only there once the sheet is.
      const fragment = location.hash.slice(1);
      if (!this.sheet() || !fragment || scrolledFor === this.id()) return;
      scrolledFor = this.id();
      setTimeout(() => this.stayAt(fragment));
    });
    inject(DestroyRef).onDestroy(() => this.leave());
  }

  /**
   * Keeps a section in view while what stands above it is still coming in and pushes it down, until somebody scrolls or
   * types.
   */
  private stayAt(fragment: string): void {
    this.leave();
    const sheet = document.querySelector('sd-unit .sheet');
    this.jump(fragment);
    if (!sheet) return;
    const observer = new ResizeObserver(() => this.jump(fragment));
    observer.observe(sheet);
    const leave = (): void => this.leave();
    const timer = setTimeout(leave, SETTLING_MS);
    for (const event of TOUCHES) window.addEventListener(event, leave, { once: true, passive: true });
    this.leave = () => {
      observer.disconnect();
      clearTimeout(timer);
      for (const event of TOUCHES) window.removeEventListener(event, leave);
      this.leave = () => undefined;
    };
  }

  private leave: () => void = () => undefined;

  /** Whether all its takes are halves of pairs. */
  protected isPaired(run: Run): boolean {
    return run.takes.length > 0 && run.takes.every((t) => t.analysis.status === 'done');
  }

  protected neighbourName(id: string): string {
    const names = this.inputs().value?.names;
    return names?.[id] ? nameOf(names, id) : id;
  }

  protected jump(id: string): void {
    document.getElementById(id)?.scrollIntoView({ block: 'start' });
  }

  protected edit(criterion: Criterion): void {
    const given = currentPoints(this.sheet()?.points ?? []).get(criterion.id);
    this.editing.set(criterion.id);
    this.draftPoints.set(given?.value ?? null);
    this.draftReason.set(given?.reason ?? '');
  }

  protected savePoints(criterion: Criterion): void {
    const value = this.draftPoints();
    if (value === null || this.refusals.stop()) return;
    const reason = this.draftReason().trim();
    this.act(this.data.givePoints(this.id(), { criterion: criterion.id, value, ...(reason ? { reason } : {}) }), () =>
      this.editing.set(null),
    );
  }

  protected savePrice(): void {
    const amount = this.newAmount();
    if (amount === null || this.refusals.stop()) return;
    const price = {
      amount,
      currency: this.newCurrency().trim().toUpperCase(),
      kind: this.newKind(),
      date: this.newDate(),
    };
    this.act(this.data.notePrice(this.id(), price), () => this.newAmount.set(null));
  }

  protected startRenaming(): void {
    const row = this.sheet()?.row;
    if (row) this.renaming.set({ maker: row.maker, model: row.model, label: row.label });
  }

  protected changeName(part: Partial<{ maker: string; model: string; label: string }>): void {
    this.renaming.update((n) => n && { ...n, ...part });
  }

  protected saveName(): void {
    const names = this.renaming();
    if (names) this.correct({ kind: 'unit-name', unit: this.id(), ...names }, () => this.renaming.set(null));
  }

  protected startRepricing(price: SpecimenSheet['prices'][number]): void {
    const { id, amount, currency, kind, date } = price;
    this.repricing.set({ id, amount, currency, kind, date });
  }

  protected changePrice(part: Partial<PriceDraft>): void {
    this.repricing.update((p) => p && { ...p, ...part });
  }

  protected savePriceCorrection(): void {
    const price = this.repricing();
    if (!price || price.amount === null || this.refusals.stop()) return;
    const { id, amount, currency, kind, date } = price;
    const code = currency.trim().toUpperCase();
    this.correct({ kind: 'price', price: id, amount, currency: code, priceKind: kind, date }, () =>
      this.repricing.set(null),
    );
  }

  protected startRetaking(take: Take): void {
    this.retaking.set({ take, settings: settingsOfTake(take), note: take.note });
  }

  protected changeRetaking(part: Partial<{ settings: TakeSettings; note: string }>): void {
    this.retaking.update((r) => r && { ...r, ...part });
  }

  protected saveTake(): void {
    const draft = this.retaking();
    if (!draft || this.refusals.stop()) return;
    const change = changeOfTake(draft.take, draft.settings, draft.note);
    if (change) this.correct(change, () => this.retaking.set(null));
  }

  /** Every correction is kept with what stood before it; the list below has its way back. */
  protected correct(change: Change, done: () => void = () => undefined): void {
    this.act(this.corrections.correct(change), done);
  }

  protected retry(take: Take): void {
    this.act(this.data.retry(take.analysis.id), () => undefined);
  }

  protected setOnDesk(onDesk: boolean): void {
    this.act(this.data.setOnDesk(this.id(), onDesk), () => undefined);
  }

  private act(call: ReturnType<CatalogueData['retry']>, done: () => void): void {
    this.actionProblem.set(null);
    call.subscribe({ next: done, error: (error: unknown) => this.actionProblem.set(problemOf(error)) });
  }

  /** A unit that is not in the ranking yet can already have prices and points. */
  private bareFacts(): UnitFacts {
    const sheet = this.sheet();
    const byHand = Object.fromEntries(
      [...currentPoints(sheet?.points ?? [])].map(([id, p]) => [id, { value: p.value, reason: p.reason }]),
    );
    return { id: this.id(), figures: {}, byHand, prices: sheet?.prices ?? [] };
  }
}
