import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { PHOTO_SUBJECTS, type Photograph, type PhotoSubject } from '#contracts/photograph';
import { DIALOG } from '../../ui/dialog/dialog';
import { CorrectionData } from '../../data/corrections';
import { PhotographData, photoUrl } from '../../data/photographs';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { DateField } from '../../ui/field/date-field';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';

const SUBJECT_WORDS: Readonly<Record<PhotoSubject, string>> = {
  unit: 'the unit',
  box: 'its box',
  'set-up': 'the set-up',
};

/** Photographs of a unit, its box, its set-up: seen in small, opened large, brought in with a caption and a day. */
@Component({
  selector: 'sd-unit-photos',
  imports: [Button, ChoiceField, DateField, DIALOG, ProblemBox, TextField],
  template: `
    @if (photographs().length > 0) {
      <ul>
        @for (p of photographs(); track p.id) {
          <li>
            <button type="button" class="open" [attr.aria-label]="'Open large: ' + words(p)" (click)="opened.set(p)">
              <img [src]="url(p)" [alt]="words(p)" loading="lazy" [width]="p.widthPx" [height]="p.heightPx" />
            </button>
            <p class="small">
              {{ p.caption || words(p) }} <span class="num quiet">{{ p.date }}</span>
            </p>
            <div class="small">
              <p-button
                size="small"
                [text]="true"
                label="Leave out"
                [ariaLabel]="'Leave out: ' + words(p)"
                (onClick)="leaveOut(p)"
              />
              <p-button
                size="small"
                [text]="true"
                severity="danger"
                label="Delete"
                [ariaLabel]="'Delete for good: ' + words(p)"
                (onClick)="removalAsked.emit(p.id)"
              />
            </div>
          </li>
        }
      </ul>
    } @else {
      <p class="quiet">None yet.</p>
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    <div class="form" role="group" aria-label="Bring in a photograph">
      <sd-choice-field
        label="Shows"
        bare
        [options]="subjects"
        [value]="subject()"
        (valueChange)="subject.set($event)"
      />
      <sd-text-field
        label="Caption"
        bare
        placeholder="Caption"
        [most]="300"
        [value]="caption()"
        (valueChange)="caption.set($event)"
      />
      <sd-date-field label="Taken on" bare required [value]="date()" (valueChange)="date.set($event ?? date())" />
      <input
        #field
        type="file"
        accept="image/jpeg,image/png,image/webp"
        hidden
        aria-label="Choose a photograph"
        (change)="bringIn(field)"
      />
      <p-button
        size="small"
        severity="secondary"
        icon="pi pi-image"
        label="Bring in a photograph"
        [disabled]="saving.isBusy()"
        (onClick)="field.click()"
      />
    </div>
    <p class="small quiet">
      Position, device and names that the camera wrote into the file are taken away before it is kept; the picture
      itself is not coded anew.
    </p>
    <p-dialog
      [header]="opened() ? words(opened()!) : ''"
      [visible]="opened() !== null"
      (visibleChange)="opened.set(null)"
      [modal]="true"
      [dismissableMask]="true"
      [style]="{ 'max-width': '96vw' }"
    >
      @if (opened(); as p) {
        <img class="large" [src]="url(p)" [alt]="words(p)" />
      }
    </p-dialog>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
      gap: 12px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li p {
      margin: 4px 0 0;
    }
    .open {
      width: 100%;
      padding: 0;
      border: 1px solid var(--rule);
      background: var(--panel);
      cursor: zoom-in;
    }
    li img {
      display: block;
      width: 100%;
      height: 140px;
      object-fit: contain;
    }
    .large {
      display: block;
      max-width: 100%;
      max-height: 80vh;
    }
    .form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitPhotos {
  readonly unit = input.required<string>();
  readonly photographs = input.required<readonly Photograph[]>();
  readonly removalAsked = output<string>();

  private readonly data = inject(PhotographData);
  private readonly corrections = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly subject = signal<PhotoSubject>('unit');
  protected readonly caption = signal('');
  protected readonly date = signal(today());
  protected readonly opened = signal<Photograph | null>(null);
  protected readonly subjects = PHOTO_SUBJECTS.map((value) => ({ label: SUBJECT_WORDS[value], value }));
  protected readonly url = photoUrl;
  protected readonly words = ({ subject, caption, date }: Photograph): string =>
    caption === '' ? `Photograph of ${SUBJECT_WORDS[subject]}, ${date}` : caption;

  protected bringIn(field: HTMLInputElement): void {
    const file = field.files?.[0];
    // Choosing the same file again is a change, too.
    field.value = '';
    if (!file || this.refusals.stop()) return;
    const about = { subject: this.subject(), caption: this.caption().trim(), date: this.date() };
    this.saving.run(this.data.add(this.unit(), file, about), () => this.caption.set(''));
  }

  /** Noted as a correction: the list of corrections has its way back. */
  protected leaveOut({ id }: Photograph): void {
    this.saving.run(this.corrections.correct({ kind: 'photograph-left-out', photograph: id, isOut: true }));
  }
}
