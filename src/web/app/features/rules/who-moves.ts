import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { rankMoves, type RankMove } from '#core/rules/rank-moves';
import type { RankedUnit } from '#core/rules/rank';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';

/** More than anybody reads before they save. */
const MOST_LISTED = 40;

/** What a change of the rules does, in one sentence computed from the moves. */
export function movesSentence(moves: readonly RankMove[]): string {
  const moved = moves.filter((m) => m.rises !== 0);
  if (moves.length === 0) return 'No unit is ranked yet: nothing moves.';
  if (moved.length === 0) return `None of ${moves.length} units moves.`;
  const beyond = moved.filter((m) => m.isBeyondDoubt).length;
  const doubt =
    beyond === 0
      ? 'each of them within what either order leaves open'
      : `${beyond} of them further than either order leaves open`;
  return `${moved.length} of ${moves.length} units move, ${doubt}.`;
}

/** Places before and after a change of the rules, side by side. */
@Component({
  selector: 'sd-who-moves',
  template: `
    <p role="status">{{ sentence() }}</p>
    @if (listed().length > 0) {
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head right">Before</th>
            <th class="head right">After</th>
            <th class="head">Unit</th>
            <th class="head"></th>
          </tr>
        </thead>
        <tbody>
          @for (move of listed(); track move.id) {
            <tr>
              <td class="num right">{{ move.before ?? '—' }}</td>
              <td class="num right">{{ move.after ?? '—' }}</td>
              <td>{{ name(move.id) }}</td>
              <td class="small">
                <i [class]="move.rises > 0 ? 'pi pi-arrow-up' : 'pi pi-arrow-down'" aria-hidden="true"></i>
                {{ move.rises > 0 ? 'rises' : 'falls' }} by {{ size(move) }}
                @if (move.isBeyondDoubt) {
                  <b class="warn">beyond doubt</b>
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
      @if (further() > 0) {
        <p class="small quiet">and {{ further() }} more</p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WhoMoves {
  readonly before = input.required<readonly RankedUnit[]>();
  readonly after = input.required<readonly RankedUnit[]>();
  readonly names = input.required<RankingInputs['names']>();

  private readonly moves = computed(() => rankMoves(this.before(), this.after()));
  protected readonly sentence = computed(() => movesSentence(this.moves()));
  private readonly moved = computed(() => this.moves().filter((m) => m.rises !== 0));
  protected readonly listed = computed(() => this.moved().slice(0, MOST_LISTED));
  protected readonly further = computed(() => this.moved().length - this.listed().length);
  protected readonly name = (id: string): string => unitName(this.names()[id]);
  protected readonly size = (move: RankMove): number => Math.abs(move.rises);
}
