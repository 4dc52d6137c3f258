import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { tap } from 'rxjs';
import { isSameName } from '#core/text/same-name';
import type { Removable, Removal, RemovalPreview } from '#contracts/removal';
import { DIALOG } from '../../ui/dialog/dialog';
import { CorrectionData } from '../../data/corrections';
import { Saving } from '../../data/saving';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { bytesWords } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';

/** What somebody wants to be gone. */
export interface Unwanted {
  readonly what: Removable;
  readonly id: string;
}

const WORDS: Readonly<Record<Removable, string>> = {
  unit: 'this unit',
  run: 'this run',
  take: 'this take',
  photograph: 'this photograph',
};

/** Deleting for good: says all that goes, and asks for the unit’s name. Open while there is something to delete. */
@Component({
  selector: 'sd-removal-dialog',
  imports: [Button, DIALOG, FormsModule, ProblemBox, TextField],
  template: `
    <p-dialog
      [header]="'Delete ' + words() + ' for good'"
      [visible]="unwanted() !== null"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [style]="{ width: '600px', 'max-width': '96vw' }"
    >
      @if (preview(); as p) {
        <p>
          <strong>{{ p.title }}</strong>{{ p.what === 'unit' ? '' : ', of ' + p.unit }}
        </p>
        @if (p.refusal; as why) {
          <p class="bad" role="alert"><i class="pi pi-ban" aria-hidden="true"></i> {{ why }}</p>
        } @else {
          <h3>Goes, and does not come back</h3>
          <ul>
            @for (line of p.goes; track line) {
              <li>{{ line }}</li>
            }
          </ul>
          @if (p.bytes > 0) {
            <p class="num quiet small">{{ bytes(p.bytes) }} on the disk</p>
          }
          <h3>Stays</h3>
          <ul class="quiet">
            @for (line of p.stays; track line) {
              <li>{{ line }}</li>
            }
            <li>one line that it was deleted, with the day and the reason</li>
          </ul>
          <p class="small quiet">{{ instead() }}</p>
          <form (ngSubmit)="remove(p)">
            <sd-text-field
              [label]="'To delete it, type the name of the unit: ' + p.unit"
              [value]="name()"
              (valueChange)="name.set($event)"
            />
            @if (isOther()) {
              <p class="bad small" role="alert">That is not the name of this unit. Nothing was deleted.</p>
            }
            <sd-text-field
              label="Reason, for the line that stays"
              [most]="500"
              [value]="reason()"
              (valueChange)="reason.set($event)"
            />
            <div class="actions">
              <p-button type="button" severity="secondary" label="Keep it" (onClick)="closed.emit()" />
              <p-button type="submit" severity="danger" label="Delete for good" [disabled]="saving.isBusy()" />
            </div>
          </form>
        }
      } @else if (!saving.problem()) {
        <p class="quiet" role="status">Looking at what hangs on it …</p>
      }
      @if (saving.problem(); as p) {
        <sd-problem-box [problem]="p" />
      }
    </p-dialog>
  `,
  styles: `
    ul {
      margin: 0 0 8px;
      padding-left: 20px;
    }
    form {
      display: grid;
      gap: 8px;
      margin-top: 12px;
    }
    .actions {
      display: flex;
      gap: 8px;
      justify-content: flex-end;
      margin-top: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RemovalDialog {
  readonly unwanted = input.required<Unwanted | null>();
  readonly closed = output();
  readonly removed = output<Removal>();
  /** Set while it is being deleted, and taken back where that is refused. */
  readonly deleting = output<boolean>();

  private readonly data = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly preview = signal<RemovalPreview | null>(null);
  protected readonly name = signal('');
  protected readonly reason = signal('');
  /** The name that was typed when deleting was asked for; null before that. */
  private readonly tried = signal<string | null>(null);
  protected readonly isOther = computed(() => this.tried() === this.name());
  protected readonly words = computed(() => WORDS[this.unwanted()?.what ?? 'take']);
  protected readonly instead = computed(() =>
    this.unwanted()?.what === 'unit'
      ? 'To keep it and have it count for nothing, leave out its runs instead; if it was entered twice, merge it.'
      : 'To keep it and have it count for nothing, leave it out instead.',
  );
  protected readonly bytes = bytesWords;

  constructor() {
    effect(() => {
      const unwanted = this.unwanted();
      untracked(() => this.look(unwanted));
    });
  }

  private look(unwanted: Unwanted | null): void {
    this.preview.set(null);
    this.name.set('');
    this.reason.set('');
    this.tried.set(null);
    if (unwanted)
      this.saving.run(this.data.previewRemoval(unwanted.what, unwanted.id), (preview) => this.preview.set(preview));
  }

  protected remove({ unit }: RemovalPreview): void {
    const unwanted = this.unwanted();
    if (!unwanted || this.refusals.stop()) return;
    this.tried.set(null);
    if (!isSameName(this.name(), unit)) {
      this.tried.set(this.name());
      return;
    }
    this.deleting.emit(true);
    const asked = this.data.remove({ ...unwanted, name: this.name(), reason: this.reason() });
    this.saving.run(asked.pipe(tap({ error: () => this.deleting.emit(false) })), (removal) =>
      this.removed.emit(removal),
    );
  }
}
