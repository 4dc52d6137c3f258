import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import { CAUTIONS, CAUTION_IDS, type CautionId } from '#core/rules/cautions';
import { QUANTITY_IDS, quantity } from '#core/measure/registry';
import { PLAY_KINDS } from '#core/rules/step-sheet';
import { gearKind, stepRole } from '#core/gear/kinds';
import type { Category } from '#contracts/common';
import { roleOf, STEP_ROLES, type Protocol, type Step } from '#contracts/protocol';
import type { PhonemeBalanceJson } from '#contracts/protocol-page';
import type { Problem } from '#contracts/problem';
import { TickField } from '../../ui/field/tick-field';
import { ChoiceField, type Choice } from '../../ui/field/choice-field';
import { ListField } from '../../ui/field/list-field';
import { TextField } from '../../ui/field/text-field';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { kindChoices } from '../../data/choices';
import { LOADING } from '../../data/loaded';
import { ProtocolData } from '../../data/protocols';
import { PlacementSketch } from '../../ui/placement-sketch';
import { ProblemBox } from '../../ui/problem-box';
import { balanceText } from './balance-text';
import {
  copyOf,
  draftOf,
  emptyProtocol,
  emptyTable,
  gainRule,
  moved,
  newStep,
  openDecisions,
  withCheck,
  withLength,
} from './protocol-draft';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';

const GAIN_OPTIONS = [
  { label: 'as the instruction says', value: 'none' },
  { label: 'peaks inside a window', value: 'peaks' },
  { label: 'a fixed gain', value: 'fixed' },
  { label: 'as at an earlier step', value: 'as-step' },
  { label: 'maximum', value: 'maximum' },
  { label: 'a dial position', value: 'dial' },
];
type CheckId = Step['checks'][number]['check'];
/** Checks that a step can set a limit of its own for, with what the number is. */
const LIMITED_CHECKS: readonly (readonly [CheckId, string, string])[] = [
  ['level', 'Peaks may lie outside the window by', 'dB'],
  ['silence', 'Silence may be louder than before by', 'dB'],
  ['event', 'Low end may exceed the other takes by', 'dB'],
  ['hum', 'Hum may exceed what was there before by', 'dB'],
  ['interference', 'Steady tones may stand, re speech, at', 'dB'],
  ['passage', 'Readings must follow each other by (0 to 1)', ''],
  ['unit', 'Spectra of one unit may differ by', 'dB'],
  ['placement', 'Level at equal gain may differ by', 'dB'],
];
const option = (value: string) => ({ label: value, value });

/** Writing a protocol, or the next version of one. */
@Component({
  selector: 'sd-protocol-editor',
  imports: [Button, ChoiceField, ListField, NumberField, PlacementSketch, ProblemBox, RouterLink, TextField, TickField],
  templateUrl: './protocol-editor.html',
  styleUrl: './protocol-editor.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolEditor {
  protected readonly sheets = SHEETS;
  readonly slug = input<string>();
  readonly version = input<string>();
  /** ?from=slug/version begins with a copy of that one. */
  readonly from = input<string>();

  private readonly data = inject(ProtocolData);
  private readonly refusals = inject(Refusals);
  private readonly router = inject(Router);
  private readonly loaded = toSignal(this.data.versions(), { initialValue: LOADING });
  protected readonly problem = signal<Problem | null>(null);
  protected readonly isSaving = signal(false);
  protected readonly draft = signal<Protocol | null>(null);
  protected readonly at = signal(0);
  protected readonly step = computed(() => this.draft()?.steps.at(this.at()) ?? null);
  protected readonly isNew = computed(() => this.slug() === undefined);
  protected readonly before = computed(
    () =>
      (this.loaded().value ?? []).find(
        (v) => v.protocol.id === this.draft()?.id && v.protocol.version === (this.draft()?.version ?? 0) - 1,
      )?.protocol,
  );
  protected readonly decisions = computed(() => {
    const draft = this.draft();
    return draft ? openDecisions(this.before(), draft) : [];
  });
  protected readonly decisionOfStep = computed(() => this.decisions().find((d) => d.step === this.step()?.id) ?? null);
  protected readonly openCount = computed(() => this.decisions().filter((d) => d.comparable === 'open').length);

  private readonly textBalance = toSignal(
    toObservable(computed(() => this.draft()?.text ?? '')).pipe(
      debounceTime(500),
      switchMap((text) => (text.trim() === '' ? of(null) : this.data.phonemes(text).pipe(catchError(() => of(null))))),
    ),
    { initialValue: null as PhonemeBalanceJson | null },
  );
  protected readonly balanceText = computed(() => {
    const balance = this.textBalance();
    return balance ? balanceText(balance) : 'Type the passage to have its sounds counted.';
  });

  protected readonly categories = kindChoices();
  protected readonly roleOf = roleOf;
  /** What steps of this kind's protocols are for, and what this step is for already. */
  protected readonly roles = computed(() => {
    const [draft, step] = [this.draft(), this.step()];
    if (!draft || !step) return [];
    const ids = new Set<string>([...gearKind(draft.category).roles.map((r) => r.id), roleOf(step)]);
    return STEP_ROLES.filter((id) => ids.has(id)).map((id) => ({ label: stepRole(id)?.name ?? id, value: id }));
  });
  /** What the level of a step's tone is told in; undefined where a take of it has none. */
  protected readonly levelIn = (step: Step): string | undefined => stepRole(roleOf(step))?.levelIn;
  protected readonly playKinds = PLAY_KINDS.map(option);
  protected readonly gainOptions = GAIN_OPTIONS;
  protected readonly limitedChecks = LIMITED_CHECKS;
  protected readonly figures = QUANTITY_IDS.map((id) => ({ id, name: quantity(id).name }));
  protected readonly fromFiles: readonly Choice<NonNullable<Step['table']>['fromFile']>[] = [
    { label: 'typed only', value: null },
    { label: 'delay between its channels', value: 'latency' },
    { label: 'level of its tone', value: 'level' },
  ];
  protected readonly otherSteps = computed(() => [
    { label: 'no pair', value: null },
    ...(this.draft()?.steps ?? [])
      .filter((s) => s.id !== this.step()?.id)
      .map((s) => ({ label: s.title, value: s.id })),
  ]);
  protected readonly cautionIds = CAUTION_IDS;
  protected readonly cautions = CAUTIONS;
  protected readonly addresses: readonly Choice<Step['address']>[] = [
    { label: 'not said', value: null },
    { label: 'end', value: 'end' },
    { label: 'side', value: 'side' },
  ];
  protected readonly earlierSteps = computed(() =>
    (this.draft()?.steps.slice(0, this.at()) ?? []).map((s) => ({ label: s.title, value: s.id })),
  );

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Protocols', link: '/protocols' },
      { label: 'Edit', link: null },
    ]);
    inject(ScreenKeys).hints.set([{ keys: 'Ctrl Enter', does: 'Save' }]);
    effect(() => {
      if (this.draft() !== null) return;
      const from = this.from();
      if (this.isNew() && from === undefined) {
        this.draft.set(emptyProtocol());
        return;
      }
      if (from !== undefined) {
        const all = this.loaded().value ?? [];
        const [id, version] = from.split('/');
        const model = all.find((v) => v.protocol.id === id && v.protocol.version === Number(version));
        if (model)
          this.draft.set(
            copyOf(
              model.protocol,
              all.map((v) => v.protocol.id),
            ),
          );
        return;
      }
      const own = (this.loaded().value ?? []).filter((v) => v.protocol.id === this.slug());
      const shown = own.find((v) => v.protocol.version === Number(this.version()));
      if (shown) this.draft.set(draftOf(shown, Math.max(...own.map((v) => v.protocol.version))));
    });
  }

  /** A kind that it serves beside its own. */
  protected setAlsoFor(kind: Category, isServed: boolean): void {
    const others = (this.draft()?.alsoFor ?? []).filter((k) => k !== kind);
    const alsoFor = isServed ? [...others, kind] : others;
    this.change({ alsoFor: alsoFor.length > 0 ? alsoFor : undefined });
  }

  protected change(part: Partial<Protocol>): void {
    this.draft.update((d) => d && { ...d, ...part });
  }

  protected changeStep(part: Partial<Step>): void {
    const at = this.at();
    this.draft.update((d) => d && { ...d, steps: d.steps.map((s, i) => (i === at ? { ...s, ...part } : s)) });
  }

  protected setPlay(kind: string): void {
    const play = PLAY_KINDS.find((k) => k === kind);
    if (play) this.changeStep({ play: { kind: play, text: this.step()?.play?.text ?? null } });
  }

  protected setText(text: string): void {
    this.changeStep({ play: { kind: this.step()?.play?.kind ?? 'phrase', text: text.trim() === '' ? null : text } });
  }

  protected setGainKind(kind: string): void {
    this.changeStep({ gain: gainRule(kind, this.draft()?.steps.slice(0, this.at()) ?? []) });
  }

  protected setGain(part: Record<string, unknown>): void {
    const gain = this.step()?.gain;
    if (gain) this.changeStep({ gain: { ...gain, ...part } });
  }

  protected setLength(part: { least?: number | null; most?: number | null }): void {
    this.changeStep({ lengthS: withLength(this.step()?.lengthS ?? null, part) });
  }

  protected setCaution(caution: CautionId, isOn: boolean): void {
    const now = this.step()?.cautions ?? [];
    this.changeStep({ cautions: isOn ? [...new Set([...now, caution])] : now.filter((c) => c !== caution) });
  }

  protected setCheck(check: CheckId, limit: number | null): void {
    this.changeStep({ checks: withCheck(this.step()?.checks ?? [], check, limit) });
  }

  protected limitOf(step: Step, check: CheckId): number | null {
    return step.checks.find((c) => c.check === check)?.limit ?? null;
  }

  protected setMeasure(id: string, isOn: boolean): void {
    const now = this.step()?.measures ?? [];
    this.changeStep({ measures: isOn ? [...new Set([...now, id])] : now.filter((m) => m !== id) });
  }

  protected setPairStep(step: string | null): void {
    this.changeStep({ pair: step === null ? null : { step, varies: this.step()?.pair?.varies ?? 'what is added' } });
  }

  protected setVaries(varies: string): void {
    const pair = this.step()?.pair;
    if (pair) this.changeStep({ pair: { ...pair, varies } });
  }

  protected setTable(hasOne: boolean): void {
    this.changeStep({ table: hasOne ? emptyTable() : null });
  }

  protected changeTable(part: Partial<NonNullable<Step['table']>>): void {
    const table = this.step()?.table;
    if (table) this.changeStep({ table: { ...table, ...part } });
  }

  protected setSweep(part: Partial<NonNullable<Protocol['sweep']>> | null): void {
    const usual = { lowHz: 20, highHz: 20_000, seconds: 4, levelDbfs: -6, gateMs: 500 };
    this.change({ sweep: part === null ? null : { ...usual, ...this.draft()?.sweep, ...part } });
  }

  protected decide(withPrevious: boolean): void {
    this.changeStep({ comparable: { withPrevious, reason: this.step()?.comparable?.reason ?? '' } });
  }

  protected setReason(reason: string): void {
    const now = this.step()?.comparable;
    if (now) this.changeStep({ comparable: { ...now, reason } });
  }

  protected add(): void {
    this.draft.update((d) => d && { ...d, steps: [...d.steps, newStep(d.steps)] });
    this.at.set((this.draft()?.steps.length ?? 1) - 1);
  }

  protected remove(): void {
    const at = this.at();
    this.draft.update((d) => d && { ...d, steps: d.steps.filter((_, i) => i !== at) });
    this.at.set(Math.max(0, at - 1));
  }

  protected move(by: number): void {
    const at = this.at();
    const steps = this.draft()?.steps ?? [];
    if (at + by < 0 || at + by >= steps.length) return;
    this.change({ steps: moved(steps, at, by) });
    this.at.set(at + by);
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      this.save();
    }
  }

  protected save(): void {
    const draft = this.draft();
    if (!draft || this.isSaving() || this.refusals.stop()) return;
    this.isSaving.set(true);
    this.problem.set(null);
    this.data.save(draft).subscribe({
      next: ({ protocol }) => void this.router.navigate(['/protocols', protocol.id, protocol.version]),
      error: (error: unknown) => {
        this.isSaving.set(false);
        this.problem.set(problemOf(error));
      },
    });
  }
}
