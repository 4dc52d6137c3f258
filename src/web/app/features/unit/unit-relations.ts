import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import type { Rubric } from '#core/rules/rubric';
import type { NewRelation, RelationKind } from '#contracts/relation';
import type { SpecimenSheet } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { ListField } from '../../ui/field/list-field';
import { NumberField } from '../../ui/field/number-field';
import { CurrencyField } from '../../ui/field/currency-field';
import { priceSheet } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { formatPrice, today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { RELATION_CHOICES, relationWords, usesWords } from './relation-words';

interface RelationDraft {
  readonly kind: RelationKind;
  /** A unit of the catalogue; null: what is typed. */
  readonly other: string | null;
  readonly name: string;
  readonly uses: readonly string[];
  readonly amount: number | null;
  readonly currency: string;
}

const emptyDraft = (currency: string): RelationDraft => ({ kind: 'needs', other: null, name: '', uses: [], amount: null, currency }); // prettier-ignore

/** How a unit stands to others: what it needs, replaces, shares. Each can be ended, and a further one noted. */
@Component({
  selector: 'sd-unit-relations',
  imports: [Button, ChoiceField, CurrencyField, FormsModule, ListField, NumberField, ProblemBox, RouterLink, TextField],
  template: `
    <ul>
      @for (r of sheet().relations; track r.id) {
        <li>
          <span class="quiet">{{ words(r) }}</span>
          @if (r.other; as o) {
            <a [routerLink]="['/gear', o.id]">{{ o.name }}</a>
          } @else {
            <span>{{ r.name }}</span>
          }
          @if (r.price; as p) {
            <span class="num">{{ price(p.amount, p.currency) }}</span>
          }
          <span class="small quiet">{{ uses(r) }}</span>
          <p-button
            size="small"
            [text]="true"
            label="Not any more"
            [ariaLabel]="'Not any more: ' + words(r) + ' ' + (r.other?.name ?? r.name)"
            (onClick)="end(r.id)"
          />
        </li>
      } @empty {
        <li class="quiet">Nothing noted.</li>
      }
    </ul>
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    @if (draft(); as d) {
      <form (ngSubmit)="save()" aria-label="Note how it stands to others" (keydown.escape)="draft.set(null)">
        <sd-choice-field label="How" [options]="kinds" [value]="d.kind" (valueChange)="change({ kind: $event })" />
        <sd-choice-field
          label="Which unit"
          [options]="units()"
          filter
          [value]="d.other"
          (valueChange)="change({ other: $event })"
        />
        @if (d.other === null) {
          <sd-text-field
            label="What, in words"
            [most]="120"
            [value]="d.name"
            (valueChange)="change({ name: $event })"
          />
        }
        @if (d.kind === 'needs') {
          <sd-list-field
            label="For which uses (empty: all)"
            [placeholder]="useNames()"
            [value]="$any(d.uses)"
            (valueChange)="change({ uses: $event })"
          />
          @if (d.other === null) {
            <sd-number-field
              label="Its price"
              [sheet]="sheetOf(d.currency)"
              [value]="d.amount"
              (valueChange)="change({ amount: $event })"
            />
            <sd-currency-field
              label="Currency"
              required
              [value]="d.currency"
              (valueChange)="change({ currency: $event })"
            />
          }
        }
        <div class="end">
          <p-button type="submit" size="small" label="Note it" [disabled]="d.other === null && d.name.trim() === ''" />
          <p-button type="button" size="small" [text]="true" label="Cancel" (onClick)="draft.set(null)" />
        </div>
      </form>
    } @else {
      <div>
        <p-button size="small" severity="secondary" label="Note what it needs, or replaces" (onClick)="start()" />
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: start;
    }
    .end {
      align-self: end;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitRelations {
  readonly sheet = input.required<SpecimenSheet>();
  readonly rubric = input.required<Rubric | null>();
  readonly currency = input.required<string | null>();

  private readonly data = inject(CatalogueData);
  private readonly refusals = inject(Refusals);
  private readonly specimens = toSignal(this.data.specimens, { initialValue: LOADING });
  protected readonly saving = new Saving();
  protected readonly draft = signal<RelationDraft | null>(null);
  protected readonly kinds = RELATION_CHOICES;
  protected readonly words = relationWords;
  protected readonly uses = usesWords;
  protected readonly price = formatPrice;
  protected readonly sheetOf = priceSheet;
  protected readonly useNames = computed(() => (this.rubric()?.uses ?? []).map((u) => u.name).join(', '));
  protected readonly units = computed(() => [
    { label: 'not in the catalogue: typed', value: null },
    ...(this.specimens().value ?? [])
      .filter((s) => s.id !== this.sheet().row.id)
      .map((s) => ({ label: unitName(s), value: s.id })),
  ]);

  protected start(): void {
    this.draft.set(emptyDraft(this.currency() ?? 'EUR'));
  }

  protected change(part: Partial<RelationDraft>): void {
    this.draft.update((d) => d && { ...d, ...part });
  }

  /** What Enter has just confirmed in a field is in the draft, not yet in the template. */
  protected save(): void {
    const draft = this.draft();
    if (!draft || this.refusals.stop()) return;
    const { kind, other, name, uses, amount, currency } = draft;
    const isTypedPart = kind === 'needs' && other === null;
    const relation: NewRelation = {
      kind,
      other,
      name: other === null ? name.trim() : '',
      uses: kind === 'needs' ? [...uses] : [],
      price: isTypedPart && amount !== null ? { amount, currency, date: today() } : null,
    };
    this.saving.run(this.data.addRelation(this.sheet().row.id, relation), () => this.draft.set(null));
  }

  protected end(id: string): void {
    this.saving.run(this.data.endRelation(id));
  }
}
