import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { hasEveryWord } from '#core/text/every-word';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink, type Params } from '@angular/router';
import { Button } from 'primeng/button';
import { TableModule } from 'primeng/table';
import type { GearKind } from '#core/gear/gear-kind';
import { gearKind, gearKindIds } from '#core/gear/kinds';
import { listColumns } from '#core/gear/list-columns';
import type { QuantityId } from '#core/measure/registry';
import { numberText } from '#core/text/read-number';
import { categorySchema, type Category } from '#contracts/common';
import type { KeyFigure, SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { kindChoices } from '../../data/choices';
import { isOfClasses, readClasses, type ClassFilter } from '../../data/class-filter';
import { LOADING } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { ClassFields } from '../../ui/class-fields';
import { Figure } from '../../ui/figure';
import { belowTheirUnit, sortFamilies } from './families-together';
import { STAGE_NAMES, formatNumber, formatPrice, hatchUrl, kindName } from '../../ui/format';
import { KeptLists } from '../../ui/kept-lists';
import { ProblemBox } from '../../ui/problem-box';
import { ScrollingModule } from '@angular/cdk/scrolling';
import { Narrow } from '../../data/narrow';

/** A row with what is sorted and searched by, as plain fields. */
interface GearRow extends SpecimenRow {
  readonly name: string;
  /** Its figures by their names. */
  readonly byQuantity: Readonly<Partial<Record<QuantityId, KeyFigure>>>;
  readonly priceValue: number | null;
}

/** Rows that hold every word that was typed. */
export function filterRows<T extends { readonly name: string; readonly category: Category }>(
  rows: readonly T[],
  typed: string,
  category: Category | null,
): T[] {
  return rows.filter((r) => (category === null || r.category === category) && hasEveryWord(r.name, typed));
}

/** A column of a list: a figure, or what a field of the data sheet says. */
export interface FigureColumn {
  readonly name: string;
  /** What it is sorted by; null where rows of several kinds hold figures that no order compares. */
  readonly field: string | null;
  /** The figure that a kind shows here; null where it has none. */
  readonly of: (kind: Category) => QuantityId | null;
  /** The field of the sheet that stands here; null for a figure. */
  readonly sheet: { readonly field: string; readonly unit: string } | null;
}

/** Widths of columns, in pixels: of a figure with its uncertainty, of a field of the sheet, and of all others together. */
const [FIGURE_WIDTH, SHEET_WIDTH, OTHER_WIDTH] = [144, 104, 616];

const ORDINALS = ['First figure', 'Second figure', 'Third figure'];
/** More columns leave no room for the names; of one kind a person chooses. */
const MOST_MIXED = ORDINALS.length;

/**
 * Columns of a list: of one kind those that were chosen for it, or its key figures by their names; of several, each row
 * by the figures of its own kind.
 *
 * @param rows - those that are listed
 */
export function figureColumns(rows: readonly { readonly category: Category }[]): FigureColumn[] {
  const listed = new Set(rows.map((r) => r.category));
  const kinds = (listed.size === 0 ? [gearKindIds()[0]] : [...listed]).map(gearKind);
  const columnsOf = new Map(kinds.map((kind) => [kind.id, listColumns(kind)]));
  const [first] = kinds;
  const ids = (kind: GearKind): string => (columnsOf.get(kind.id) ?? []).map((c) => c.id).join();
  // Kinds that are listed alike stand in one table.
  if (kinds.every((kind) => ids(kind) === ids(first)))
    return (columnsOf.get(first.id) ?? []).map(
      (column): FigureColumn =>
      column.from === 'figure'
        ? { name: column.name, field: `byQuantity.${column.id}.value`, of: () => column.id, sheet: null }
        : { name: column.name, field: `sheet.${column.field}`, of: () => null, sheet: { field: column.field, unit: column.unit } }, // prettier-ignore
    );
  const figuresOf = (kind: Category): readonly QuantityId[] =>
    (columnsOf.get(kind) ?? []).flatMap((c) => (c.from === 'figure' ? [c.id] : []));
  const most = Math.min(MOST_MIXED, Math.max(...kinds.map((kind) => figuresOf(kind.id).length)));
  return ORDINALS.slice(0, most).map((name, i) => ({
    name,
    field: null,
    of: (kind) => figuresOf(kind).at(i) ?? null,
    sheet: null,
  }));
}

/** What a sheet says in a column, in words; null where it says nothing. */
export function sheetCell(value: SpecimenRow['sheet'][string] | undefined, unit: string): string | null {
  if (value === undefined) return null;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'number' ? numberText(value, { unit }) : value.join(', ');
}

/** Every specimen ever tested. */
@Component({
  selector: 'sd-gear',
  imports: [
    Button,
    ChoiceField,
    ClassFields,
    Figure,
    KeptLists,
    ProblemBox,
    RouterLink,
    ScrollingModule,
    TableModule,
    TextField,
  ],
  templateUrl: './gear.html',
  styleUrl: './gear.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Gear {
  protected readonly isNarrow = inject(Narrow).isNarrow;
  private readonly router = inject(Router);
  private readonly loaded = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly all = computed<GearRow[]>(() =>
    (this.loaded().value ?? []).map((row) => ({
      ...row,
      name: unitName(row),
      byQuantity: Object.fromEntries(row.figures.map((f) => [f.quantity, f])),
      priceValue: row.price?.amount ?? null,
    })),
  );
  /** ?q= is what is searched, ?kind= the kind, ?is= the classes: a link shows the same. */
  readonly q = input<string>();
  readonly kind = input<string>();
  readonly is = input<string>();
  protected readonly typed = linkedSignal(() => this.q() ?? '');
  /** A column for each key figure of the kinds that are listed. */
  protected readonly columns = computed(() => figureColumns(this.rows()));
  protected readonly kindName = kindName;
  protected readonly hatch = hatchUrl;
  protected readonly category = computed<Category | null>(() => categorySchema.safeParse(this.kind()).data ?? null);
  private readonly classes = computed<ClassFilter>(() => {
    const kind = this.category();
    return kind === null ? [] : readClasses(this.is(), kind);
  });
  protected readonly rows = computed(() =>
    filterRows(this.all(), this.typed(), this.category()).filter((r) => isOfClasses(r.classes, this.classes())),
  );
  /** Configurations that stand below their unit. */
  protected readonly below = computed(() => belowTheirUnit(this.rows()));
  protected readonly isEmpty = computed(() => this.loaded().value !== null && this.all().length === 0);
  protected readonly categories = [{ label: 'All kinds', value: null }, ...kindChoices()];
  protected readonly stageName = (row: GearRow): string => STAGE_NAMES[row.stage];
  protected readonly cell = (row: GearRow, sheet: { field: string; unit: string }): string | null =>
    sheetCell(row.sheet[sheet.field], sheet.unit);
  protected readonly widthOf = ({ sheet }: FigureColumn): number => (sheet ? SHEET_WIDTH : FIGURE_WIDTH);
  protected readonly tableWidth = computed(
    () => OTHER_WIDTH + this.columns().reduce((sum, column) => sum + this.widthOf(column), 0),
  );
  protected readonly number = formatNumber;
  protected readonly price = formatPrice;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Gear', link: null }]);
    inject(ScreenKeys).hints.set([
      { keys: '/', does: 'Search' },
      { keys: '↑ ↓', does: 'Walk the list' },
      { keys: 'Enter', does: 'Open the unit' },
    ]);
  }

  protected setKind(kind: Category | null): void {
    this.ask({ kind, is: null });
  }

  protected setClasses(is: string | null): void {
    this.ask({ is });
  }

  /** What is typed goes into the address without a step back for every letter. */
  protected setTyped(typed: string): void {
    this.typed.set(typed);
    this.ask({ q: typed.trim() === '' ? null : typed }, true);
  }

  private ask(queryParams: Params, replaceUrl = false): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl });
  }

  protected readonly trackRow = (_: number, row: GearRow): string => row.id;

  protected sort({ data, field, order }: { data: GearRow[]; field: string; order: number }): void {
    sortFamilies(data, field, order);
  }

  protected open(row: GearRow): void {
    void this.router.navigate(['/gear', row.id]);
  }

  protected rowKey(event: KeyboardEvent, row: GearRow): void {
    const element = event.currentTarget as HTMLElement;
    if (event.key === 'Enter') this.open(row);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const next = event.key === 'ArrowDown' ? element.nextElementSibling : element.previousElementSibling;
      (next as HTMLElement | null)?.focus();
    }
  }

  protected pageKey(event: KeyboardEvent, search: TextField): void {
    if (event.key === '/' && !search.isFocused()) {
      event.preventDefault();
      search.focus();
    } else if (event.key === 'ArrowDown' && search.isFocused()) {
      event.preventDefault();
      document.querySelector<HTMLElement>('tr.unit')?.focus();
    }
  }
}
