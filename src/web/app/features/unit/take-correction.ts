import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import type { TakeSettings } from '#contracts/session-plan';
import type { Take } from '#contracts/specimen';
import { CorrectionData } from '../../data/corrections';
import { Saving } from '../../data/saving';
import { Refusals } from '../../ui/field/refusals';
import { ProblemBox } from '../../ui/problem-box';
import { TakeSettingsForm } from '../../ui/take-settings-form';
import { changeOfTake, settingsOfTake } from './take-change';

/** What was noted wrongly with a take of the archive is put right. */
@Component({
  selector: 'sd-take-correction',
  imports: [Button, Dialog, ProblemBox, TakeSettingsForm],
  template: `
    <p-dialog
      [header]="'Correct ' + (take()?.stepTitle ?? '')"
      [visible]="take() !== null"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [style]="{ width: '640px', 'max-width': '96vw' }"
    >
      @if (draft(); as r) {
        <p class="small quiet">
          For what was noted wrongly. The run is measured anew; what stood before is kept, and can be put back.
        </p>
        <sd-take-settings-form
          idPrefix="c-"
          [settings]="r.settings"
          [note]="r.note"
          (settingsChange)="draft.set({ settings: $event, note: r.note })"
          (noteChange)="draft.set({ settings: r.settings, note: $event })"
        />
        @if (r.settings.gainDb === null) {
          <p class="bad small">A take of the archive has a gain: without it no figure can be compared.</p>
        }
      }
      @if (saving.problem(); as p) {
        <sd-problem-box [problem]="p" />
      }
      <ng-template #footer>
        <p-button severity="secondary" label="Leave it" (onClick)="closed.emit()" />
        <p-button label="Correct it" [disabled]="draft()?.settings?.gainDb === null" (onClick)="save()" />
      </ng-template>
    </p-dialog>
  `,
  styles: `
    .bad {
      color: var(--cinnabar-text);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeCorrection {
  /** The take; null while nothing is corrected. */
  readonly take = input.required<Take | null>();
  readonly closed = output();

  private readonly corrections = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly draft = signal<{ settings: TakeSettings; note: string } | null>(null);

  constructor() {
    effect(() => {
      const take = this.take();
      this.draft.set(take && { settings: settingsOfTake(take), note: take.note });
      this.saving.problem.set(null);
    });
  }

  protected save(): void {
    const [take, draft] = [this.take(), this.draft()];
    if (!take || !draft || this.refusals.stop()) return;
    const change = changeOfTake(take, draft.settings, draft.note);
    if (change) this.saving.run(this.corrections.correct(change), () => this.closed.emit());
  }
}
