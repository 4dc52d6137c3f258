import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { filter, map, take } from 'rxjs';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import type { UnitMeasurement } from '#contracts/measurement';
import { currentSheet } from '#contracts/sheet';
import type { SpecimenSheet } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { Refusals } from '../../ui/field/refusals';
import { SheetEntryField } from '../../ui/field/sheet-field';
import { TextField } from '../../ui/field/text-field';
import { ProblemBox } from '../../ui/problem-box';
import { PasteSheet } from './paste-sheet';
import { changedEntries, earlierEntries, fromSibling, sheetParts } from './sheet-rows';

type Draft = ReadonlyMap<string, SheetValue | null>;

/** The data sheet of a unit: what its maker says, each field beside what was measured of it. */
@Component({
  selector: 'sd-unit-sheet',
  imports: [Button, ChoiceField, FormsModule, PasteSheet, ProblemBox, SheetEntryField, TextField],
  templateUrl: './unit-sheet.html',
  styleUrl: './unit-sheet.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitSheet {
  readonly sheet = input.required<SpecimenSheet>();
  /** Figures of the run that counts. */
  readonly figures = input.required<readonly UnitMeasurement[]>();

  private readonly data = inject(CatalogueData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly draft = signal<Draft | null>(null);
  protected readonly reason = signal('');
  protected readonly isPasting = signal(false);
  private readonly specimens = toSignal(this.data.specimens, { initialValue: LOADING });

  private readonly stands = computed(() => currentSheet(this.sheet().sheet));
  private readonly values = computed<ReadonlyMap<string, SheetValue | null>>(
    () => new Map<string, SheetValue | null>([...this.stands(), ...(this.draft() ?? [])]),
  );
  protected readonly parts = computed(() => sheetParts(this.sheet().row.category, this.values(), this.figures()));
  /** What is filled in; a sheet is read without its gaps. */
  protected readonly filled = computed(() =>
    this.parts()
      .map((part) => ({ ...part, rows: part.rows.filter((r) => r.value !== null) }))
      .filter((part) => part.rows.length > 0),
  );
  protected readonly changes = computed(() => changedEntries(this.draft() ?? new Map(), this.sheet().sheet));
  /** Something that stood there is changed or taken back: that has a reason. */
  protected readonly replaces = computed(() => this.changes().some((c) => this.stands().has(c.field)));
  protected readonly earlier = computed(() => earlierEntries(this.sheet().row.category, this.sheet().sheet));
  /** Units to copy from: of its model first, then of its maker. */
  protected readonly siblings = computed(() => {
    const { row } = this.sheet();
    const nearness = (other: typeof row): number =>
      (other.maker === row.maker ? 1 : 0) + (other.maker === row.maker && other.model === row.model ? 1 : 0);
    return (this.specimens().value ?? [])
      .filter((other) => other.category === row.category && other.id !== row.id)
      .sort((a, b) => nearness(b) - nearness(a))
      .map((other) => ({ label: unitName(other), value: other.id }));
  });

  protected begin(): void {
    this.draft.set(new Map());
    this.reason.set('');
  }

  protected put(field: string, value: SheetValue | null): void {
    this.draft.update((draft) => new Map(draft ?? []).set(field, value));
  }

  protected takePasted(values: ReadonlyMap<string, SheetValue>): void {
    this.draft.update((draft) => new Map<string, SheetValue | null>([...(draft ?? []), ...values]));
  }

  protected copyFrom(id: string): void {
    const other = this.data.sheet(id).pipe(
      map((loaded) => loaded.value),
      filter((value) => value !== null),
      take(1),
    );
    this.saving.run(other, ({ sheet }) =>
      this.draft.update((draft) =>
        fromSibling(this.sheet().row.category, draft ?? new Map(), this.sheet().sheet, sheet),
      ),
    );
  }

  protected cancel(): void {
    this.draft.set(null);
  }

  protected save(): void {
    if (this.refusals.stop()) return;
    const entries = this.changes();
    if (entries.length === 0) {
      this.draft.set(null);
      return;
    }
    const body = { entries, reason: this.replaces() ? this.reason().trim() : '' };
    this.saving.run(this.data.fillSheet(this.sheet().row.id, body), () => this.draft.set(null));
  }
}
