import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { TableModule } from 'primeng/table';
import { gearKind } from '#core/gear/kinds';
import { quantity, type QuantityId } from '#core/measure/registry';
import { CATEGORIES, type Category } from '#contracts/common';
import type { KeyFigure, SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { Figure } from '../../ui/figure';
import { CATEGORY_NAMES, STAGE_NAMES, formatNumber, formatPrice } from '../../ui/format';
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
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return rows.filter(
    (r) => (category === null || r.category === category) && words.every((w) => r.name.toLowerCase().includes(w)),
  );
}

/** Figures that rows of these kinds are listed by: of each kind its own, in the order of the kinds. */
export function figureColumns(
  rows: readonly { readonly category: Category }[],
): { readonly id: QuantityId; readonly name: string; readonly field: string }[] {
  const kinds = new Set(rows.map((r) => r.category));
  const shown = kinds.size === 0 ? CATEGORIES.slice(0, 1) : CATEGORIES.filter((c) => kinds.has(c));
  return [...new Set(shown.flatMap((c) => gearKind(c).keyFigures))].map((id) => {
    const { name, shortName } = quantity(id);
    return { id, name: shortName ?? name, field: `byQuantity.${id}.value` };
  });
}

/** Every specimen ever tested. */
@Component({
  selector: 'sd-gear',
  imports: [Button, Figure, FormsModule, InputText, ProblemBox, RouterLink, ScrollingModule, Select, TableModule],
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
  protected readonly typed = signal('');
  /** A column for each key figure of the kinds that are listed. */
  protected readonly columns = computed(() => figureColumns(this.rows()));
  protected readonly kindName = (category: Category): string => CATEGORY_NAMES[category];
  protected readonly category = signal<Category | null>(null);
  protected readonly rows = computed(() => filterRows(this.all(), this.typed(), this.category()));
  protected readonly isEmpty = computed(() => this.loaded().value !== null && this.all().length === 0);
  protected readonly categories = [
    { label: 'All kinds', value: null },
    ...CATEGORIES.map((value) => ({ label: CATEGORY_NAMES[value], value })),
  ];
  protected readonly stageName = (row: GearRow): string => STAGE_NAMES[row.stage];
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

  protected readonly trackRow = (_: number, row: GearRow): string => row.id;

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

  protected pageKey(event: KeyboardEvent, search: HTMLInputElement): void {
    if (event.key === '/' && event.target !== search) {
      event.preventDefault();
      search.focus();
    } else if (event.key === 'ArrowDown' && event.target === search) {
      event.preventDefault();
      document.querySelector<HTMLElement>('tr.unit')?.focus();
    }
  }
}
