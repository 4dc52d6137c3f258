import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { catchError, combineLatest, of, switchMap } from 'rxjs';
import { quantity, QUANTITY_IDS, type QuantityId } from '#core/measure/registry';
import { CAUTIONS } from '#core/rules/cautions';
import { compareVersions, textOf, type StepChange } from '#core/rules/compare-versions';
import { PLAIN_PATHS } from '#contracts/http';
import { servedKinds, type Protocol, type Step } from '#contracts/protocol';
import type { Bridges, PhonemeBalanceJson } from '#contracts/protocol-page';
import { ChoiceField } from '../../ui/field/choice-field';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ProtocolData } from '../../data/protocols';
import { formatNumber, kindName, plusMinus } from '../../ui/format';
import { PlacementSketch } from '../../ui/placement-sketch';
import { ProblemBox } from '../../ui/problem-box';
import { balanceText } from './balance-text';
import { conditionsOf, playWords } from './step-words';

const COMPARABLE_WORDS = {
  yes: 'stays comparable',
  no: 'not comparable',
  open: 'to be decided',
} as const;

/** One version of a protocol as a numbered sheet, and what it changed against another one. */
@Component({
  selector: 'sd-protocol',
  imports: [Button, ChoiceField, PlacementSketch, ProblemBox, RouterLink],
  templateUrl: './protocol.html',
  styleUrl: './protocol.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolPage {
  readonly slug = input.required<string>();
  readonly version = input.required<string>();

  private readonly data = inject(ProtocolData);
  private readonly loaded = toSignal(this.data.versions(), { initialValue: LOADING });
  protected readonly problem = computed(() => this.loaded().problem);
  /** Kinds of gear that it serves. */
  protected readonly kindsOf = (protocol: Protocol): string => servedKinds(protocol).map(kindName).join(', ');
  protected readonly comparableWords = COMPARABLE_WORDS;
  protected readonly playWords = playWords;
  protected readonly conditionsOf = conditionsOf;
  protected readonly cautions = CAUTIONS;

  private readonly own = computed(() =>
    (this.loaded().value ?? [])
      .filter((v) => v.protocol.id === this.slug())
      .sort((a, b) => a.protocol.version - b.protocol.version),
  );
  protected readonly shown = computed(() => this.own().find((v) => v.protocol.version === Number(this.version())));
  protected readonly versionOptions = computed(() => this.own().map((v) => v.protocol.version));
  protected readonly isMissing = computed(() => this.loaded().value !== null && !this.shown());
  private readonly chosenOther = signal<number | null>(null);
  /** What it is compared with: the version before, unless another one was chosen. */
  protected readonly other = computed(() => {
    const wanted = this.chosenOther() ?? Number(this.version()) - 1;
    return this.own().find((v) => v.protocol.version === wanted && wanted !== Number(this.version()));
  });
  protected readonly otherOptions = computed(() =>
    this.own()
      .map((v) => v.protocol.version)
      .filter((v) => v !== Number(this.version()))
      .map((value) => ({ label: `version ${value}`, value })),
  );
  protected readonly isComparing = signal(false);
  private readonly ordered = computed(() => {
    const [shown, other] = [this.shown(), this.other()];
    if (!shown || !other) return null;
    return shown.protocol.version > other.protocol.version ? [other, shown] : [shown, other];
  });
  protected readonly changes = computed(() => {
    const pair = this.ordered();
    return pair ? compareVersions(pair[0].protocol, pair[1].protocol) : [];
  });
  protected readonly counts = computed(() => {
    const count = (test: (c: StepChange) => boolean): number => this.changes().filter(test).length;
    return {
      yes: count((c) => c.comparable === 'yes'),
      no: count((c) => c.comparable === 'no'),
      open: count((c) => c.comparable === 'open'),
      fresh: count((c) => c.kind === 'new'),
      gone: count((c) => c.kind === 'gone'),
    };
  });
  protected readonly bridges = toSignal(
    toObservable(this.ordered).pipe(
      switchMap((pair) =>
        pair
          ? this.data
              .bridges(pair[0].protocol.id, pair[0].protocol.version, pair[1].protocol.version)
              .pipe(catchError(() => of(null)))
          : of(null),
      ),
    ),
    { initialValue: null as Bridges | null },
  );
  protected readonly bridgeRows = computed(() => (this.bridges()?.offsets ?? []).map(bridgeRow));

  private readonly balance = toSignal(
    combineLatest([toObservable(this.shown)]).pipe(
      switchMap(([shown]) =>
        shown?.protocol.text ? this.data.phonemes(shown.protocol.text).pipe(catchError(() => of(null))) : of(null),
      ),
    ),
    { initialValue: null as PhonemeBalanceJson | null },
  );
  protected readonly balanceText = computed(() => {
    const balance = this.balance();
    return balance ? balanceText(balance) : '';
  });
  protected readonly sweepLink = computed(() => this.link(PLAIN_PATHS.sweep));
  protected readonly jsonLink = computed(() => this.link(PLAIN_PATHS.protocolJson));

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Protocols', link: '/protocols' },
      { label: 'Sheet', link: null },
    ]);
    inject(ScreenKeys).hints.set([{ keys: 'Tab', does: 'Walk the sheet' }]);
  }

  /** Changes that do not shape the result, in a line. */
  protected reworded(change: StepChange): string {
    const fields = change.fields.filter((f) => !f.shapes).map((f) => f.field);
    return fields.length === 0 ? '' : `Also another wording of: ${fields.join(', ')}.`;
  }

  protected text(step: Step): string | null {
    const shown = this.shown();
    return shown ? textOf(step, shown.protocol) : null;
  }

  protected compareWith(version: number): void {
    this.chosenOther.set(version);
    this.isComparing.set(true);
  }

  private link(path: string): string {
    return path.replace(':slug', this.slug()).replace(':version', this.version());
  }
}

/** An offset between two versions in words. */
export function bridgeRow(bridge: Bridges['offsets'][number]) {
  const known = (QUANTITY_IDS as readonly string[]).includes(bridge.quantity);
  const { name, unit, decimals } = known
    ? quantity(bridge.quantity as QuantityId)
    : { name: bridge.quantity, unit: '', decimals: 2 };
  const digits = Math.max(2, decimals);
  const signed = (x: number): string => (x > 0 ? '+' : '') + formatNumber(x, digits);
  return {
    ...bridge,
    name,
    offsetText: `${signed(bridge.offset)} ${plusMinus(bridge.uncertainty, digits)} ${unit}`,
    intervalText: bridge.interval95
      ? `${signed(bridge.interval95[0])} to ${signed(bridge.interval95[1])}`
      : 'one unit only',
    // Sure, and large enough to be seen in the figure at all.
    isReal: Math.abs(bridge.offset) > 2 * bridge.uncertainty && Math.abs(bridge.offset) >= 10 ** -decimals,
    unitText: bridge.units.map((u) => u.name).join('; '),
  };
}
