import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, combineLatest, map, of, switchMap } from 'rxjs';
import type { UpgradeAdvice } from '#core/rules/upgrade-advice';
import type { WhyAbove } from '#core/rules/why-above';
import { countedCurrency } from '#core/rules/rubric';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';
import { Ranker } from '../../data/ranker';
import { chanceText, formatNumber, plusMinus } from '../../ui/format';
import { turningSentences } from './turning-sentences';
import { upgradeSentences } from './upgrade-sentences';

/** Two units, criterion by criterion: what lifts one above the other, and what would turn the order. */
@Component({
  selector: 'sd-why-panel',
  template: `
    <h3>{{ name(first()) }} against {{ name(second()) }}</h3>
    @if (why(); as w) {
      <p class="small">
        Difference <span class="num">{{ signed(w.difference) }} {{ plusMinus(w.sd, 2) }}</span> points of 5; the first
        is better with a probability of <span class="num">{{ chance(w.probability) }}</span>.
      </p>
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head">Criterion</th>
            <th class="head right">First</th>
            <th class="head right">Second</th>
            <th class="head right">Adds</th>
          </tr>
        </thead>
        <tbody>
          @for (s of w.shares; track s.criterion) {
            <tr>
              <td>{{ criterionName(s.criterion) }}</td>
              <td class="num right" [title]="s.first.why">
                {{ number(s.first.points, 1) }}{{ s.first.isAssumed ? '?' : '' }}
              </td>
              <td class="num right" [title]="s.second.why">
                {{ number(s.second.points, 1) }}{{ s.second.isAssumed ? '?' : '' }}
              </td>
              <td class="num right">
                {{ signed(s.difference) }} <span class="quiet">{{ plusMinus(s.sd, 2) }}</span>
              </td>
            </tr>
          }
        </tbody>
      </table>
      @if (hasAssumed()) {
        <p class="small quiet">? is missing: the catalogue’s mean stands in.</p>
      }
      @for (sentence of turning(); track sentence) {
        <p class="small">{{ sentence }}</p>
      }
      @if (upgrade().length > 0) {
        <h3>Going over from {{ name(second()) }} to {{ name(first()) }}</h3>
        @for (sentence of upgrade(); track sentence) {
          <p class="small">{{ sentence }}</p>
        }
      }
    } @else {
      <p class="quiet small">Weighing …</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WhyPanel {
  readonly inputs = input.required<RankingInputs>();
  readonly weights = input.required<Readonly<Record<string, number>>>();
  readonly first = input.required<string>();
  readonly second = input.required<string>();

  private readonly ranker = inject(Ranker);
  private readonly asked = computed(() => ({
    inputs: this.inputs(),
    weights: this.weights(),
    first: this.first(),
    second: this.second(),
  }));
  private readonly answered = toSignal(
    toObservable(this.asked).pipe(
      switchMap((asked) =>
        combineLatest([
          this.ranker.why(asked.inputs, asked.weights, asked.first, asked.second),
          this.ranker.upgrade(asked.inputs, asked.weights, asked.second, asked.first),
        ]).pipe(
          map(([why, advice]): { asked: typeof asked; why: WhyAbove; advice: UpgradeAdvice } => ({
            asked,
            why,
            advice,
          })),
          catchError(() => of(null)),
        ),
      ),
    ),
    { initialValue: null },
  );
  /** Only the answer to what is asked now. */
  protected readonly why = computed(() => {
    const answered = this.answered();
    return answered?.asked === this.asked() ? answered.why : null;
  });
  protected readonly upgrade = computed(() => {
    const answered = this.answered();
    if (answered?.asked !== this.asked()) return [];
    return upgradeSentences(answered.advice, countedCurrency(this.inputs().rubric) ?? '');
  });
  protected readonly hasAssumed = computed(() =>
    this.why()?.shares.some((s) => s.first.isAssumed || s.second.isAssumed),
  );
  protected readonly turning = computed(() => {
    const why = this.why();
    return why ? turningSentences(why, this.criterionName, this.name(this.first()), this.name(this.second())) : [];
  });
  protected readonly number = formatNumber;
  protected readonly plusMinus = plusMinus;
  protected readonly chance = chanceText;
  protected readonly signed = (value: number): string => {
    const text = formatNumber(value, 2);
    return Number(text.replace('−', '-')) > 0 ? `+${text}` : text;
  };
  protected readonly name = (id: string): string => unitName(this.inputs().names[id]);
  protected readonly criterionName = (id: string): string =>
    this.inputs().rubric.criteria.find((c) => c.id === id)?.name ?? id;
}
