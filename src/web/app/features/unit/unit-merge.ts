import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import type { SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { CatalogueData } from '../../data/catalogue';
import { CorrectionData } from '../../data/corrections';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { ProblemBox } from '../../ui/problem-box';

/** A unit that was entered twice becomes part of the other one. */
@Component({
  selector: 'sd-unit-merge',
  imports: [Button, ChoiceField, ProblemBox],
  template: `
    @if (isOpen()) {
      <div class="form" role="group" aria-label="Merge this unit into another one" (keydown.escape)="isOpen.set(false)">
        <p class="small">
          {{ name() }} was entered twice? All it has becomes that of the other unit, and both names mean that one. It
          can be taken apart again under “Corrections”.
        </p>
        <sd-choice-field
          label="The other unit, which stays"
          bare
          small
          [options]="targets()"
          filter
          [value]="into()"
          (valueChange)="into.set($event)"
          placeholder="Into which unit?"
        />
        <p-button size="small" label="Merge" [disabled]="into() === null || saving.isBusy()" (onClick)="merge()" />
        <p-button size="small" [text]="true" label="Cancel" (onClick)="isOpen.set(false)" />
        @if (targets().length === 0) {
          <p class="small quiet">There is no other unit of its kind.</p>
        }
      </div>
    } @else {
      <p-button size="small" severity="secondary" [text]="true" label="Merge" (onClick)="isOpen.set(true)" />
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
  `,
  styles: `
    :host:has(.form) {
      flex: 1 1 100%;
    }
    .form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .form p {
      flex: 1 1 100%;
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitMerge {
  readonly unit = input.required<SpecimenRow>();
  /** Number of the unit that it is part of now. */
  readonly merged = output<string>();

  private readonly corrections = inject(CorrectionData);
  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  protected readonly saving = new Saving();
  protected readonly isOpen = signal(false);
  protected readonly into = signal<string | null>(null);
  protected readonly name = computed(() => unitName(this.unit()));
  protected readonly targets = computed(() =>
    (this.specimens().value ?? [])
      .filter((s) => s.category === this.unit().category && s.id !== this.unit().id)
      .map((s) => ({ label: unitName(s), value: s.id })),
  );

  protected merge(): void {
    const into = this.into();
    if (into === null) return;
    this.saving.run(this.corrections.correct({ kind: 'unit-merged', unit: this.unit().id, into, isMerged: true }), () =>
      this.merged.emit(into),
    );
  }
}
