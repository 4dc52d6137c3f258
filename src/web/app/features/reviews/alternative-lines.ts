import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { map } from 'rxjs';
import type { Alternative, LineMark, Proposal } from '#contracts/review';
import { unitName } from '#contracts/unit-name';
import { CatalogueData } from '../../data/catalogue';
import { TextField } from '../../ui/field/text-field';
import { LineReason } from './line-reason';
import { changedAt, renewed, without } from './review-draft';

/** Better alternatives, each with the reason. A name of the catalogue means that unit. */
@Component({
  selector: 'sd-alternative-lines',
  imports: [Button, LineReason, TextField],
  template: `
    <h3>Better alternatives</h3>
    @for (line of lines(); track $index; let i = $index) {
      <div class="line" role="group" [attr.aria-label]="'Alternative ' + (i + 1)">
        <sd-text-field
          class="unit"
          label="Unit"
          bare
          placeholder="Unit"
          [most]="120"
          [suggestions]="names()"
          [value]="line.name"
          (valueChange)="rename(i, $event)"
        />
        <sd-line-reason
          [line]="line"
          [name]="line.name"
          [marks]="marks()"
          [unit]="unit()"
          (textChange)="change(i, { text: $event })"
          (takenOut)="linesChange.emit(without(lines(), i))"
          (renewAsked)="renew(i)"
        />
      </div>
    } @empty {
      <p class="quiet small">None yet.</p>
    }
    <p-button icon="pi pi-plus" [text]="true" size="small" label="Name an alternative" (onClick)="add()" />
  `,
  styleUrl: './lines.css',
  styles: `
    .unit {
      flex: 0 1 240px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AlternativeLines {
  readonly lines = input.required<readonly Alternative[]>();
  readonly marks = input.required<readonly LineMark[]>();
  readonly proposals = input.required<readonly Proposal[]>();
  readonly unit = input.required<string>();
  readonly linesChange = output<Alternative[]>();

  private readonly units = toSignal(inject(CatalogueData).specimens.pipe(map(({ value }) => value ?? [])), { initialValue: [] }); // prettier-ignore
  protected readonly without = without<Alternative>;

  protected names(): string[] {
    return this.units().map((u) => unitName(u));
  }

  protected change(at: number, part: Partial<Alternative>): void {
    this.linesChange.emit(changedAt(this.lines(), at, { ...this.lines()[at], ...part }));
  }

  protected rename(at: number, name: string): void {
    const unit = this.units().find((u) => unitName(u) === name.trim())?.id ?? null;
    this.change(at, { name, unit });
  }

  protected renew(at: number): void {
    this.linesChange.emit(changedAt(this.lines(), at, renewed(this.lines()[at], this.proposals())));
  }

  protected add(): void {
    this.linesChange.emit([...this.lines(), { unit: null, name: '', text: '', restsOn: null }]);
  }
}
