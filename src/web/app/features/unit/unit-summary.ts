import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { gearKind } from '#core/gear/kinds';
import { quantity } from '#core/measure/registry';
import type { RankedUnit } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';
import { shownTotal } from '#core/rules/shown-total';
import type { SpecimenSheet } from '#contracts/specimen';
import { Figure } from '../../ui/figure';
import { formatNumber, formatPrice, kindName } from '../../ui/format';
import { Hatch } from '../../ui/hatch';
import { whyNotRanked } from './why-not-ranked';

const SOURCE_WORDS: Readonly<Record<string, string>> = {
  bought: 'bought',
  lent: 'lent',
  sent: 'sent by the maker',
  own: 'own',
};
/** More words than these say nothing at a glance. */
const MOST_WORDS = 3;

/** What a unit is, where it stands, how it measures, how it was heard and what it costs: the first look. */
@Component({
  selector: 'sd-unit-summary',
  imports: [Figure, Hatch, RouterLink],
  template: `
    <div class="tile">
      <h3>What it is</h3>
      <p class="kind"><sd-hatch [category]="sheet().row.category" /> {{ kind() }}</p>
      @for (word of classes(); track word) {
        <p class="small">{{ word }}</p>
      }
      <p class="small quiet">{{ came() }}</p>
    </div>
    <div class="tile">
      <h3>Where it stands</h3>
      @if (standing(); as s) {
        <p>
          <b class="num big">{{ s.place }}</b> of {{ ranked().length }}
        </p>
        <p class="small quiet">
          90 %: place <span class="num">{{ s.rank90[0] }}–{{ s.rank90[1] }}</span
          >, stratum {{ s.stratum }}
        </p>
        <p class="small">
          <span class="num">{{ total(s.composite) }} ±{{ total(s.sd) }}</span> {{ totalHead() }}
        </p>
      } @else {
        <p class="quiet">not ranked</p>
        <p class="small quiet">{{ whyNot() }}</p>
      }
    </div>
    <div class="tile">
      <h3>How it measures</h3>
      @for (f of sheet().row.figures; track f.quantity) {
        <p>
          <span class="small quiet">{{ figureName(f.quantity) }}</span><br />
          <sd-figure
            [quantity]="f.quantity"
            [value]="f.value"
            [uncertainty]="f.anotherReading ?? f.uncertainty"
            about="another reading"
            [bound]="f.bound"
          />
        </p>
      } @empty {
        <p class="quiet">not measured</p>
        @if (cells() > 0) {
          <p class="small quiet">{{ cells() }} cells of tables</p>
        }
      }
    </div>
    <div class="tile">
      <h3>How it was heard</h3>
      @if (sheet().row.heardAnswers > 0) {
        <p>
          <b class="num big">{{ sheet().row.heardAnswers }}</b> blind answers
        </p>
      } @else {
        <p class="quiet">by nobody yet</p>
      }
      @if (words()) {
        <p class="small">{{ words() }}</p>
      }
    </div>
    <div class="tile">
      <h3>What it costs</h3>
      @if (sheet().row.price; as p) {
        <p>
          <b class="num big">{{ price(p.amount, p.currency) }}</b>
        </p>
        <p class="small quiet">
          {{ p.kind }}, <span class="num">{{ p.date }}</span>
        </p>
      } @else {
        <p class="quiet">no price noted</p>
      }
      <p class="small">
        <a routerLink="/ranking" [queryParams]="{ kind: sheet().row.category, view: 'price' }">Against price</a>
      </p>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
      gap: 8px;
    }
    .tile {
      display: grid;
      align-content: start;
      gap: 4px;
      padding: 8px 12px;
      background: var(--panel);
      border: 1px solid var(--rule);
      border-radius: 2px;
    }
    h3 {
      font-size: 12px;
      line-height: 16px;
      font-weight: 560;
      color: var(--quiet);
    }
    .kind {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    .big {
      font-size: 18px;
      line-height: 24px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitSummary {
  readonly sheet = input.required<SpecimenSheet>();
  readonly standing = input.required<RankedUnit | null>();
  readonly ranked = input.required<readonly RankedUnit[]>();
  readonly rubric = input.required<Rubric | null>();

  protected readonly kind = computed(() => kindName(this.sheet().row.category));
  protected readonly classes = computed(() => classWords(this.sheet()));
  protected readonly came = computed(() => cameWords(this.sheet()));
  protected readonly whyNot = computed(() => whyNotRanked(this.sheet()));
  protected readonly cells = computed(() =>
    this.sheet().runs.reduce((sum, run) => sum + run.tables.reduce((n, t) => n + t.cells.length, 0), 0),
  );
  protected readonly words = computed(() =>
    this.sheet()
      .words.slice(0, MOST_WORDS)
      .map((w) => w.word)
      .join(', '),
  );
  private readonly shown = computed(() => {
    const rubric = this.rubric();
    return rubric && shownTotal(rubric, rubric.weights);
  });
  protected readonly totalHead = computed(() => (this.shown()?.head ?? '').toLowerCase());
  protected readonly total = (value: number): string => {
    const shown = this.shown();
    return shown ? formatNumber(value * shown.factor, shown.decimals) : '';
  };
  protected readonly price = formatPrice;
  protected readonly figureName = (id: Parameters<typeof quantity>[0]): string =>
    quantity(id).shortName ?? quantity(id).name;
}

/** What divides its kind, word by word: "condenser", "loopback: yes". */
export function classWords({ row }: Pick<SpecimenSheet, 'row'>): string[] {
  return gearKind(row.category).sheet.flatMap((field) => {
    const words = row.classes[field.id] ?? [];
    if (words.length === 0) return [];
    return field.type === 'yes-no' ? [`${field.name.toLowerCase()}: ${words.join(', ')}`] : [words.join(', ')];
  });
}

/** How it came, and when it was tested. */
export function cameWords({ row, runs }: Pick<SpecimenSheet, 'row' | 'runs'>): string {
  const source = runs.at(-1)?.source;
  const days = row.firstTested === row.lastTested ? row.firstTested : `${row.firstTested} to ${row.lastTested}`;
  return [
    source === undefined ? '' : (SOURCE_WORDS[source] ?? source),
    days === null ? 'not tested' : `tested ${days}`,
    row.onDesk ? 'on the desk' : 'put away',
  ]
    .filter((t) => t !== '')
    .join(', ');
}
