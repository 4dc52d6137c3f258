import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import type { SpecimenRow } from '#contracts/specimen';
import { CorrectionData } from '../../data/corrections';
import { Saving } from '../../data/saving';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { ProblemBox } from '../../ui/problem-box';

/** As many characters as a name can have. */
const MOST = 120;

/** Maker, model and label of a unit, put right where they were typed wrongly. */
@Component({
  selector: 'sd-unit-name',
  imports: [Button, FormsModule, ProblemBox, TextField],
  template: `
    @if (draft(); as n) {
      <form (ngSubmit)="save()" aria-label="Rename the unit" (keydown.escape)="draft.set(null)">
        @for (part of parts; track part.id) {
          <sd-text-field
            [label]="part.name"
            bare
            [most]="most"
            [value]="n[part.id]"
            (valueChange)="change(part.id, $event)"
          />
        }
        <p-button type="submit" size="small" label="Correct the name" />
        <p-button type="button" size="small" [text]="true" label="Cancel" (onClick)="draft.set(null)" />
      </form>
    } @else {
      <p-button size="small" severity="secondary" [text]="true" label="Rename" (onClick)="start()" />
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
  `,
  styles: `
    :host:has(form) {
      flex: 1 1 100%;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitName {
  readonly unit = input.required<Pick<SpecimenRow, 'id' | 'maker' | 'model' | 'label'>>();

  private readonly corrections = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly draft = signal<{ maker: string; model: string; label: string } | null>(null);
  protected readonly most = MOST;
  protected readonly parts = [
    { id: 'maker', name: 'Maker' },
    { id: 'model', name: 'Model' },
    { id: 'label', name: 'Label' },
  ] as const;

  protected start(): void {
    const { maker, model, label } = this.unit();
    this.draft.set({ maker, model, label });
  }

  protected change(part: 'maker' | 'model' | 'label', text: string): void {
    this.draft.update((n) => n && { ...n, [part]: text });
  }

  protected save(): void {
    const names = this.draft();
    if (!names || this.refusals.stop()) return;
    this.saving.run(this.corrections.correct({ kind: 'unit-name', unit: this.unit().id, ...names }), () =>
      this.draft.set(null),
    );
  }
}
