import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { ACCEPTED_SOUND } from '#core/audio/sound-files';
import { Button } from 'primeng/button';
import { filter, map, switchMap, takeLast } from 'rxjs';
import type { Change } from '#contracts/correction';
import type { Run, Take } from '#contracts/specimen';
import { CorrectionData } from '../../data/corrections';
import { Saving } from '../../data/saving';
import { Uploads } from '../../data/uploads';
import { ChoiceField } from '../../ui/field/choice-field';
import { ProblemBox } from '../../ui/problem-box';

/** Which file a take is: another one is put there, or exchanged with that of another step. */
@Component({
  selector: 'sd-take-file',
  imports: [Button, ChoiceField, ProblemBox],
  template: `
    <h3>Its file</h3>
    <p class="small">
      <span class="num">{{ take().clip.name }}</span>
      <span class="quiet"> Gain, distance and notes stay with the step.</span>
    </p>
    <div class="line">
      <input
        #field
        type="file"
        [accept]="accepted"
        hidden
        aria-label="Another file for this step"
        (change)="put(field)"
      />
      <p-button
        size="small"
        severity="secondary"
        label="Put another file here"
        [disabled]="saving.isBusy()"
        (onClick)="field.click()"
      />
      @if (others().length > 0) {
        <sd-choice-field
          label="Exchange it with the file of"
          bare
          small
          [options]="others()"
          [value]="null"
          (valueChange)="exchange($event)"
          placeholder="Exchange with …"
          [disabled]="saving.isBusy()"
        />
      }
      @if (saving.isBusy()) {
        <span class="small quiet" role="status">Being stored …</span>
      }
    </div>
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
  `,
  styles: `
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeFile {
  protected readonly accepted = ACCEPTED_SOUND;
  readonly take = input.required<Take>();
  readonly run = input.required<Run>();
  readonly done = output();

  private readonly corrections = inject(CorrectionData);
  private readonly uploads = inject(Uploads);
  protected readonly saving = new Saving();
  protected readonly others = computed(() =>
    this.run()
      .takes.filter((t) => t.id !== this.take().id)
      .map((t) => ({ label: t.stepTitle, note: t.clip.name, value: t.id })),
  );

  protected put(field: HTMLInputElement): void {
    const file = field.files?.[0];
    // Choosing the same file again is a change, too.
    field.value = '';
    if (!file) return;
    const stored = this.uploads.send(file).pipe(
      filter((state) => state.kind === 'stored'),
      takeLast(1),
      map((state) => state.clip.sha256),
    );
    this.save(stored.pipe(switchMap((clip) => this.corrections.correct(filesChange([[this.take().id, clip]])))));
  }

  protected exchange(other: string): void {
    const [own, their] = [this.take(), this.run().takes.find((t) => t.id === other)];
    if (!their) return;
    const change = filesChange([[own.id, their.clip.sha256], [their.id, own.clip.sha256]]); // prettier-ignore
    this.save(this.corrections.correct(change));
  }

  private save(call: ReturnType<CorrectionData['correct']>): void {
    this.saving.run(call, () => this.done.emit());
  }
}

const filesChange = (files: readonly (readonly [take: string, clip: string])[]): Change => ({
  kind: 'take-files',
  files: files.map(([take, clip]) => ({ take, clip })),
});
