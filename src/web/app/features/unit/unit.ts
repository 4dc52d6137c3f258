import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { EMPTY, catchError, of, switchMap, tap } from 'rxjs';
import { gearKind } from '#core/gear/kinds';
import type { UnitFacts } from '#core/rules/criterion-points';
import { quantity } from '#core/measure/registry';
import { countedCurrency } from '#core/rules/rubric';
import type { HeardPair } from '#contracts/curves';
import type { Change } from '#contracts/correction';
import type { Removal } from '#contracts/removal';
import type { Run, Take } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { Breadcrumb } from '../../data/breadcrumb';
import { CorrectionData } from '../../data/corrections';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { Ranker } from '../../data/ranker';
import { Saving } from '../../data/saving';
import { ClipPlayer } from '../../ui/clip-player';
import { Figure } from '../../ui/figure';
import { formatNumber, kindName } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { TakeCorrectionDialog, type NotedTake } from '../../ui/take-correction-dialog';
import { countingRun } from '#domain/catalogue/counting-run';
import { HistoryList } from './history-list';
import { MeasuredPart } from './measured-part';
import { PriceToUse } from './price-to-use';
import { RemovalDialog, type Unwanted } from './removal-dialog';
import { RunTables } from './run-tables';
import { sheetOutline } from './sheet-outline';
import { stayInView } from './stay-in-view';
import { changeOfTake, settingsOfTake } from './take-change';
import { sharedNotes, type SharedNote } from './take-notes';
import { TakeFile } from './take-file';
import { TakeRow } from './take-row';
import { RunCorrections } from './run-corrections';
import { UnitAnswers } from './unit-answers';
import { UnitCorrections } from './unit-corrections';
import { UnitEvents } from './unit-events';
import { UnitCharacter } from './unit-character';
import { UnitHeard } from './unit-heard';
import { UnitMerge } from './unit-merge';
import { UnitName } from './unit-name';
import { UnitPhotos } from './unit-photos';
import { UnitPlace } from './unit-place';
import { UnitPoints } from './unit-points';
import { UnitPrices } from './unit-prices';
import { UnitRelations } from './unit-relations';
import { UnitSheet } from './unit-sheet';
import { UnitReviews } from './unit-reviews';
import { UnitSummary } from './unit-summary';
import { whyNotRanked } from './why-not-ranked';
import { UnitVariants } from './unit-variants';

/** One unit as a long sheet in the order of the work. */
@Component({
  selector: 'sd-unit',
  imports: [
    Button,
    ClipPlayer,
    Figure,
    HistoryList,
    MeasuredPart,
    PriceToUse,
    ProblemBox,
    RemovalDialog,
    RouterLink,
    RunCorrections,
    RunTables,
    TakeCorrectionDialog,
    TakeFile,
    TakeRow,
    UnitAnswers,
    UnitCorrections,
    UnitEvents,
    UnitCharacter,
    UnitHeard,
    UnitMerge,
    UnitName,
    UnitPhotos,
    UnitPlace,
    UnitPoints,
    UnitPrices,
    UnitRelations,
    UnitSheet,
    UnitReviews,
    UnitSummary,
    UnitVariants,
  ],
  templateUrl: './unit.html',
  styleUrl: './unit.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Unit {
  readonly id = input.required<string>();

  private readonly router = inject(Router);
  private readonly data = inject(CatalogueData);
  private readonly corrections = inject(CorrectionData);
  private readonly ranker = inject(Ranker);
  /** Set while this unit is being deleted: nothing is asked about it any more, or the answer would be that it is not there. */
  private readonly goes = signal(false);
  private readonly asked = computed(() => (this.goes() ? null : this.id()));
  private readonly loaded = toSignal(
    toObservable(this.asked).pipe(
      switchMap((id) =>
        id === null
          ? of(LOADING)
          : this.data.sheet(id).pipe(
              // A unit that was merged into another one is that one.
              tap(({ value }) => value && value.row.id !== id && void this.goTo(value.row.id)),
            ),
      ),
    ),
    { initialValue: LOADING },
  );
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
  protected readonly currency = computed(() => {
    const rubric = this.rubric();
    return rubric && countedCurrency(rubric);
  });
  /** What counts: of every figure the newest, of the unit's own runs. */
  protected readonly counting = computed(() => countingRun(this.sheet()?.runs ?? []));
  protected readonly ranked = toSignal(
    toObservable(this.inputs).pipe(
      switchMap(({ value }) =>
        value ? this.ranker.rank(value, value.rubric.weights).pipe(catchError(() => EMPTY)) : EMPTY,
      ),
    ),
    { initialValue: [] },
  );
  protected readonly standing = computed(() => this.ranked().find((u) => u.id === this.id()) ?? null);
  /** Facts of this unit alone, for the points by rule. */
  protected readonly facts = computed<UnitFacts | null>(
    () => this.inputs().value?.units.find((u) => u.id === this.id()) ?? null,
  );
  protected readonly outline = computed(() => {
    const sheet = this.sheet();
    return sheet ? sheetOutline(sheet, this.rubric()) : [];
  });

  protected readonly saving = new Saving();
  /** Take of which something is corrected. */
  protected readonly retaking = signal<Take | null>(null);
  protected readonly noted = computed<NotedTake | null>(() => {
    const take = this.retaking();
    return take && { name: take.stepTitle, settings: settingsOfTake(take), note: take.note };
  });

  /** What somebody wants to delete for good. */
  protected readonly unwanted = signal<Unwanted | null>(null);

  protected readonly kindName = kindName;
  protected readonly whyNot = whyNotRanked;
  protected readonly number = formatNumber;
  protected readonly quantityName = (id: Parameters<typeof quantity>[0]): string => quantity(id).name;

  private readonly sharedOf = computed(
    () => new Map((this.sheet()?.runs ?? []).map((run) => [run.id, sharedNotes(run.takes)])),
  );
  /** Findings that most takes of a run have in common. */
  protected readonly shared = (run: Run): readonly SharedNote[] => this.sharedOf().get(run.id) ?? [];

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

  private stayAt(fragment: string): void {
    this.leave();
    const sheet = document.querySelector('sd-unit .sheet');
    if (sheet) this.leave = stayInView(sheet, () => this.jump(fragment));
  }

  private leave: () => void = () => undefined;

  /** With and without something: those that a take is half of, the plain setting first. */
  protected pairsWith({ curves }: Run, { id }: Take): HeardPair[] {
    return curves.pairs.flatMap((g) => g.takes).filter((p) => p.fitted === id || p.without === id);
  }

  /** What a take may have of its own; the step that says so is of the protocol. */
  protected readonly allLevels = ['levelDbu', 'levelDbSpl', 'windSpeedMs'] as const;

  /** Whether it makes no sound of its own. */
  protected readonly needsPairs = computed(() => {
    const row = this.sheet()?.row;
    return row !== undefined && gearKind(row.category).isHeardThroughAnother;
  });

  protected isMeasured(run: Run): boolean {
    return run.takes.length > 0 && run.takes.every((t) => t.analysis.status === 'done');
  }

  protected jump(id: string): void {
    document.getElementById(id)?.scrollIntoView({ block: 'start' });
  }

  /** Every correction is kept with what stood before it; the list below has its way back. */
  protected correct(change: Change): void {
    this.saving.run(this.corrections.correct(change));
  }

  protected saveTake({ settings, note }: NotedTake): void {
    const take = this.retaking();
    const change = take && changeOfTake(take, settings, note);
    if (change) this.saving.run(this.corrections.correct(change), () => this.retaking.set(null));
  }

  protected retry(take: Take): void {
    this.saving.run(this.data.retry(take.analysis.id));
  }

  protected runOf(take: Take): Run | undefined {
    return this.sheet()?.runs.find((r) => r.takes.some((t) => t.id === take.id));
  }

  protected removeTake(take: Take): void {
    this.retaking.set(null);
    this.unwanted.set({ what: 'take', id: take.id });
  }

  protected whileDeleting(isDeleting: boolean): void {
    this.goes.set(isDeleting && this.unwanted()?.what === 'unit');
  }

  protected afterRemoval({ what }: Removal): void {
    this.unwanted.set(null);
    if (what === 'unit') void this.router.navigate(['/gear']);
  }

  protected goTo(id: string): Promise<boolean> {
    return this.router.navigate(['/gear', id], { replaceUrl: true });
  }

  protected setOnDesk(onDesk: boolean): void {
    this.saving.run(this.data.setOnDesk(this.id(), onDesk));
  }
}
