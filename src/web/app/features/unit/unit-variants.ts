import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { gearKind } from '#core/gear/kinds';
import { quantity, type QuantityId } from '#core/measure/registry';
import type { KeyFigure, SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import type { Varies } from '#contracts/variant';
import { CatalogueData } from '../../data/catalogue';
import { CorrectionData } from '../../data/corrections';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { Figure } from '../../ui/figure';
import { ProblemBox } from '../../ui/problem-box';
import {
  VARIES_CHOICES,
  configurationWords,
  countingChoices,
  countingSentence,
  countsNow,
  familyRows,
  possibleMains,
} from './variant-words';

interface VariantDraft {
  /** The unit that this one is a configuration of; null: one that is added to this one. */
  readonly of: string | null;
  readonly isAdded: boolean;
  readonly varies: Varies;
  readonly configuration: string;
}

/** One unit with another connection, pattern, switch …: each configuration with its figures, and which one is ranked. */
@Component({
  selector: 'sd-unit-variants',
  imports: [Button, ChoiceField, Figure, FormsModule, ProblemBox, RouterLink, TextField],
  template: `
    @if (family(); as f) {
      @if (main(); as m) {
        @if (m.id !== unit().id) {
          <p>
            This is <a [routerLink]="['/gear', m.id]">{{ nameOf(m) }}</a> in another configuration:
            <b>{{ words(unit()) }}</b>. Prices, needs, sheet and points that are not noted here are those noted there.
          </p>
        }
      }
      <div class="side-by-side">
        <table>
          <thead>
            <tr>
              <th scope="col">Configuration</th>
              <th scope="col">Tested</th>
              @for (id of columns(); track id) {
                <th class="right" scope="col">{{ quantityName(id) }}</th>
              }
              <th class="right" scope="col">Place</th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.id) {
              <tr [class.self]="row.id === unit().id">
                <th scope="row">
                  @if (row.id === unit().id) {
                    {{ words(row) }} <span class="quiet">(this page)</span>
                  } @else {
                    <a [routerLink]="['/gear', row.id]">{{ words(row) }}</a>
                  }
                </th>
                <td class="num">{{ row.lastTested ?? 'not tested' }}</td>
                @for (id of columns(); track id) {
                  <td class="right">
                    <sd-figure
                      [quantity]="id"
                      [value]="figure(row, id)?.value ?? null"
                      [uncertainty]="figure(row, id)?.anotherReading ?? figure(row, id)?.uncertainty ?? null"
                      about="another reading"
                      [bound]="figure(row, id)?.bound ?? 'exact'"
                    />
                  </td>
                }
                <td class="right num">
                  @if (row.place !== null) {
                    {{ row.place }}
                  } @else {
                    <span class="quiet">{{ row.family?.counts ? 'not ranked' : 'not counted' }}</span>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      <div class="line">
        <sd-choice-field
          label="In rankings stands"
          [options]="choices()"
          [value]="now()"
          (valueChange)="count($event)"
        />
        @if (unit().id !== f.main) {
          <p-button size="small" [text]="true" label="It is a unit of its own" (onClick)="standAlone()" />
        }
      </div>
      @if (sentence(); as s) {
        <p class="small warn"><i class="pi pi-exclamation-triangle" aria-hidden="true"></i> {{ s }}</p>
      }
    } @else {
      <p class="quiet">One: it is measured as it was entered.</p>
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (draft(); as d) {
      <form (ngSubmit)="save()" aria-label="Note a configuration" (keydown.escape)="draft.set(null)">
        @if (!d.isAdded) {
          <sd-choice-field
            label="Configuration of"
            filter
            [options]="mains()"
            [value]="d.of"
            (valueChange)="change({ of: $event })"
          />
        }
        <sd-choice-field
          label="What is different"
          [options]="variesChoices"
          [value]="d.varies"
          (valueChange)="change({ varies: $event })"
        />
        <sd-text-field
          label="In words"
          placeholder="USB, figure of eight, high-pass on …"
          [most]="60"
          [value]="d.configuration"
          (valueChange)="change({ configuration: $event })"
        />
        <div class="end">
          <p-button type="submit" size="small" label="Note it" [disabled]="!isComplete()" />
          <p-button type="button" size="small" [text]="true" label="Cancel" (onClick)="draft.set(null)" />
        </div>
      </form>
    } @else if (family() === null || family()?.main === unit().id) {
      <div class="line">
        <p-button size="small" severity="secondary" label="Note another configuration" (onClick)="start(true)" />
        @if (family() === null) {
          <p-button size="small" [text]="true" label="It is a configuration of another unit" (onClick)="start(false)" />
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    th,
    td {
      padding: 3px 16px 3px 0;
      text-align: left;
    }
    .right {
      text-align: right;
    }
    th[scope='row'] {
      font-weight: 400;
    }
    .self th {
      font-weight: 600;
    }
    .line,
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: end;
    }
    .end {
      align-self: end;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitVariants {
  readonly unit = input.required<SpecimenRow>();

  private readonly data = inject(CatalogueData);
  private readonly corrections = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  private readonly loaded = toSignal(this.data.specimens, { initialValue: LOADING });
  private readonly all = computed(() => this.loaded().value ?? []);
  protected readonly saving = new Saving();
  protected readonly draft = signal<VariantDraft | null>(null);

  protected readonly family = computed(() => this.unit().family);
  protected readonly rows = computed(() => {
    const family = this.family();
    return family ? familyRows(this.all(), family) : [];
  });
  protected readonly main = computed(() => this.rows().find((r) => r.id === r.family?.main) ?? null);
  /** The key figures of the kind that any of them has. */
  protected readonly columns = computed(() => {
    const measured = new Set(this.rows().flatMap((r) => r.figures.map((f) => f.quantity)));
    return gearKind(this.unit().category).keyFigures.filter((id) => measured.has(id));
  });
  protected readonly choices = computed(() => countingChoices(this.rows()));
  protected readonly now = computed(() => countsNow(this.rows()));
  protected readonly sentence = computed(() => countingSentence(this.rows()));
  protected readonly mains = computed(() => possibleMains(this.all(), this.unit()));
  protected readonly variesChoices = [...VARIES_CHOICES];
  protected readonly isComplete = computed(() => {
    const draft = this.draft();
    return draft !== null && draft.configuration.trim() !== '' && (draft.isAdded || draft.of !== null);
  });
  protected readonly words = (row: SpecimenRow): string => configurationWords(row, this.rows());
  protected readonly nameOf = unitName;
  protected readonly quantityName = (id: QuantityId): string => quantity(id).name;

  protected figure(row: SpecimenRow, id: QuantityId): KeyFigure | undefined {
    return row.figures.find((f) => f.quantity === id);
  }

  protected start(isAdded: boolean): void {
    this.draft.set({ isAdded, of: null, varies: 'connection', configuration: '' });
  }

  protected change(part: Partial<VariantDraft>): void {
    this.draft.update((d) => d && { ...d, ...part });
  }

  protected save(): void {
    const draft = this.draft();
    if (!draft || !this.isComplete() || this.refusals.stop()) return;
    const { id } = this.unit();
    const { isAdded, of, varies } = draft;
    const variant = { configuration: draft.configuration.trim(), varies };
    this.saving.run(
      isAdded || of === null
        ? this.data.addVariant(id, variant)
        : this.corrections.correct({ kind: 'unit-variant', unit: id, variant: { ...variant, of } }),
      () => this.draft.set(null),
    );
  }

  protected count(choice: string | null): void {
    const { main } = this.family() ?? {};
    if (main !== undefined && choice !== null) this.saving.run(this.data.countVariant(main, choice));
  }

  protected standAlone(): void {
    this.saving.run(this.corrections.correct({ kind: 'unit-variant', unit: this.unit().id, variant: null }));
  }
}
