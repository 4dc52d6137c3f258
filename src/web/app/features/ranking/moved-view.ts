import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, combineLatest, of, switchMap } from 'rxjs';
import { movedBecause } from '#core/rules/moved-because';
import { rankMoves, type RankMove } from '#core/rules/rank-moves';
import type { RankedUnit } from '#core/rules/rank';
import type { RankingInputs } from '#contracts/ranking';
import { DateField } from '../../ui/field/date-field';
import { Ranker } from '../../data/ranker';
import { formatNumber } from '../../ui/format';
import { nameOf } from './standing';

/** A unit that moved, came or went, and why. */
export interface MovedRow {
  readonly move: RankMove;
  readonly name: string;
  readonly what: string;
  readonly because: readonly string[];
}

/** Changes named for one unit; further ones say little. */
const MOST_REASONS = 3;

/**
 * What moved between two days: who entered, who left, who rose and fell, and what of their own changed.
 *
 * @param before - the earlier day, ranked
 * @param after - the later one
 */
export function movedRows(
  before: { readonly inputs: RankingInputs; readonly ranked: readonly RankedUnit[] },
  after: { readonly inputs: RankingInputs; readonly ranked: readonly RankedUnit[] },
): MovedRow[] {
  const [old, now] = [before, after].map((side) => new Map(side.inputs.units.map((u) => [u.id, u])));
  const names = { ...before.inputs.names, ...after.inputs.names };
  const criteria = new Map(after.inputs.rubric.criteria.map((c) => [c.id, c.name]));
  const points = (value: number | null): string => (value === null ? 'missing' : formatNumber(value, 1));
  return rankMoves(before.ranked, after.ranked)
    .filter((m) => m.rises !== 0 || m.before === null || m.after === null)
    .map((move): MovedRow => {
      const [unit, then] = [now.get(move.id), old.get(move.id)];
      const changes =
        unit && then
          ? movedBecause({ unit: then, rubric: before.inputs.rubric }, { unit, rubric: after.inputs.rubric })
          : [];
      return {
        move,
        name: nameOf(names, move.id),
        what: whatMoved(move),
        because:
          move.before === null || move.after === null
            ? []
            : changes.length === 0
              ? ['nothing of its own: others moved']
              : changes.slice(0, MOST_REASONS).map((c) => `${criteria.get(c.criterion) ?? c.criterion} ${points(c.before)} → ${points(c.after)}: ${c.why}`), // prettier-ignore
      };
    });
}

function whatMoved({ before, after, rises, isBeyondDoubt }: RankMove): string {
  if (before === null) return 'entered';
  if (after === null) return 'is not ranked any more';
  return `${rises > 0 ? 'rose' : 'fell'} by ${Math.abs(rises)}${isBeyondDoubt ? ', beyond doubt' : ''}`;
}

/** What moved in a ranking since a day. */
@Component({
  selector: 'sd-moved-view',
  imports: [DateField, RouterLink],
  template: `
    <div class="fields">
      <sd-date-field label="Since" required [value]="since()" (valueChange)="sinceChange.emit($event ?? since())" />
    </div>
    @if (rows(); as list) {
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head right">Then</th>
            <th class="head right">Now</th>
            <th class="head">Unit</th>
            <th class="head">What</th>
            <th class="head">Why</th>
          </tr>
        </thead>
        <tbody>
          @for (row of list; track row.move.id) {
            <tr>
              <td class="num right">{{ row.move.before ?? '—' }}</td>
              <td class="num right">{{ row.move.after ?? '—' }}</td>
              <td>
                <a [routerLink]="['/gear', row.move.id]">{{ row.name }}</a>
              </td>
              <td>{{ row.what }}</td>
              <td class="small">
                @for (reason of row.because; track reason) {
                  <div>{{ reason }}</div>
                }
              </td>
            </tr>
          } @empty {
            <tr>
              <td colspan="5" class="quiet">Nothing moved.</td>
            </tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="quiet">Looking back …</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
      overflow-y: auto;
      padding: 8px 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MovedView {
  readonly since = input.required<string>();
  /** As it stood on the earlier day; null while it is fetched. */
  readonly before = input.required<RankingInputs | null>();
  readonly after = input.required<RankingInputs>();
  readonly weights = input.required<Readonly<Record<string, number>>>();
  readonly sinceChange = output<string>();

  private readonly ranker = inject(Ranker);
  private readonly asked = computed(() => ({ before: this.before(), after: this.after(), weights: this.weights() }));
  private readonly ranked = toSignal(
    toObservable(this.asked).pipe(
      switchMap((asked) => {
        const { before, after, weights } = asked;
        if (before === null) return of(null);
        return combineLatest([this.ranker.rank(before, before.rubric.weights), this.ranker.rank(after, weights)]).pipe(
          switchMap(([then, now]) => of({ asked, rows: movedRows({ inputs: before, ranked: then }, { inputs: after, ranked: now }) })), // prettier-ignore
          catchError(() => of(null)),
        );
      }),
    ),
    { initialValue: null },
  );
  protected readonly rows = computed(() => {
    const ranked = this.ranked();
    return ranked?.asked === this.asked() ? ranked.rows : null;
  });
}
