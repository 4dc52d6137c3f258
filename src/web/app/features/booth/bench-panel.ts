import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Checkbox } from 'primeng/checkbox';
import { BENCH_FAULTS, type BenchFault, type BenchParts } from '#contracts/bench';
import type { BenchChoice } from './bench-choice';

type Shelf = 'talker' | 'room' | 'microphone' | 'interface';

/** A shelf with what stands on it. */
interface ShelfRow {
  readonly id: Shelf;
  readonly name: string;
  readonly options: BenchParts['talkers'];
}

/** What stands on the simulated bench, and which faults it makes. */
@Component({
  selector: 'sd-bench-panel',
  imports: [Checkbox, FormsModule],
  template: `
    <h3>On the simulated bench</h3>
    <div class="shelves">
      @for (shelf of shelves(); track shelf.id) {
        <div class="field">
          <label [for]="'b-' + shelf.id">{{ shelf.name }}</label>
          <select [id]="'b-' + shelf.id" [ngModel]="choice()[shelf.id]" (ngModelChange)="choose(shelf.id, $event)">
            @for (o of shelf.options; track o.id) {
              <option [value]="o.id">{{ o.name }}</option>
            }
          </select>
        </div>
      }
    </div>
    <fieldset>
      <legend class="small quiet">Faults to make</legend>
      @for (f of faults(); track f.id) {
        <span class="check">
          <p-checkbox
            [inputId]="'f-' + f.id"
            [binary]="true"
            [ngModel]="f.isOn"
            (ngModelChange)="setFault(f.id, $event)"
          />
          <label [for]="'f-' + f.id">{{ f.name }}</label>
        </span>
      }
    </fieldset>
  `,
  styles: `
    :host,
    fieldset {
      display: grid;
      gap: 8px;
    }
    .shelves,
    fieldset {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
    fieldset {
      border: 1px solid var(--rule);
      margin: 0;
    }
    select {
      font: inherit;
      color: inherit;
      background: var(--panel);
      border: 1px solid var(--rule);
      border-radius: 2px;
      padding: 4px 6px;
    }
    .check {
      display: inline-flex;
      gap: 6px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPanel {
  readonly parts = input.required<BenchParts>();
  readonly choice = input.required<BenchChoice>();
  readonly choiceChange = output<BenchChoice>();

  protected readonly shelves = computed<readonly ShelfRow[]>(() => {
    const { talkers, rooms, microphones, interfaces } = this.parts();
    return [
      { id: 'talker', name: 'Talker', options: talkers },
      { id: 'room', name: 'Room', options: rooms },
      { id: 'microphone', name: 'Microphone', options: microphones },
      { id: 'interface', name: 'Interface', options: interfaces },
    ];
  });
  protected readonly faults = computed(() =>
    BENCH_FAULTS.map((id) => ({
      id,
      name: this.parts().faults.find((f) => f.id === id)?.name ?? id,
      isOn: this.choice().faults.includes(id),
    })),
  );

  protected choose(shelf: Shelf, id: string): void {
    this.choiceChange.emit({ ...this.choice(), [shelf]: id });
  }

  protected setFault(fault: BenchFault, isOn: boolean): void {
    const others = this.choice().faults.filter((f) => f !== fault);
    this.choiceChange.emit({ ...this.choice(), faults: isOn ? [...others, fault] : others });
  }
}
