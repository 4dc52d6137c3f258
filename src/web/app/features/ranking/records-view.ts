import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { quantity, type QuantityId } from '#core/measure/registry';
import { recordsOf } from '#core/rules/records';
import type { RankingInputs } from '#contracts/ranking';
import { Figure } from '../../ui/figure';
import { today } from '../../ui/format';
import { recordStairs } from './records-geometry';
import { nameOf } from './standing';

const [WIDTH, HEIGHT] = [720, 140];

/** The best figure of each quantity ever, who holds it, since when, and who held it before. */
@Component({
  selector: 'sd-records-view',
  imports: [Figure, RouterLink],
  template: `
    <p class="small quiet">
      By the figures that count today, in the order in which the units were first tested. A record is beyond doubt where
      it beat the one before by more than the uncertainty of both.
    </p>
    <table class="plain-table">
      <thead>
        <tr>
          <th class="head">Figure</th>
          <th class="head right">Best ever</th>
          <th class="head">Held by</th>
          <th class="head">Since</th>
          <th class="head">Not told apart from it</th>
          <th class="head"></th>
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.quantity) {
          <tr>
            <td>{{ row.name }}</td>
            <td class="right">
              <sd-figure
                [quantity]="row.quantity"
                [value]="row.holder.value"
                [uncertainty]="row.holder.spread"
                about="another reading"
              />
            </td>
            <td>
              <a [routerLink]="['/gear', row.holder.unit]">{{ name(row.holder.unit) }}</a>
            </td>
            <td class="num">{{ row.holder.day }}</td>
            <td class="small">{{ row.ties }}</td>
            <td>
              <button
                type="button"
                class="text-link"
                [attr.aria-expanded]="opened() === row.quantity"
                [attr.aria-label]="soFar(row.steps.length) + ': records of ' + row.name"
                (click)="toggle(row.quantity)"
              >
                {{ soFar(row.steps.length) }}
              </button>
            </td>
          </tr>
          @if (opened() === row.quantity) {
            <tr>
              <td colspan="6">
                <svg
                  [attr.viewBox]="'-12 -12 ' + (width + 24) + ' ' + (height + 36)"
                  role="img"
                  [attr.aria-label]="row.name + ': records over time; the list below says the same'"
                >
                  @for (year of stairs()?.years; track year.label) {
                    <line class="grid" [attr.x1]="year.at" [attr.x2]="year.at" y1="0" [attr.y2]="height" />
                    <text [attr.x]="year.at" [attr.y]="height + 14">{{ year.label }}</text>
                  }
                  <path class="stairs" [attr.d]="stairs()?.path" />
                  @for (dot of stairs()?.dots; track dot.step.unit) {
                    @if (dot.step.isBeyondDoubt) {
                      <rect class="sure" [attr.x]="dot.x - 5" [attr.y]="dot.y - 5" width="10" height="10" />
                    } @else {
                      <circle class="doubt" [attr.cx]="dot.x" [attr.cy]="dot.y" r="4" />
                    }
                  }
                </svg>
                <ol class="small">
                  @for (step of row.steps; track step.unit) {
                    <li>
                      <span class="num">{{ step.day }}</span> {{ name(step.unit) }}
                      <sd-figure
                        [quantity]="row.quantity"
                        [value]="step.value"
                        [uncertainty]="step.spread"
                        about="another reading"
                      />
                      <span class="quiet">{{ step.isBeyondDoubt ? '' : 'within the uncertainty of both' }}</span>
                    </li>
                  }
                </ol>
              </td>
            </tr>
          }
        } @empty {
          <tr>
            <td colspan="6" class="quiet">Nothing of this kind has been measured that one way of is better.</td>
          </tr>
        }
      </tbody>
    </table>
    <ng-content />
  `,
  styleUrl: './drawn-view.css',
  styles: `
    .stairs {
      stroke-width: 2;
    }
    .sure {
      fill: var(--azurite);
    }
    .doubt {
      fill: var(--panel);
      stroke: var(--azurite);
      stroke-width: 1.5;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordsView {
  readonly inputs = input.required<RankingInputs>();
  /** Day of each unit's first test. */
  readonly firstTested = input.required<ReadonlyMap<string, string>>();

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly opened = signal<QuantityId | null>(null);
  protected readonly rows = computed(() =>
    recordsOf(this.inputs().units, this.firstTested()).map((record) => ({
      ...record,
      name: quantity(record.quantity).name,
      holder: record.steps[record.steps.length - 1],
      ties: tiesText(record.ties.map((id) => this.name(id))),
    })),
  );
  protected readonly stairs = computed(() => {
    const row = this.rows().find((r) => r.quantity === this.opened());
    return row ? recordStairs(row.steps, today(), WIDTH, HEIGHT) : null;
  });
  protected readonly soFar = (count: number): string => (count === 1 ? 'one so far' : `${count} so far`);
  protected readonly name = (id: string): string => nameOf(this.inputs().names, id);

  protected toggle(id: QuantityId): void {
    this.opened.update((open) => (open === id ? null : id));
  }
}

/** More names than these are counted. */
const MOST_NAMED = 3;

/** Units that tie with a holder, in one line. */
export function tiesText(names: readonly string[]): string {
  const rest = names.length - MOST_NAMED;
  return [...names.slice(0, MOST_NAMED), ...(rest > 0 ? [`${rest} more`] : [])].join(', ');
}
