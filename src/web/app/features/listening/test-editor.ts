import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { MultiSelect } from 'primeng/multiselect';
import { catchError, of, switchMap } from 'rxjs';
import { PACK_ASKS, type PackAsk, type PackSettings } from '#contracts/blind-pack';
import type { Category } from '#contracts/common';
import type { CompareCandidate } from '#contracts/compare';
import { ATTRIBUTES, DESIGNS, newTestSchema, type Design, type NewTestDraft } from '#contracts/listening';
import { PANEL_SOURCES, type PanelSettings } from '#contracts/live-panel';
import type { Problem } from '#contracts/problem';
import { unitName } from '#contracts/unit-name';
import { TickField } from '../../ui/field/tick-field';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { stepChoices } from '../../data/choices';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { ListeningData, type HeardStep } from '../../data/listening';
import { ProblemBox } from '../../ui/problem-box';
import { laneTitle } from '../../ui/lane-title';
import { kindName, today } from '../../ui/format';
import { ATTRIBUTE_NAMES, DESIGN_NAMES, PANEL_SOURCE_NAMES } from './design-words';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS } from '../../ui/field/number-sheets';
import { DateField } from '../../ui/field/date-field';
import { PACK_ASK_NAMES, withAsk, withPack } from './pack-draft';
import { asSent, isPerformed, withDesign } from './test-draft';
import { Refusals } from '../../ui/field/refusals';

/** Sets up a test: design, question, clips. Everything else is prepared by itself. */
@Component({
  selector: 'sd-test-editor',
  imports: [Button, ChoiceField, DateField, FormsModule, MultiSelect, NumberField, ProblemBox, RouterLink, TextField, TickField], // prettier-ignore
  templateUrl: './test-editor.html',
  styleUrl: './listening.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TestEditor {
  protected readonly sheets = SHEETS;
  /** Takes to begin with, from a comparison. */
  readonly takes = input<string>();
  /** Design, step and kind of what is compared, and what two takes of one unit are to each other. */
  readonly design = input<string>();
  readonly category = input<string>();
  readonly fromStep = input<string>();
  readonly pair = input<string>();
  private readonly data = inject(ListeningData);
  private readonly refusals = inject(Refusals);
  private readonly router = inject(Router);

  protected readonly problem = signal<Problem | null>(null);
  protected readonly isBusy = signal(false);
  protected readonly steps = toSignal(this.data.steps().pipe(catchError(() => of([] as HeardStep[]))), {
    initialValue: [] as HeardStep[],
  });
  protected readonly stepChoices = computed(() => stepChoices(this.steps()));
  protected readonly step = signal<HeardStep | null>(null);
  protected readonly all = signal<readonly CompareCandidate[]>([]);
  protected readonly draft = signal<NewTestDraft>({ name: `Test of ${today()}`, design: 'heats', takes: [] });

  protected readonly designs = DESIGNS.map((value) => ({ value, label: DESIGN_NAMES[value].name }));
  protected readonly askNames = PACK_ASKS.map((value) => ({ value, label: PACK_ASK_NAMES[value] }));
  protected readonly attributes = ATTRIBUTES.map((value) => ({ value, label: ATTRIBUTE_NAMES[value] }));
  protected readonly designWords = computed(() => DESIGN_NAMES[this.draft().design].does);
  /** The newest clip of each unit. */
  protected readonly options = computed(() => {
    const seen = new Set<string>();
    return this.all().flatMap((c) => {
      if ((seen.has(c.specimenId) || c.isProcessed) && !this.draft().takes.includes(c.takeId)) return [];
      seen.add(c.specimenId);
      return [{ value: c.takeId, label: laneTitle(c), note: `${c.date}, ${Math.round(c.durationS)} s` }];
    });
  });
  protected readonly yardsticks = computed(() => [
    { value: null as string | null, label: 'none' },
    ...this.options().map(({ value, label }) => ({ value: value, label })),
  ]);
  /** Of what is performed in the room: any unit of the kind, measured or not. */
  private readonly gear = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  private readonly chosenKind = signal<Category | null>(null);
  private readonly kinds = computed(() => [...new Set((this.gear().value ?? []).map((u) => u.category))]);
  protected readonly kind = computed(() => {
    const kinds = this.kinds();
    return this.chosenKind() ?? (kinds.includes('microphone') ? 'microphone' : (kinds.at(0) ?? 'microphone'));
  });
  protected readonly kindChoices = computed(() => this.kinds().map((value) => ({ value, label: kindName(value) })));
  protected readonly hasNoUnits = computed(() => this.gear().value !== null && this.kinds().length === 0);
  protected readonly unitOptions = computed(() =>
    (this.gear().value ?? [])
      .filter((u) => u.category === this.kind())
      .map((u) => ({ value: u.id, label: unitName(u) })),
  );
  protected readonly performed = computed(() => isPerformed(this.draft()));
  protected readonly sources = PANEL_SOURCES.map((value) => ({ value, label: PANEL_SOURCE_NAMES[value] }));
  /** What is still wrong, in words; empty when the test can be prepared. */
  protected readonly faults = computed(() => {
    const parsed = newTestSchema.safeParse(this.full());
    return parsed.success ? [] : [...new Set(parsed.error.issues.map((i) => i.message))];
  });
  protected readonly length = computed(() => {
    const { takes, design, heatSize = 4, trials = 16 } = this.draft();
    const n = takes.length;
    switch (design) {
      case 'pairs':
        return `${(n * (n - 1)) / 2} pairs per listener`;
      case 'heats':
        return n > heatSize ? `${Math.ceil(n / heatSize)} heats, then the winners` : 'one heat';
      case 'abx':
        return this.draft().openEnded ? 'until it is decided, 60 trials at most' : `${trials} trials`;
      case 'ratings':
        return `one trial with ${n + 2} clips and the open reference`;
      case 'names':
        return `one trial with ${n} names`;
      case 'performer':
        return 'no clips: performed live';
      case 'panel': {
        const all = isPerformed(this.draft()) ? (this.draft().units?.length ?? 0) : n;
        return all > heatSize ? 'heats are drawn as they are heard, then the winners meet' : 'one heat';
      }
      case 'pack':
        return `${n + (asSent(this.draft()).controls === false ? 0 : 1)} clips under code names`;
    }
  });

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Listening', link: '/listening' },
      { label: 'New test', link: null },
    ]);
    inject(ScreenKeys).hints.set([]);
    effect(() => {
      // Speech of the category with most units is what most tests are about.
      if (this.step() !== null || this.steps().length === 0) return;
      const asked = this.steps().find((s) => s.step === this.fromStep() && s.category === this.category());
      this.step.set(asked ?? this.steps().find((s) => s.step === 'speech') ?? this.steps()[0]);
    });
    effect(() => {
      const takes = (this.takes() ?? '').split(',').filter((t) => /^\d+$/.test(t));
      if (takes.length > 0) this.change({ takes });
      const design = DESIGNS.find((d) => d === this.design());
      if (design) this.changeDesign(design);
      const pair = this.pair();
      if (pair) this.change({ name: pair });
    });
    toObservable(this.step)
      .pipe(
        switchMap((step) =>
          step ? this.data.candidates(step.category, step.step).pipe(catchError(() => of([]))) : of([]),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((list) => this.all.set(list));
  }

  private full(): NewTestDraft {
    const category = isPerformed(this.draft())
      ? this.kind()
      : ((this.pair() ? this.category() : undefined) ?? this.step()?.category ?? 'microphone');
    return asSent({ ...this.draft(), category });
  }

  protected change(part: Partial<NewTestDraft>): void {
    this.draft.update((d) => ({ ...d, ...part }));
  }

  protected changeStep(step: HeardStep): void {
    this.step.set(step);
    this.change({ takes: [], yardstick: null });
  }

  protected changeDesign(design: Design): void {
    this.draft.update((d) => withDesign(d, design, today()));
  }

  protected asks(ask: PackAsk): boolean {
    return this.draft().pack?.asks.includes(ask) ?? false;
  }

  protected changeAsk(ask: PackAsk, isAsked: boolean): void {
    this.draft.update((d) => withAsk(d, ask, isAsked, today()));
  }

  protected changePack(part: Partial<PackSettings>): void {
    this.draft.update((d) => withPack(d, part, today()));
  }

  protected changeKind(kind: Category): void {
    this.chosenKind.set(kind);
    this.change({ units: [] });
  }

  protected changePanel(part: Partial<PanelSettings>): void {
    this.draft.update((d) => ({ ...d, panel: { source: 'performed', goOn: 1, ...d.panel, ...part } }));
  }

  protected changePassage(part: Partial<{ fromS: number; lengthS: number }>): void {
    const { fromS = 0, lengthS = 12 } = { ...this.draft().passage, ...part };
    this.change({ passage: { fromS, lengthS } });
  }

  protected create(): void {
    if (this.refusals.stop()) return;
    this.isBusy.set(true);
    this.data.create(this.full()).subscribe({
      next: (page) => void this.router.navigate(['/listening', page.row.id]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.problem.set(problemOf(error));
      },
    });
  }
}
