import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import type { Category } from '#contracts/common';
import type { Problem } from '#contracts/problem';
import type { NewPlan, PlannedUnit } from '#contracts/session-plan';
import { unitKey, unitName } from '#contracts/unit-name';
import { TickField } from '../../ui/field/tick-field';
import { ChoiceField } from '../../ui/field/choice-field';
import { DateField } from '../../ui/field/date-field';
import { TextField } from '../../ui/field/text-field';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { kindChoices, fromProtocolKey, protocolChoices, rigChoices, SOURCE_CHOICES } from '../../data/choices';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ProtocolData } from '../../data/protocols';
import { SessionData } from '../../data/sessions';
import { today } from '../../ui/format';
import { Refusals } from '../../ui/field/refusals';
import { ProblemBox } from '../../ui/problem-box';
import { alikeUnits } from '#core/rules/name-likeness';
import { controlOf, emptyPlan, newestOf, onDay, plannedUnit, tooLate } from './plan-form';

/** Planning a session: units, protocol, rig, what has to be at hand. */
@Component({
  selector: 'sd-plan-editor',
  imports: [Button, ChoiceField, DateField, ProblemBox, RouterLink, TextField, TickField],
  templateUrl: './plan-editor.html',
  styleUrl: './plan-editor.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanEditor {
  /** Of a plan that is changed. */
  readonly id = input<string>();
  /** ?unit=… puts a known specimen in. */
  readonly unit = input<string>();

  private readonly data = inject(SessionData);
  private readonly refusals = inject(Refusals);
  private readonly router = inject(Router);
  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  private readonly versions = toSignal(inject(ProtocolData).versions(), { initialValue: LOADING });
  private readonly loadedRigs = toSignal(this.data.rigs(), { initialValue: LOADING });
  protected readonly plan = signal<NewPlan | null>(null);
  protected readonly units = signal<readonly PlannedUnit[]>([]);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly isSaving = signal(false);
  protected readonly newNeed = signal('');
  protected readonly isNewUnit = signal(false);
  protected readonly fresh = signal<PlannedUnit>({ maker: '', model: '', label: 'A', source: 'bought', dueBack: null });

  protected readonly categories = kindChoices();
  protected readonly sources = SOURCE_CHOICES;
  protected readonly rigNames = computed(() => rigChoices(this.loadedRigs().value ?? []));
  protected readonly protocolOptions = computed(() =>
    protocolChoices(
      (this.versions().value ?? []).map((v) => v.protocol),
      this.plan()?.category,
    ),
  );
  protected readonly protocol = computed(
    () =>
      (this.versions().value ?? []).find(
        (v) => v.protocol.id === this.plan()?.protocol && v.protocol.version === this.plan()?.protocolVersion,
      )?.protocol,
  );
  protected readonly catalogue = computed(() => {
    const taken = new Set(this.units().map(unitKey));
    return (this.specimens().value ?? [])
      .filter((s) => s.category === this.plan()?.category && !taken.has(unitKey(s)))
      .map((s) => ({ label: unitName(s) + (s.onDesk ? ' (on the desk)' : ''), value: s.id }));
  });
  protected readonly control = computed(() => {
    const plan = this.plan();
    return plan ? controlOf(plan, this.loadedRigs().value ?? [], this.specimens().value ?? []) : null;
  });
  protected readonly controlName = computed(() => {
    const control = this.control();
    return control && 'name' in control ? control.name : null;
  });
  protected readonly noControl = computed(() => {
    const control = this.control();
    return control && 'reason' in control ? control.reason : null;
  });
  /** Units of the catalogue that the name of the new one may mean, though it is written otherwise. */
  protected readonly alike = computed(() => alikeUnits(this.fresh(), this.specimens().value ?? []));
  protected readonly late = computed(() => {
    const plan = this.plan();
    return plan ? tooLate({ ...plan, units: [...this.units()] }) : [];
  });

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Sessions', link: '/sessions' },
      { label: 'Plan', link: null },
    ]);
    inject(ScreenKeys).hints.set([{ keys: 'Ctrl Enter', does: 'Keep the plan' }]);
    effect(() => {
      const [versions, rigs, units] = [this.versions().value, this.loadedRigs().value, this.specimens().value];
      if (this.plan() !== null || !versions || !rigs || !units) return;
      const id = this.id();
      if (id !== undefined) {
        this.data.plan(id).subscribe(({ value }) => {
          if (!value || this.plan() !== null) return;
          this.plan.set(value.plan);
          this.units.set(value.plan.units);
        });
        return;
      }
      const wanted = units.find((u) => u.id === this.unit());
      this.plan.set(emptyPlan(today(), versions, rigs, wanted?.category ?? 'microphone'));
      if (wanted) this.units.set([plannedUnit(wanted)]);
    });
  }

  protected change(part: Partial<NewPlan>): void {
    this.plan.update((p) => p && { ...p, ...part });
  }

  protected setDay(day: string): void {
    this.plan.update((p) => p && onDay(p, day));
  }

  protected setCategory(category: Category): void {
    const newest = newestOf(this.versions().value ?? [], category);
    this.units.set([]);
    this.change({
      category,
      controlSteps: [],
      ...(newest ? { protocol: newest.protocol.id, protocolVersion: newest.protocol.version } : {}),
    });
  }

  protected setProtocol(key: string): void {
    this.change({ ...fromProtocolKey(key), controlSteps: [] });
  }

  protected addKnown(id: string | null): void {
    const unit = (this.specimens().value ?? []).find((s) => s.id === id);
    if (unit) this.units.update((all) => [...all, plannedUnit(unit)]);
  }

  protected addFresh(): void {
    const unit = this.fresh();
    if (!unit.maker.trim() || !unit.model.trim() || !unit.label.trim()) return;
    this.units.update((all) => [...all, unit]);
    this.fresh.set({ maker: '', model: '', label: 'A', source: 'bought', dueBack: null });
    this.isNewUnit.set(false);
  }

  protected changeFresh(part: Partial<PlannedUnit>): void {
    this.fresh.update((u) => ({ ...u, ...part }));
  }

  protected changeUnit(at: number, part: Partial<PlannedUnit>): void {
    this.units.update((all) => all.map((u, i) => (i === at ? { ...u, ...part } : u)));
  }

  protected removeUnit(at: number): void {
    this.units.update((all) => all.filter((_, i) => i !== at));
  }

  protected moveUnit(at: number, by: number): void {
    this.units.update((all) => {
      const to = at + by;
      if (to < 0 || to >= all.length) return all;
      const order = [...all];
      [order[at], order[to]] = [order[to], order[at]];
      return order;
    });
  }

  protected setControlStep(step: string, isOn: boolean): void {
    const now = this.plan()?.controlSteps ?? [];
    this.change({ controlSteps: isOn ? [...now, step] : now.filter((s) => s !== step) });
  }

  protected setNeed(at: number, isThere: boolean): void {
    this.change({ needs: (this.plan()?.needs ?? []).map((n, i) => (i === at ? { ...n, isThere } : n)) });
  }

  protected removeNeed(at: number): void {
    this.change({ needs: (this.plan()?.needs ?? []).filter((_, i) => i !== at) });
  }

  protected addNeed(): void {
    const what = this.newNeed().trim();
    if (what === '') return;
    this.change({ needs: [...(this.plan()?.needs ?? []), { what, isThere: false }] });
    this.newNeed.set('');
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      this.save();
    }
  }

  protected save(): void {
    const plan = this.plan();
    if (!plan || this.isSaving() || this.units().length === 0 || this.refusals.stop()) return;
    this.isSaving.set(true);
    this.data
      .savePlan(this.id() ?? null, {
        ...plan,
        withControl: plan.withControl && this.controlName() !== null,
        units: [...this.units()],
      })
      .subscribe({
        next: ({ row }) => void this.router.navigate(['/sessions', row.id]),
        error: (error: unknown) => {
          this.isSaving.set(false);
          this.problem.set(problemOf(error));
        },
      });
  }
}
