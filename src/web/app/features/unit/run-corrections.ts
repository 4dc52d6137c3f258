import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import type { Change } from '#contracts/correction';
import type { Run, SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { ChoiceField } from '../../ui/field/choice-field';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';

/** What can be corrected of a run: it belongs to another unit, or does not count. */
@Component({
  selector: 'sd-run-corrections',
  imports: [Button, ChoiceField],
  template: `
    @if (isMoving()) {
      <sd-choice-field
        [label]="'Move the run of ' + run().date + ' to'"
        bare
        small
        [options]="targets()"
        filter
        [value]="null"
        (valueChange)="move($event)"
        placeholder="To which unit?"
      />
      <p-button size="small" [text]="true" label="Leave it here" (onClick)="isMoving.set(false)" />
    } @else {
      <p-button
        size="small"
        [text]="true"
        label="Move to another unit"
        [ariaLabel]="'Move to another unit: the run of ' + run().date"
        (onClick)="isMoving.set(true)"
      />
      <p-button
        size="small"
        [text]="true"
        label="Leave out"
        [ariaLabel]="'Leave out the run of ' + run().date"
        (onClick)="corrected.emit({ kind: 'run-left-out', run: run().id, isOut: true })"
      />
      <p-button
        size="small"
        [text]="true"
        severity="danger"
        label="Delete"
        [ariaLabel]="'Delete for good: the run of ' + run().date"
        (onClick)="removalAsked.emit()"
      />
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 4px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunCorrections {
  readonly run = input.required<Run>();
  /** Unit that it is noted with. */
  readonly unit = input.required<SpecimenRow>();
  readonly corrected = output<Change>();
  readonly removalAsked = output();

  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  protected readonly isMoving = signal(false);
  protected readonly targets = computed(() =>
    (this.specimens().value ?? [])
      .filter((s) => s.category === this.unit().category && s.id !== this.unit().id)
      .map((s) => ({ label: unitName(s), value: s.id })),
  );

  protected move(unit: string | null): void {
    if (unit === null) return;
    this.isMoving.set(false);
    this.corrected.emit({ kind: 'run-moved', run: this.run().id, unit });
  }
}
