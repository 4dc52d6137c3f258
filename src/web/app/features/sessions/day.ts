import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { SessionData } from '../../data/sessions';
import { ProblemBox } from '../../ui/problem-box';
import { RigHealthTable } from '../../ui/rig-health';
import { PURPOSE_NAMES } from './session-progress';

/** A day at the desk: what was tested, on which rig, and what the control unit says of it. */
@Component({
  selector: 'sd-day',
  imports: [ProblemBox, RigHealthTable, RouterLink],
  template: `
    @if (problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (held(); as h) {
      <h1>{{ h.day }}</h1>
      <section>
        <h2>What was tested</h2>
        <table class="plain-table panel">
          <thead>
            <tr>
              <th class="head">Unit</th>
              <th class="head">Protocol</th>
              <th class="head right">Takes</th>
              <th class="head">Notes</th>
            </tr>
          </thead>
          <tbody>
            @for (run of h.runs; track run.id) {
              <tr>
                <td>
                  <a [routerLink]="['/gear', run.specimenId]">{{ run.name }}</a>
                </td>
                <td>
                  <a [routerLink]="['/protocols', run.protocol, run.protocolVersion]"
                    >{{ run.protocol }} {{ run.protocolVersion }}</a
                  >
                </td>
                <td class="num right">{{ run.takes }}</td>
                <td class="quiet small">{{ notes(run.purpose, run.overruled) }}</td>
              </tr>
            }
          </tbody>
        </table>
        @for (plan of h.plans; track plan.id) {
          <a [routerLink]="['/sessions', plan.id]">{{ plan.title }}</a>
        }
      </section>
      <section>
        <h2>The rig on this day</h2>
        <p class="quiet small">{{ h.rig ?? 'No rig was noted for these runs.' }} <a routerLink="/rigs">All rigs</a></p>
        <sd-rig-health [health]="h.health" />
      </section>
    }
  `,
  styles: `
    :host {
      gap: 16px;
    }
    section {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    sd-rig-health {
      width: 100%;
    }
    td:first-child,
    th:first-child {
      padding-left: 12px;
    }
  `,
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Day {
  readonly day = input.required<string>();
  private readonly data = inject(SessionData);
  private readonly crumbs = inject(Breadcrumb).crumbs;
  private readonly loaded = toSignal(toObservable(this.day).pipe(switchMap((day) => this.data.held(day))), {
    initialValue: LOADING,
  });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly held = computed(() => this.loaded().value);

  constructor() {
    effect(() =>
      this.crumbs.set([
        { label: 'Sessions', link: '/sessions' },
        { label: this.day(), link: null },
      ]),
    );
    inject(ScreenKeys).hints.set([]);
  }

  protected notes(purpose: 'opening' | 'unit' | 'closing', overruled: number): string {
    const parts = [PURPOSE_NAMES[purpose].toLowerCase()];
    if (overruled > 0) parts.push(`${overruled} ${overruled === 1 ? 'check' : 'checks'} overruled`);
    return parts.filter((p) => p !== '').join(' · ');
  }
}
