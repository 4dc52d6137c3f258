import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import type { SheetField } from '#core/gear/sheet/sheet-field';
import { criterionAxis, criterionValue } from '#core/rules/criterion-value';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Knot } from '#core/rules/points-curve';
import {
  PRICE_KINDS,
  type Criterion,
  type Feature,
  type PriceCriterion,
  type PriceKind,
  type PriceMoment,
} from '#core/rules/rubric';
import type { Category } from '#contracts/common';
import type { Protocol } from '#contracts/protocol';
import { ChoiceField } from '../../ui/field/choice-field';
import { CurrencyField } from '../../ui/field/currency-field';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS, priceSheet } from '../../ui/field/number-sheets';
import { TextField } from '../../ui/field/text-field';
import { TickField } from '../../ui/field/tick-field';
import { CurveEditor } from './curve-editor';
import {
  SOURCES,
  featureFields,
  measuredChoices,
  tableCells,
  wordFields,
  wordPoints,
  wordsOf,
  withSource,
} from './rubric-draft';
import { gearKind } from '#core/gear/kinds';

const PRICE_MOMENT_CHOICES: readonly { readonly label: string; readonly value: PriceMoment }[] = [
  { label: 'the latest of the first kind', value: 'latest' },
  { label: 'that of the first test', value: 'at-review' },
  { label: 'the cheapest of the newest', value: 'cheapest' },
];
const SPREAD = { unit: '', least: 0, most: 1000 } as const;
const ANSWERS = { unit: '', isWhole: true, least: 1, most: 1000 } as const;

/** One criterion: what it is made of, and what earns points. */
@Component({
  selector: 'sd-criterion-form',
  imports: [ChoiceField, CurrencyField, CurveEditor, NumberField, TextField, TickField],
  templateUrl: './criterion-form.html',
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
    .words {
      display: grid;
      gap: 4px;
    }
    .ticks {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CriterionForm {
  readonly criterion = input.required<Criterion>();
  readonly kind = input.required<Category>();
  readonly units = input.required<readonly UnitFacts[]>();
  readonly protocols = input.required<readonly Protocol[]>();
  /** Names of the uses that the rules have weights for. */
  readonly uses = input<readonly string[]>([]);
  readonly criterionChange = output<Criterion>();

  protected readonly sheets = SHEETS;
  protected readonly spread = SPREAD;
  protected readonly answers = ANSWERS;
  protected readonly sources = SOURCES;
  protected readonly priceKinds = PRICE_KINDS;
  protected readonly moments = PRICE_MOMENT_CHOICES;
  protected readonly partsChoices = computed(() => [
    { label: 'not paid with it', value: 'none' },
    { label: 'paid with it, by the use that is looked at', value: 'any' },
    ...this.uses().map((use) => ({ label: `paid with it, for: ${use}`, value: `use ${use}` })),
  ]);
  protected readonly partsOf = ({ parts }: PriceCriterion): string =>
    parts === undefined ? 'none' : parts.use === null ? 'any' : `use ${parts.use}`;
  protected readonly priceSheet = priceSheet;
  protected readonly points = [0, 1, 2, 3, 4, 5];
  protected readonly figures = computed(() => {
    const { kind } = this;
    const own = measuredChoices(kind());
    return [...own, ...QUANTITY_IDS.filter((id) => !own.includes(id) && this.valuesOf(id).length > 0)].map((value) => ({
      label: quantity(value).name,
      value,
      note: `${this.valuesOf(value).length} units`,
    }));
  });
  protected readonly numberFields = computed(() => fieldChoices(gearKind(this.kind()).sheet.filter((f) => f.type === 'number'))); // prettier-ignore
  protected readonly wordFields = computed(() => fieldChoices(wordFields(this.kind())));
  protected readonly featureFields = computed(() => featureFields(this.kind()));
  protected readonly cells = computed(() =>
    tableCells(this.kind(), this.protocols()).map((cell) => ({ label: cell.label, value: cellName(cell) })),
  );
  protected readonly cellName = cellName;
  protected readonly axis = computed(() => criterionAxis(this.criterion(), this.kind()));
  protected readonly values = computed(() => this.units().flatMap((u) => criterionValue(this.criterion(), u) ?? []));

  private valuesOf(id: QuantityId): readonly number[] {
    return this.units().flatMap((u) => u.figures[id]?.value ?? []);
  }

  /** Merges what changed; the kind of the criterion stays. */
  protected change(part: Partial<Criterion>): void {
    this.criterionChange.emit({ ...this.criterion(), ...part } as Criterion);
  }

  protected setCurve(curve: readonly Knot[]): void {
    this.change({ curve });
  }

  /** What is usual is not written into the rules. */
  protected setMoment(moment: PriceMoment): void {
    this.change({ moment: moment === 'latest' ? undefined : moment });
  }

  protected setParts(choice: string): void {
    this.change({ parts: choice === 'none' ? undefined : { use: choice === 'any' ? null : choice.slice(4) } });
  }

  protected setSource(source: Criterion['kind']): void {
    const next = withSource(this.criterion(), source, this.kind(), this.protocols(), (id) => this.valuesOf(id));
    if (next) this.criterionChange.emit(next);
  }

  /** Sources that the kind has something of. */
  protected readonly offered = computed(() =>
    SOURCES.filter(
      (s) =>
        s.value === this.criterion().kind ||
        withSource(this.criterion(), s.value, this.kind(), this.protocols(), () => []) !== null,
    ),
  );

  protected setFigure(id: QuantityId): void {
    const c = this.criterion();
    const next = withSource(c, 'measured', this.kind(), this.protocols(), (q) => (q === id ? this.valuesOf(q) : []));
    // The curve of another figure says nothing of this one.
    if (next?.kind === 'measured') this.criterionChange.emit({ ...next, quantity: id });
  }

  protected setWordField(id: string): void {
    const field = gearKind(this.kind()).sheet.find((f) => f.id === id);
    if (field) this.change({ field: id, points: wordPoints(field) });
  }

  /** Words of the list, those that have points already, and those that units have. */
  protected wordsOf(field: string, given: Readonly<Record<string, number>>): readonly string[] {
    const found = gearKind(this.kind()).sheet.find((f) => f.id === field);
    const noted = this.units().flatMap((u) => {
      const value = u.sheet?.[field];
      return Array.isArray(value) ? (value as readonly string[]) : [];
    });
    return [...new Set([...(found ? wordsOf(found) : []), ...Object.keys(given), ...noted])];
  }

  protected readonly wordValue = (given: Readonly<Record<string, number>>, word: string): number | null =>
    Object.hasOwn(given, word) ? given[word] : null;

  /** Points of a word; emptied, it is any other word again. */
  protected withWord(given: Readonly<Record<string, number>>, word: string, value: number | null) {
    const others = Object.fromEntries(Object.entries(given).filter(([w]) => w !== word));
    return value === null ? others : { ...others, [word]: value };
  }

  protected setCell(name: string): void {
    const cell = tableCells(this.kind(), this.protocols()).find((c) => cellName(c) === name);
    if (cell) this.change({ protocol: cell.protocol, step: cell.step, row: cell.row, column: cell.column });
  }

  protected hasFeature = (features: readonly Feature[], field: string): boolean =>
    features.some((f) => f.field === field);

  protected setFeature(features: readonly Feature[], field: string, isCounted: boolean): void {
    const others = features.filter((f) => f.field !== field);
    this.change({ features: isCounted ? [...others, { field, is: null }] : others });
  }

  protected setFeatureWord(features: readonly Feature[], field: string, word: string): void {
    this.change({
      features: features.map((f) => (f.field === field ? { field, is: word.trim() === '' ? null : word } : f)),
    });
  }

  protected setBasis(basis: readonly PriceKind[], kind: PriceKind, isCounted: boolean): void {
    this.change({ basis: isCounted ? [...basis, kind] : basis.filter((b) => b !== kind) });
  }

  protected setWord(words: readonly string[] | undefined, at: number, word: string): void {
    this.change({ words: this.points.map((p) => (p === at ? word : (words?.[p] ?? ''))) });
  }
}

const fieldChoices = (fields: readonly SheetField[]) =>
  fields.map((f) => ({ label: f.name, value: f.id, note: f.group }));
const cellName = (c: { protocol: string; step: string; row: string; column: string }): string =>
  [c.protocol, c.step, c.row, c.column].join('/');
