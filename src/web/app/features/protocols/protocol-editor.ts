import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { Checkbox } from 'primeng/checkbox';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { Textarea } from 'primeng/textarea';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import { CAUTIONS, CAUTION_IDS, type CautionId } from '#core/rules/cautions';
import { PLAY_KINDS } from '#core/rules/step-sheet';
import { CATEGORIES } from '#contracts/common';
import { roleOf, STEP_ROLES, type Protocol, type Step } from '#contracts/protocol';
import type { PhonemeBalanceJson } from '#contracts/protocol-page';
import type { Problem } from '#contracts/problem';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ProtocolData } from '../../data/protocols';
import { CATEGORY_NAMES } from '../../ui/format';
import { PlacementSketch } from '../../ui/placement-sketch';
import { ProblemBox } from '../../ui/problem-box';
import { balanceText } from './balance-text';
import { draftOf, emptyProtocol, gainRule, listOf, moved, newStep, openDecisions } from './protocol-draft';
import { NumberField } from '../../ui/number-field';
import { SHEETS } from '../../ui/number-sheets';
import { Refusals } from '../../ui/refusals';

const GAIN_OPTIONS = [
  { label: 'as the instruction says', value: 'none' },
  { label: 'peaks inside a window', value: 'peaks' },
  { label: 'a fixed gain', value: 'fixed' },
  { label: 'as at an earlier step', value: 'as-step' },
  { label: 'maximum', value: 'maximum' },
  { label: 'a dial position', value: 'dial' },
];
const option = (value: string) => ({ label: value, value });

/** Writing a protocol, or the next version of one. */
@Component({
  selector: 'sd-protocol-editor',
  imports: [
    Button,
    Checkbox,
    FormsModule,
    InputText,
    NumberField,
    PlacementSketch,
    ProblemBox,
    RouterLink,
    Select,
    Textarea,
  ],
  templateUrl: './protocol-editor.html',
  styleUrl: './protocol-editor.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolEditor {
  protected readonly sheets = SHEETS;
  readonly slug = input<string>();
  readonly version = input<string>();

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

  protected readonly categories = CATEGORIES.map((value) => ({ label: CATEGORY_NAMES[value], value }));
  protected readonly roleOf = roleOf;
  protected readonly roles = STEP_ROLES.map(option);
  protected readonly playKinds = PLAY_KINDS.map(option);
  protected readonly gainOptions = GAIN_OPTIONS;
  protected readonly cautionIds = CAUTION_IDS;
  protected readonly cautions = CAUTIONS;
  protected readonly addresses = [
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
      if (this.isNew()) {
        this.draft.set(emptyProtocol());
        return;
      }
      const own = (this.loaded().value ?? []).filter((v) => v.protocol.id === this.slug());
      const shown = own.find((v) => v.protocol.version === Number(this.version()));
      if (shown) this.draft.set(draftOf(shown, Math.max(...own.map((v) => v.protocol.version))));
    });
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
    const now = this.step()?.lengthS ?? { least: 5, most: 60 };
    this.changeStep({ lengthS: { least: part.least ?? now.least, most: part.most ?? now.most } });
  }

  protected setCaution(caution: CautionId, isOn: boolean): void {
    const now = this.step()?.cautions ?? [];
    this.changeStep({ cautions: isOn ? [...new Set([...now, caution])] : now.filter((c) => c !== caution) });
  }

  protected setAccessories(text: string): void {
    this.changeStep({ accessories: listOf(text) });
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
