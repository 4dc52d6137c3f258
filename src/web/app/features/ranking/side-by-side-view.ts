import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { RankedUnit } from '#core/rules/rank';
import type { RankingInputs } from '#contracts/ranking';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { Figure } from '../../ui/figure';
import { ChoiceField } from '../../ui/field/choice-field';
import { formatNumber } from '../../ui/format';
import { OddLatencyMark } from '../../ui/odd-latency-mark';
import { readTables, sideBySide } from './side-by-side';
import { nameOf } from './standing';

/** Tables of units beside each other: latency by rate and buffer, gain by dial, voltages. */
@Component({
  selector: 'sd-side-by-side-view',
  imports: [ChoiceField, Figure, OddLatencyMark, RouterLink],
  template: `
    @if (table(); as t) {
      <div class="head-line">
        <sd-choice-field label="Table" [options]="choices()" [value]="t.key" (valueChange)="chosen.set($event)" />
      </div>
      <p class="small quiet note">In {{ t.unit }}; each unit’s newest reading, in the order of the ranking</p>
      @let side = shown();
      <div class="scroll" tabindex="0" role="region" [attr.aria-label]="t.title + ', units side by side'">
        <table class="plain-table">
          <thead>
            <tr>
              <th class="head" scope="col">Cell</th>
              @for (u of side?.units ?? []; track u.id) {
                <th class="head right" scope="col">
                  <a [routerLink]="['/gear', u.id]">{{ u.name }}</a>
                </th>
              }
            </tr>
          </thead>
          <tbody>
            @for (row of side?.rows ?? []; track row.label) {
              <tr>
                <th scope="row">{{ row.label }}</th>
                @for (cell of row.cells; track $index) {
                  <td class="right num">
                    @if (cell.value === null) {
                      <span class="quiet small">not read</span>
                    } @else {
                      {{ number(cell.value, side?.decimals ?? 0) }}
                    }
                    @if (cell.isOdd) {
                      <sd-odd-latency-mark />
                    }
                  </td>
                }
              </tr>
            }
          </tbody>
          @if (side?.beyondBuffers; as beyond) {
            <tfoot>
              <tr>
                <th scope="row">Beyond the buffers</th>
                @for (m of beyond; track $index) {
                  <td class="right">
                    @if (m) {
                      <sd-figure
                        [quantity]="m.quantity"
                        [value]="m.value"
                        [uncertainty]="m.uncertainty"
                        [condition]="m.condition"
                      />
                    }
                  </td>
                }
              </tr>
            </tfoot>
          }
        </table>
      </div>
    } @else if (protocols().value) {
      <p class="quiet pad">
        No unit of this kind has a table. Protocols can have steps that are filled in as a table: latency by rate and
        buffer, gain by dial position, voltages.
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto auto 1fr;
      gap: 8px;
      min-height: 0;
      height: 100%;
    }
    .head-line {
      max-width: 360px;
    }
    .head-line,
    .note,
    .pad {
      margin: 0;
      padding: 6px 12px 0;
    }
    .scroll {
      overflow: auto;
      min-height: 0;
      padding: 0 12px 12px;
    }
    table {
      width: auto;
    }
    :is(th, td) {
      padding-left: 16px;
      white-space: nowrap;
    }
    :is(th, td):first-child {
      padding-left: 0;
    }
    th[scope='row'] {
      font-weight: 400;
      text-align: left;
    }
    tfoot :is(th, td) {
      border-top: 2px solid var(--rule);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SideBySideView {
  readonly inputs = input.required<RankingInputs>();
  readonly ranked = input.required<readonly RankedUnit[]>();

  protected readonly protocols = toSignal(inject(CatalogueData).protocols, { initialValue: LOADING });
  protected readonly chosen = signal<string | null>(null);
  private readonly tables = computed(() => readTables(this.inputs().units, this.protocols().value ?? []));
  protected readonly choices = computed(() => this.tables().map(({ title, key }) => ({ label: title, value: key })));
  protected readonly table = computed(
    () => this.tables().find((t) => t.key === this.chosen()) ?? this.tables().at(0) ?? null,
  );
  protected readonly shown = computed(() => {
    const table = this.table();
    const { names, units } = this.inputs();
    const place = new Map(this.ranked().map((r) => [r.id, r.place]));
    const inOrder = [...units].sort((a, b) => (place.get(a.id) ?? Infinity) - (place.get(b.id) ?? Infinity));
    return table && sideBySide(table, inOrder, (id) => nameOf(names, id));
  });

  protected readonly number = formatNumber;
}
