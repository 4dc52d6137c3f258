import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { tasteWords } from '#core/rules/listening/plain-words';
import { categorySchema, type Category } from '#contracts/common';
import { ATTRIBUTES } from '#contracts/listening';
import type { Problem } from '#contracts/problem';
import { scaleRequestSchema, type ScaleRequest } from '#contracts/scale';
import { unitName } from '#contracts/unit-name';
import { ChoiceField } from '../../ui/field/choice-field';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { kindChoices } from '../../data/choices';
import { readClasses, unitsOfClasses } from '../../data/class-filter';
import { ScreenKeys } from '../../data/keys';
import { ListeningData } from '../../data/listening';
import { LOADING } from '../../data/loaded';
import { formatNumber, plusMinus } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { WorthWhisker, worthScaleAround } from '../../ui/worth-whisker';
import { ATTRIBUTE_NAMES } from '../listening/design-words';
import { ClassFields } from '../../ui/class-fields';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS } from '../../ui/field/number-sheets';
import { percentOn, ticksOf } from '../../ui/whisker';

/** All answers of all tests as one scale: who stands where, how sure that is, and what holds it together. */
@Component({
  selector: 'sd-scale',
  imports: [ChoiceField, ClassFields, NumberField, ProblemBox, RouterLink, WorthWhisker],
  templateUrl: './scale.html',
  styleUrl: './scale.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScalePage {
  protected readonly sheets = SHEETS;
  private readonly data = inject(ListeningData);
  private readonly router = inject(Router);
  /** ?kind=… is the kind of gear whose scale is shown. */
  readonly kind = input<string>();
  /** ?is=… are the classes that are shown. */
  readonly is = input<string>();
  protected readonly kinds = kindChoices();
  private readonly asked = signal<ScaleRequest>(scaleRequestSchema.parse({}));
  private readonly category = computed<Category>(
    () => categorySchema.safeParse(this.kind()).data ?? this.asked().category,
  );
  private readonly classes = computed(() => readClasses(this.is(), this.category()));
  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  /** The same units are the same question: a list that comes in anew asks for no other scale. */
  private readonly among = computed(() => unitsOfClasses(this.specimens().value, this.category(), this.classes()), {
    equal: (a, b) => a?.join() === b?.join(),
  });
  protected readonly request = computed<ScaleRequest>(() => ({
    ...this.asked(),
    category: this.category(),
    among: this.among(),
  }));
  private readonly loaded = toSignal(toObservable(this.request).pipe(switchMap((r) => this.data.scale(r))), {
    initialValue: LOADING,
  });
  protected readonly scale = computed(() => this.loaded().value);
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly told = signal('');
  protected readonly newUnit = signal<string | null>(null);

  protected readonly attributes = ATTRIBUTES.map((value) => ({ value, label: ATTRIBUTE_NAMES[value] }));
  protected readonly voices = computed(() => anyOr(this.scale()?.voices ?? []));
  protected readonly uses = computed(() => anyOr(this.scale()?.uses ?? []));
  protected readonly units = computed(() =>
    (this.specimens().value ?? [])
      .filter((s) => s.category === this.request().category)
      .map((s) => ({ value: s.id, label: unitName(s) })),
  );
  protected readonly rows = computed(() => this.specimens().value ?? []);
  protected readonly isFiltered = computed(() => this.classes().length > 0);
  protected readonly amongWords = (units: number): string =>
    `${units === 1 ? 'One of them is' : `${units} of them are`} that. Places and bands are among these; every answer tells of their worth.`;
  protected readonly axis = computed(() => worthScaleAround(this.scale()?.items ?? []));
  /** Log worths as numbers over the column of whiskers. */
  protected readonly ticks = computed(() =>
    ticksOf(this.axis()).map((t) => ({ label: formatNumber(t, 0), at: percentOn(this.axis(), t) })),
  );
  protected readonly tasteWords = tasteWords;
  /** Units stratum by stratum. */
  protected readonly strata = computed(() => {
    const items = this.scale()?.items ?? [];
    return [...new Set(items.map((i) => i.stratum))].map((stratum) => ({
      stratum,
      items: items.filter((i) => i.stratum === stratum),
    }));
  });
  protected readonly formatNumber = formatNumber;
  protected readonly plusMinus = plusMinus;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Scale', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected change(part: Partial<ScaleRequest>): void {
    this.asked.update((r) => ({ ...r, ...part }));
  }

  protected setKind(kind: Category): void {
    // Voices and uses are those of the kind.
    this.change({ voice: null, use: null });
    void this.router.navigate([], { queryParams: { kind } });
  }

  protected setClasses(is: string | null): void {
    void this.router.navigate([], { queryParams: { is }, queryParamsHandling: 'merge' });
  }

  protected place(id: string | null): void {
    if (id) void this.router.navigate(['/scale/place', id]);
  }

  protected async bringIn(field: HTMLInputElement): Promise<void> {
    const file = field.files?.item(0);
    if (!file) return;
    const csv = await file.text();
    field.value = '';
    const { attribute, category } = this.request();
    this.data.importAnswers(csv, attribute, category).subscribe({
      next: ({ answers, units, alreadyThere }) => {
        this.problem.set(null);
        this.told.set(alreadyThere ? 'This file is in already; nothing was added.' : `${answers} answers about ${units} units were added.`); // prettier-ignore
      },
      error: (error: unknown) => {
        this.told.set('');
        this.problem.set(problemOf(error));
      },
    });
  }
}

const anyOr = (values: readonly string[]): { value: string | null; label: string }[] => [
  { value: null, label: 'all' },
  ...values.map((value) => ({ value, label: value })),
];
