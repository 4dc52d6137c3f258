import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { quantity, type QuantityId } from '#core/measure/registry';
import type { RigHealth } from '#contracts/rig';
import { formatNumber } from './format';

const WORDS = {
  agrees: 'The rig agrees with its history',
  off: 'The rig is off',
  'no-history': 'No history yet',
  'no-control': 'No control take',
} as const;

/** What the control unit says of a day: figure by figure, today against its history. */
@Component({
  selector: 'sd-rig-health',
  imports: [RouterLink],
  template: `
    <div class="verdict" [class.off]="health().verdict === 'off'" [class.agrees]="health().verdict === 'agrees'">
      <i [class]="icon()" aria-hidden="true"></i> <b>{{ words[health().verdict] }}.</b> {{ health().note }}
      @if (health().controlUnit; as unit) {
        <a [routerLink]="['/gear', unit.id]">{{ unit.name }}</a>
      }
    </div>
    @if (health().verdict === 'off') {
      <p>{{ policy() }}</p>
    }
    @if (rows().length > 0) {
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head">Figure of the control unit</th>
            <th class="head right">Today</th>
            <th class="head right">Usual</th>
            <th class="head right">Offset</th>
            <th
              class="head right"
              title="Set so that all figures together call an unchanged rig off once in 20 sessions"
            >
              Limit
            </th>
            <th class="head right" title="A shift of this size is found with a probability of 80 %">Found (80 %)</th>
            <th class="head">History</th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.id) {
            <tr [class.out]="row.verdict === 'off'">
              <td [title]="row.definition">
                @if (row.verdict === 'off') {
                  <i class="pi pi-exclamation-triangle" aria-hidden="true"></i
                  ><span class="visually-hidden">outside its limits: </span>
                }
                {{ row.name }}
              </td>
              <td class="num right">{{ row.today }}</td>
              <td class="num right">{{ row.usual }}</td>
              <td class="num right">{{ row.offset }}</td>
              <td class="num right quiet">{{ row.limit }}</td>
              <td class="num right quiet">{{ row.found }}</td>
              <td>
                <svg class="spark" viewBox="0 0 120 20" role="img" [attr.aria-label]="row.historyText">
                  @if (row.band; as band) {
                    <rect x="0" width="120" [attr.y]="band.top" [attr.height]="band.height" class="band" />
                  }
                  @for (dot of row.dots; track $index) {
                    <circle [attr.cx]="dot.x" [attr.cy]="dot.y" r="2" class="dot" />
                  }
                  <rect [attr.x]="113" [attr.y]="row.todayY - 3" width="6" height="6" class="today" />
                </svg>
              </td>
            </tr>
          }
        </tbody>
      </table>
    }
    @if (drift().length > 0) {
      <p class="small quiet">Closing against opening: {{ drift().join(' · ') }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .verdict {
      padding: 8px 12px;
      border-left: 3px solid var(--quiet);
      background: var(--panel);
    }
    .verdict i,
    td i {
      margin-right: 6px;
    }
    .verdict.off {
      border-color: var(--cinnabar);
      background: var(--cinnabar-soft);
    }
    .verdict.agrees {
      border-color: var(--malachite);
    }
    .out td:first-child {
      color: var(--cinnabar-text);
      font-weight: 600;
    }
    .spark {
      width: 120px;
      height: 20px;
      display: block;
    }
    .band {
      fill: color-mix(in srgb, var(--malachite) 22%, transparent);
    }
    .dot {
      fill: var(--quiet);
    }
    .today {
      fill: var(--realgar);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RigHealthTable {
  readonly health = input.required<RigHealth>();

  protected readonly words = WORDS;
  protected readonly icon = computed(
    () =>
      ({
        agrees: 'pi pi-check',
        off: 'pi pi-exclamation-triangle',
        'no-history': 'pi pi-minus',
        'no-control': 'pi pi-minus',
      })[this.health().verdict],
  );
  protected readonly policy = computed(() =>
    this.health().whenOff === 'correct'
      ? 'As this rig is set: figures of the day are corrected by the offset, and both are shown.'
      : 'As this rig is set: figures of the day are reported as measured, and the session stays flagged.',
  );
  protected readonly rows = computed(() => this.health().figures.map(rowOf));
  protected readonly drift = computed(() =>
    this.health().drift.map(({ quantity: id, opening, closing, limit }) => {
      const { name, decimals, unit } = quantity(id as QuantityId);
      const change = closing - opening;
      const mark = Math.abs(change) > limit ? ' (!)' : '';
      return `${name} ${change > 0 ? '+' : ''}${formatNumber(change, decimals)} ${unit}${mark}`;
    }),
  );
}

type Figure = RigHealth['figures'][number];

/** Texts and places of one row. */
export function rowOf(f: Figure) {
  const { name, definition, decimals, unit } = quantity(f.quantity as QuantityId);
  const text = (x: number | null): string => (x === null ? '—' : formatNumber(x, decimals));
  const values = [...f.history.map((h) => h.value), f.today];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const reach = f.usual !== null && f.limit !== null ? [f.usual - f.limit, f.usual + f.limit] : [low, high];
  const [bottom, top] = [Math.min(low, reach[0]), Math.max(high, reach[1])];
  const y = (x: number): number => (top === bottom ? 10 : 18 - (16 * (x - bottom)) / (top - bottom));
  const count = f.history.length;
  return {
    id: f.quantity,
    name,
    definition,
    verdict: f.verdict,
    today: `${text(f.today)} ${unit}`,
    usual: text(f.usual),
    offset: f.offset === null ? '—' : `${f.offset > 0 ? '+' : ''}${text(f.offset)}`,
    limit: f.limit === null ? '—' : `±${text(f.limit)}`,
    found: f.found80 === null ? '—' : `±${text(f.found80)}`,
    band:
      f.usual !== null && f.limit !== null
        ? { top: y(reach[1]), height: Math.max(1, y(reach[0]) - y(reach[1])) }
        : null,
    dots: f.history.map((h, i) => ({ x: 4 + (100 * i) / Math.max(1, count - 1 || 1), y: y(h.value) })),
    todayY: y(f.today),
    historyText: `${count} earlier: ${f.history.map((h) => `${h.day} ${text(h.value)}`).join(', ')}; today ${text(f.today)} ${unit}`,
  };
}
