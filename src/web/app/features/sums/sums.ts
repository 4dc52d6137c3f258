import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { combineLatest, map, of, switchMap, type Observable } from 'rxjs';
import { Button } from 'primeng/button';
import { CAUTIONS } from '#core/rules/cautions';
import type { SpecimenSheet } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { SessionData } from '../../data/sessions';
import { Refusals } from '../../ui/field/refusals';
import { today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { keptSum } from './kept-sum';
import { ChoiceField } from '../../ui/field/choice-field';
import { NumberField } from '../../ui/field/number-field';
import { LevelLine } from './level-line';
import { SUMS } from './all-sums';
import { isPartOf } from './part-of';
import { answerOf, missingOf, typedIn, valuesOf } from './sum-values';
import { takenFrom } from './take-from-unit';

const SOURCE_WORDS = { measured: 'measured', 'data sheet': 'by its data sheet', typed: '', usual: 'usual' } as const;

/** Small calculations of the trade, filled from the catalogue and open to typing; the address holds all of it. */
@Component({
  selector: 'sd-sums',
  imports: [Button, ChoiceField, LevelLine, NumberField, ProblemBox, RouterLink],
  templateUrl: './sums.html',
  styleUrl: './sums.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sums {
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly data = inject(CatalogueData);
  private readonly sessions = inject(SessionData);
  private readonly refusals = inject(Refusals);

  protected readonly sums = SUMS;
  protected readonly cautions = CAUTIONS;
  private readonly address = toSignal(this.route.queryParamMap, { requireSync: true });
  protected readonly sum = computed(() => SUMS.find((s) => s.id === this.address().get('sum')) ?? SUMS[0]);

  private readonly units = toSignal(this.data.specimens, { initialValue: LOADING });
  /** Units that can be chosen for each part of the sum. */
  protected readonly parts = computed(() =>
    this.sum().parts.map((part) => ({
      ...part,
      chosen: this.address().get(part.id),
      options: [
        { value: null as string | null, label: 'none' },
        ...(this.units().value ?? []).filter((u) => isPartOf(part, u.category)).map((u) => ({ value: u.id, label: unitName(u) })), // prettier-ignore
      ],
    })),
  );
  /** Sheets of the chosen units, by part. */
  private readonly sheets = toSignal(
    toObservable(computed(() => this.parts().map(({ id, chosen }) => [id, chosen] as const))).pipe(
      switchMap((chosen): Observable<Readonly<Record<string, SpecimenSheet | null>>> => {
        const asked = chosen.filter((c): c is [string, string] => c[1] !== null && /^\d+$/.test(c[1]));
        if (asked.length === 0) return of({});
        return combineLatest(Object.fromEntries(asked.map(([part, id]) => [part, this.data.sheet(id).pipe(map(({ value }) => value))]))); // prettier-ignore
      }),
    ),
    { initialValue: {} },
  );
  private readonly typed = computed(() => typedIn(this.sum(), (name) => this.address().get(name)));
  protected readonly values = computed(() => {
    const sheets: Readonly<Record<string, SpecimenSheet | null>> = this.sheets();
    const taken = this.sum().fields.map(({ id, from }) => {
      const sheet = from ? (sheets[from.part] ?? null) : null;
      return [id, from && sheet ? takenFrom(sheet, from) : null] as const;
    });
    return valuesOf(this.sum(), this.typed(), Object.fromEntries(taken));
  });
  protected readonly missing = computed(() => missingOf(this.sum(), this.values()));
  protected readonly answer = computed(() => answerOf(this.sum(), this.values()));

  protected readonly saving = new Saving();
  /** Units that this sum is about: an answer can be kept with each. */
  protected readonly keepable = computed(() =>
    this.parts().flatMap(({ chosen, options }) => {
      const unit = options.find((o) => o.value !== null && o.value === chosen);
      return unit?.value ? [{ id: unit.value, name: unit.label }] : [];
    }),
  );
  /** Address of the sum that was kept last, and where: another number is another answer. */
  private readonly kept = signal<{ readonly query: string; readonly unit: string } | null>(null);
  protected readonly keptWith = computed(() => {
    const kept = this.kept();
    return kept && this.answer() && kept.query === this.event()?.sum ? kept.unit : null;
  });
  private readonly event = computed(() => {
    const answer = this.answer();
    return answer && keptSum(this.sum(), this.values(), answer, today());
  });

  protected keep(unit: string): void {
    const event = this.event();
    if (!event || this.refusals.stop()) return;
    this.saving.run(this.sessions.noteEvent(unit, event), () => this.kept.set({ query: event.sum ?? '', unit }));
  }

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Sums', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected sourceWords(field: string): string {
    const { source } = this.values()[field];
    return source === null ? '' : SOURCE_WORDS[source];
  }

  /** What is typed goes before what a unit has; what is emptied by hand stays empty. */
  protected type(field: string, value: number | null): void {
    this.go({ [field]: value === null ? '' : String(value) });
  }

  /** Another unit brings its own numbers: what was typed in their places goes. */
  protected choose(part: string, unit: string | null): void {
    const fields = this.sum().fields.filter((f) => f.from?.part === part);
    this.go({ [part]: unit, ...Object.fromEntries(fields.map((f) => [f.id, null])) });
  }

  private go(queryParams: Readonly<Record<string, string | null>>): void {
    void this.router.navigate(['/sums'], {
      queryParams: { sum: this.sum().id, ...queryParams },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }
}
