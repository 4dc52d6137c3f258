import { ChangeDetectionStrategy, Component, computed, input, model, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { gearKind } from '#core/gear/kinds';
import { readDataSheet } from '#core/gear/sheet/read-data-sheet';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import { sheetValueText } from '#core/gear/sheet/sheet-value';
import type { Category } from '#contracts/common';
import { DIALOG } from '../../ui/dialog/dialog';
import { TextField } from '../../ui/field/text-field';
import { TickField } from '../../ui/field/tick-field';

/** The text of a data sheet, read into fields; what is ticked goes into the sheet, and is looked at there once more. */
@Component({
  selector: 'sd-paste-sheet',
  imports: [Button, DIALOG, TextField, TickField],
  template: `
    <p-dialog
      header="Paste a data sheet"
      [visible]="open()"
      (visibleChange)="open.set($event)"
      [modal]="true"
      [style]="{ width: 'min(880px, 94vw)' }"
    >
      <p class="small quiet">
        One figure in a line, its name before it: “Sensitivity: 22 mV/Pa”. What is not understood stays here as text.
      </p>
      <sd-text-field label="Text of the data sheet" [rows]="10" [value]="text()" (valueChange)="say($event)" />
      @if (text().trim() !== '') {
        <h3>Understood</h3>
        <ul class="plain">
          @for (line of found().read; track line.field.id) {
            <li>
              <sd-tick-field [value]="!left().has(line.field.id)" (valueChange)="tick(line.field.id, $event)"
                ><b>{{ line.field.name }}</b> <span class="num"> {{ shown(line.value) }}</span>
                <span class="quiet small"> {{ line.line }}</span></sd-tick-field
              >
            </li>
          } @empty {
            <li class="quiet">Nothing yet.</li>
          }
        </ul>
        @if (found().left.length > 0) {
          <h3>Not understood</h3>
          <ul class="plain quiet small">
            @for (line of found().left; track $index) {
              <li>
                {{ line.line }}
                @if (line.why) {
                  <span class="warn">— {{ line.why }}</span>
                }
              </li>
            }
          </ul>
        }
      }
      <ng-template #footer>
        <p-button label="Cancel" severity="secondary" [text]="true" (onClick)="open.set(false)" />
        <p-button [label]="'Take ' + count() + ' into the sheet'" [disabled]="count() === 0" (onClick)="take()" />
      </ng-template>
    </p-dialog>
  `,
  styles: `
    ul.plain {
      list-style: none;
      margin: 0;
      padding: 0;
      display: grid;
      gap: 4px;
    }
    h3 {
      margin-top: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PasteSheet {
  readonly kind = input.required<Category>();
  readonly open = model.required<boolean>();
  readonly taken = output<ReadonlyMap<string, SheetValue>>();

  protected readonly text = signal('');
  /** Fields that were unticked. */
  protected readonly left = signal<ReadonlySet<string>>(new Set());
  protected readonly found = computed(() => readDataSheet(this.text(), gearKind(this.kind()).sheet));
  protected readonly count = computed(() => this.found().read.filter((l) => !this.left().has(l.field.id)).length);
  protected readonly shown = sheetValueText;

  protected say(text: string): void {
    this.text.set(text);
    this.left.set(new Set());
  }

  protected tick(field: string, isTaken: boolean): void {
    this.left.update((before) => {
      const left = new Set(before);
      if (isTaken) left.delete(field);
      else left.add(field);
      return left;
    });
  }

  protected take(): void {
    const lines = this.found().read.filter((l) => !this.left().has(l.field.id));
    this.taken.emit(new Map(lines.map((l) => [l.field.id, l.value])));
    this.open.set(false);
    this.say('');
  }
}
