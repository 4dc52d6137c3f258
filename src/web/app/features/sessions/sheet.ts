import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import { gainText, textOf } from '#core/rules/compare-versions';
import type { Step } from '#contracts/protocol';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { SessionData } from '../../data/sessions';
import { distanceText } from '../../ui/placement-geometry';
import { minutesText } from './plan-form';
import { PURPOSE_NAMES, stepsOf } from './session-progress';

/** A session on paper: for rooms without a screen, and to write on. */
@Component({
  selector: 'sd-sheet',
  imports: [Button],
  template: `
    @if (plan(); as p) {
      <div class="screen-only"><p-button label="Print" icon="pi pi-print" (onClick)="print()" /></div>
      <article class="sheet">
        <h1>{{ p.row.title }}</h1>
        <p>
          {{ p.row.day }} · {{ p.protocol.name }}, version {{ p.protocol.version }} · about
          {{ minutesText(p.estimate.minutes) }}
          @if (p.rig; as rig) {
            · {{ rig.name }}, since {{ rig.since }}
          }
        </p>
        @if (p.plan.needs.length > 0) {
          <h2>At hand</h2>
          <ul class="boxes">
            @for (need of p.plan.needs; track need.what) {
              <li>
                <span class="box">{{ need.isThere ? '×' : '' }}</span> {{ need.what }}
              </li>
            }
          </ul>
        }
        @if (p.plan.note) {
          <p>{{ p.plan.note }}</p>
        }
        @for (caution of p.protocol.cautions; track caution) {
          <p class="small"><b>!</b> {{ caution }}</p>
        }
        @for (slot of p.slots; track slot.id; let i = $index) {
          <section>
            <h2>
              {{ i + 1 }}. {{ slot.unit.maker }} {{ slot.unit.model }} · {{ slot.unit.label }}
              @if (purposes[slot.purpose]) {
                ({{ purposes[slot.purpose].toLowerCase() }})
              }
              @if (slot.unit.dueBack) {
                , back on {{ slot.unit.dueBack }}
              }
            </h2>
            <table>
              <thead>
                <tr>
                  <th>Step</th>
                  <th>Where</th>
                  <th>Gain rule</th>
                  <th>Gain</th>
                  <th>Kept</th>
                  <th class="wide">Notes</th>
                </tr>
              </thead>
              <tbody>
                @for (step of steps(slot.id); track step.id) {
                  <tr>
                    <td>{{ step.title }}</td>
                    <td>{{ where(step) }}</td>
                    <td>{{ gainText(step.gain) }}</td>
                    <td class="write"></td>
                    <td class="write"></td>
                    <td></td>
                  </tr>
                }
              </tbody>
            </table>
          </section>
        }
        @if (p.protocol.text; as text) {
          <h2>The passage</h2>
          <p class="passage">{{ text }}</p>
        }
        @for (line of lines(); track line.title) {
          <p>
            <b>{{ line.title }}:</b> {{ line.text }}
          </p>
        }
      </article>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      padding: 16px 24px;
    }
    .sheet {
      max-width: 860px;
      display: grid;
      gap: 8px;
    }
    table {
      width: 100%;
      font-size: 12px;
    }
    th,
    td {
      border: 1px solid var(--quiet);
      padding: 2px 6px;
      text-align: left;
    }
    .write {
      width: 60px;
    }
    .wide {
      width: 26%;
    }
    section {
      break-inside: avoid;
    }
    .boxes {
      list-style: none;
      padding: 0;
      margin: 0;
      display: flex;
      gap: 4px 24px;
      flex-wrap: wrap;
    }
    .box {
      display: inline-block;
      width: 14px;
      height: 14px;
      line-height: 13px;
      border: 1px solid var(--ink);
      text-align: center;
    }
    .passage {
      font-size: 16px;
      line-height: 26px;
      white-space: pre-line;
    }
    @media print {
      .screen-only {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sheet {
  readonly id = input.required<string>();
  private readonly data = inject(SessionData);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.plan(id))), {
    initialValue: LOADING,
  });
  protected readonly plan = computed(() => this.loaded().value);
  protected readonly purposes = PURPOSE_NAMES;
  protected readonly gainText = gainText;
  protected readonly minutesText = minutesText;
  /** Words of steps that have their own, each once. */
  protected readonly lines = computed(() => {
    const plan = this.plan();
    const seen = new Set<string>();
    return (plan?.protocol.steps ?? []).flatMap((step) => {
      const text = plan ? textOf(step, plan.protocol) : null;
      if (text === null || text === plan?.protocol.text || seen.has(text)) return [];
      seen.add(text);
      return [{ title: step.title, text }];
    });
  });

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Sessions', link: '/sessions' },
      { label: 'Sheet', link: null },
    ]);
    inject(ScreenKeys).hints.set([]);
  }

  protected steps(slotId: string): Step[] {
    const plan = this.plan();
    const slot = plan?.slots.find((s) => s.id === slotId);
    return plan && slot ? stepsOf(plan, slot) : [];
  }

  protected where(step: Step): string {
    if (step.distanceM === null) return '—';
    const angle = step.angleDeg === null || step.angleDeg === 0 ? 'in front' : `${step.angleDeg}°`;
    return `${distanceText(step.distanceM)}, ${angle}`;
  }

  protected print(): void {
    window.print();
  }
}
