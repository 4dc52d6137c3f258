import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { ListeningData } from '../../data/listening';
import { LOADING } from '../../data/loaded';
import { ProblemBox } from '../../ui/problem-box';
import { ATTRIBUTE_NAMES, DESIGN_NAMES, STATUS_NAMES } from './design-words';
import { toldApart } from '../../ui/told-apart';

/** Listening tests, newest first. */
@Component({
  selector: 'sd-tests',
  imports: [Button, ProblemBox, RouterLink],
  template: `
    <div class="title">
      <h1>Listening</h1>
      <div class="actions">
        <a routerLink="/listening/words">Words over the years</a>
        <p-button label="New test" icon="pi pi-plus" (onClick)="create()" />
      </div>
    </div>
    <p class="quiet">
      Blind tests at matched level. Every answer joins one scale for the whole catalogue, whoever gave it and whenever.
    </p>
    @if (loaded().problem; as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (tests().length > 0) {
      <div class="panel pad">
        <table class="plain-table">
          <thead>
            <tr>
              <th class="head" scope="col">Test</th>
              <th class="head" scope="col">Design</th>
              <th class="head" scope="col">Asked for</th>
              <th class="head" scope="col">Day</th>
              <th class="head right" scope="col">Listeners</th>
              <th class="head" scope="col">State</th>
            </tr>
          </thead>
          <tbody>
            @for (test of tests(); track test.id) {
              <tr>
                <td>
                  <a [routerLink]="['/listening', test.id]">{{ test.name }}</a>
                  <span class="quiet small"> {{ apart().get(test.id) }}</span>
                </td>
                <td>{{ designs[test.design].name }}</td>
                <td>{{ attributes[test.attribute] }}</td>
                <td class="num">{{ test.day }}</td>
                <td class="num right">{{ test.finished }} of {{ test.listeners }} done</td>
                <td>{{ test.isRevealed ? 'revealed' : statuses[test.status] }}</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    } @else if (loaded().value) {
      <section class="panel pad">
        <h2>No test yet</h2>
        <p>Choose a step and some units; aligning, level matching and shuffling are done for you.</p>
        <div><p-button label="Set up a test" (onClick)="create()" /></div>
      </section>
    }
  `,
  styleUrl: './listening.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Tests {
  private readonly router = inject(Router);
  protected readonly loaded = toSignal(inject(ListeningData).tests, { initialValue: LOADING });
  protected readonly tests = computed(() => this.loaded().value ?? []);
  protected readonly apart = computed(() => toldApart(this.tests()));
  protected readonly designs = DESIGN_NAMES;
  protected readonly attributes = ATTRIBUTE_NAMES;
  protected readonly statuses = STATUS_NAMES;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Listening', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected create(): void {
    void this.router.navigate(['/listening/new']);
  }
}
