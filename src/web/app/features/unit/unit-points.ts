import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { criterionPoints, type UnitFacts } from '#core/rules/criterion-points';
import { isGivenByHand, type Criterion, type Rubric } from '#core/rules/rubric';
import type { SpecimenSheet } from '#contracts/specimen';
import { CatalogueData, currentPoints } from '../../data/catalogue';
import { Saving } from '../../data/saving';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { formatNumber } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { earlierPoints } from './earlier-points';
import { sinceGiven } from './points-age';

const KIND_NAMES: Readonly<Record<Criterion['kind'], string>> = {
  'by-hand': 'by hand',
  heard: 'heard and by hand',
  measured: 'by rule',
  price: 'by rule',
  'sheet-number': 'by the sheet',
  'sheet-word': 'by the sheet',
  features: 'by the sheet',
  table: 'by the table',
};

/** Points of a unit by the rules of its kind; those that a person gives are given and changed here. */
@Component({
  selector: 'sd-unit-points',
  imports: [Button, FormsModule, NumberField, ProblemBox, TextField],
  templateUrl: './unit-points.html',
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    td {
      height: 40px;
    }
    .why {
      max-width: 420px;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: start;
    }
    .reason {
      flex: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitPoints {
  readonly unit = input.required<string>();
  readonly rubric = input.required<Rubric>();
  /** As the ranking has them; null for a unit that is not in it, which can have prices and points all the same. */
  readonly facts = input.required<UnitFacts | null>();
  readonly sheet = input.required<SpecimenSheet>();

  private readonly data = inject(CatalogueData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly editing = signal<string | null>(null);
  protected readonly draftPoints = signal<number | null>(null);
  protected readonly draftReason = signal('');
  protected readonly sheets = SHEETS;
  protected readonly number = formatNumber;
  protected readonly isGivenByHand = isGivenByHand;
  protected readonly kindNames = KIND_NAMES;

  private sinceGiven(criterion: string): string {
    const given = this.given().get(criterion);
    return given ? sinceGiven(given.date, this.sheet()) : '';
  }

  private readonly given = computed(() => currentPoints(this.sheet().points));
  protected readonly rows = computed(() => {
    const facts = this.facts() ?? this.bareFacts();
    const { criteria, weights } = this.rubric();
    return criteria.map((criterion) => ({
      criterion,
      ...criterionPoints(criterion, facts),
      date: this.given().get(criterion.id)?.date ?? null,
      since: this.sinceGiven(criterion.id),
      weight: weights[criterion.id] ?? 0,
    }));
  });
  protected readonly earlier = computed(() => earlierPoints(this.sheet().points));

  private bareFacts(): UnitFacts {
    const byHand = Object.fromEntries([...this.given()].map(([id, p]) => [id, { value: p.value, reason: p.reason }]));
    return { id: this.unit(), figures: {}, byHand, prices: this.sheet().prices };
  }

  protected edit(criterion: Criterion): void {
    const given = this.given().get(criterion.id);
    this.editing.set(criterion.id);
    this.draftPoints.set(given?.value ?? null);
    this.draftReason.set(given?.reason ?? '');
  }

  protected save(criterion: Criterion): void {
    const value = this.draftPoints();
    if (value === null || this.refusals.stop()) return;
    const reason = this.draftReason().trim();
    const points = { criterion: criterion.id, value, ...(reason ? { reason } : {}) };
    this.saving.run(this.data.givePoints(this.unit(), points), () => this.editing.set(null));
  }
}
