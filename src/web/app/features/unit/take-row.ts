import type { HeardPair } from '#contracts/curves';
import { pairLink } from '../../ui/pair-link';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { quantity, type QuantityId } from '#core/measure/registry';
import type { Take } from '#contracts/specimen';
import { ClipPlayer } from '../../ui/clip-player';
import { Figure } from '../../ui/figure';
import { aboutOf, takeNotes, takeSetup, type SharedNote } from './take-notes';

/** What a take says of itself in its row; the page of the take has the rest. */
const SHOWN: readonly QuantityId[] = ['samplePeak', 'integratedLoudness', 'truePeak', 'silenceRmsA'];

/** A take of a run: heard, its first figures, what stands out, and what can be done with it. */
@Component({
  selector: 'sd-take-row',
  imports: [Button, ClipPlayer, Figure, RouterLink],
  template: `
    <div class="head-line">
      <button
        type="button"
        class="toggle"
        [attr.aria-expanded]="isOpen()"
        [attr.aria-label]="(isOpen() ? 'Close ' : 'Open ') + name()"
        (click)="isOpen.set(!isOpen())"
      >
        <i [class]="isOpen() ? 'pi pi-chevron-down' : 'pi pi-chevron-right'" aria-hidden="true"></i>
      </button>
      <a class="step" [routerLink]="['/takes', take().id]">{{ take().stepTitle }}</a>
      <span class="num quiet setup">{{ setup() }}</span>
      @if (loudness(); as m) {
        <sd-figure [quantity]="m.quantity" [value]="m.value" [uncertainty]="m.uncertainty" [bound]="m.bound" />
      }
      @if (!isOpen() && notes().length > 0) {
        <span class="small warn"
          ><i class="pi pi-exclamation-triangle" aria-hidden="true"></i>
          {{ notes().length === 1 ? 'one note' : notes().length + ' notes' }}</span
        >
      }
      <a
        class="small"
        routerLink="/compare"
        [queryParams]="{ takes: take().id }"
        [attr.aria-label]="'Compare ' + name()"
        >Compare</a
      >
      @for (pair of pairs(); track pair.fitted) {
        <a
          class="small"
          routerLink="/compare"
          [queryParams]="pairLink(pair)"
          [attr.aria-label]="'With / without, ' + name()"
          >With / without</a
        >
      }
      <p-button
        size="small"
        [text]="true"
        label="Correct"
        [ariaLabel]="'Correct ' + name()"
        (onClick)="correctAsked.emit()"
      />
      <p-button
        size="small"
        [text]="true"
        label="Leave out"
        [ariaLabel]="'Leave out ' + name()"
        (onClick)="leaveOutAsked.emit()"
      />
    </div>
    @switch (take().analysis.status) {
      @case ('done') {
        @if (isOpen()) {
          <sd-clip-player [clip]="take().clip" [name]="name()" />
          <div class="figures">
            @for (m of figures(); track m.quantity) {
              <span class="labelled"
                ><span class="quiet small">{{ m.name }}</span>
                <sd-figure
                  [quantity]="m.quantity"
                  [value]="m.value"
                  [uncertainty]="m.uncertainty"
                  [bound]="m.bound"
                  [condition]="m.condition"
              /></span>
            }
          </div>
          @for (note of notes(); track note.text) {
            <p class="note" [class.problem]="note.isProblem">
              <i class="pi pi-exclamation-triangle" aria-hidden="true"></i> {{ note.text }}
            </p>
          }
        }
      }
      @case ('failed') {
        <p class="note problem" role="alert">
          <i class="pi pi-exclamation-triangle" aria-hidden="true"></i> The analysis failed:
          {{ take().analysis.reason }} The clip itself is safe.
        </p>
        <p-button size="small" label="Try again" (onClick)="retryAsked.emit()" />
      }
      @default {
        <p class="quiet" role="status">
          <i class="pi pi-spin pi-spinner" aria-hidden="true"></i>
          {{ take().analysis.status === 'running' ? 'Being measured …' : 'Waiting to be measured …' }}
        </p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 6px;
      padding: 2px 8px;
    }
    .head-line {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 12px;
    }
    .head-line .setup {
      flex: 1;
      min-width: 140px;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .toggle {
      width: 24px;
      height: 24px;
      padding: 0;
      border: 0;
      background: none;
      color: inherit;
      cursor: pointer;
    }
    .step {
      font-weight: 620;
    }
    .figures {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 20px;
    }
    .note i {
      color: var(--ochre-text);
    }
    .note.problem i {
      color: var(--cinnabar-text);
    }
  `,
  host: { class: 'panel', role: 'article', '[attr.aria-label]': 'name()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeRow {
  readonly take = input.required<Take>();
  /** Day of its run. */
  readonly date = input.required<string>();
  /** Findings that are said once for all takes of the run. */
  readonly shared = input<readonly SharedNote[]>([]);
  /** With and without something: those that it is half of. */
  readonly pairs = input<readonly HeardPair[]>([]);
  readonly correctAsked = output();
  readonly leaveOutAsked = output();
  readonly retryAsked = output();

  protected readonly pairLink = pairLink;
  protected readonly name = computed(() => `${this.take().stepTitle}, ${this.date()}`);
  protected readonly setup = computed(() => takeSetup(this.take()));
  protected readonly notes = computed(() => {
    const shared = new Set(this.shared().map((s) => s.about));
    return takeNotes(this.take()).filter((note) => !shared.has(aboutOf(note)));
  });
  protected readonly isOpen = signal(false);
  protected readonly loudness = computed(() =>
    this.take().measurements.find((m) => m.quantity === 'integratedLoudness'),
  );
  protected readonly figures = computed(() =>
    this.take()
      .measurements.filter((m) => SHOWN.includes(m.quantity))
      .map((m) => ({ ...m, name: quantity(m.quantity).name })),
  );
}
