import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { BENCH_FAULTS, type BenchFault, type BenchParts } from '#contracts/bench';
import { TickField } from '../../ui/field/tick-field';
import { ChoiceField, type Choice } from '../../ui/field/choice-field';
import type { BenchChoice } from './bench-choice';

type Shelf = 'talker' | 'room' | 'microphone' | 'interface';

/** A shelf with what stands on it. */
interface ShelfRow {
  readonly id: Shelf;
  readonly name: string;
  readonly options: readonly Choice<string>[];
}

const choices = (parts: BenchParts['talkers']): Choice<string>[] => parts.map((p) => ({ label: p.name, value: p.id }));

/** What stands on the simulated bench, and which faults it makes. */
@Component({
  selector: 'sd-bench-panel',
  imports: [ChoiceField, TickField],
  template: `
    <h3>On the simulated bench</h3>
    <div class="shelves">
      @for (shelf of shelves(); track shelf.id) {
        <sd-choice-field
          [label]="shelf.name"
          [options]="shelf.options"
          [value]="choice()[shelf.id]"
          (valueChange)="choose(shelf.id, $event)"
        />
      }
    </div>
    <fieldset>
      <legend class="small quiet">Faults to make</legend>
      @for (f of faults(); track f.id) {
        <sd-tick-field [value]="f.isOn" (valueChange)="setFault(f.id, $event)">{{ f.name }}</sd-tick-field>
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
      { id: 'talker', name: 'Talker', options: choices(talkers) },
      { id: 'room', name: 'Room', options: choices(rooms) },
      { id: 'microphone', name: 'Microphone', options: choices(microphones) },
      { id: 'interface', name: 'Interface', options: choices(interfaces) },
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
