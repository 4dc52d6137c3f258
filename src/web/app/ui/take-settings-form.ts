import { ChangeDetectionStrategy, Component, booleanAttribute, computed, input, output } from '@angular/core';
import type { ConditionFactor } from '#core/rules/take-conditions';
import type { TakeLevel } from '#contracts/protocol';
import type { TakeSettings } from '#contracts/session-plan';
import { asNoted, notedGain } from '#core/rules/take-gain';
import { GainField } from './field/gain-field';
import { NumberField } from './field/number-field';
import { SHEETS } from './field/number-sheets';
import { TickField } from './field/tick-field';
import { TAKE_LEVELS } from './take-levels';
import { TextField } from './field/text-field';

const TEXTS = [
  ['pad', 'Pad'],
  ['lowCut', 'Low-cut'],
  ['pattern', 'Pattern'],
] as const;

const FACTORS = [
  ['voice', 'Voice'],
  ['place', 'Place'],
  ['mount', 'Mount'],
] as const satisfies readonly (readonly [ConditionFactor, string])[];

/** Gain, distance and whatever else is noted with a take. */
@Component({
  selector: 'sd-take-settings-form',
  imports: [GainField, NumberField, TextField, TickField],
  template: `
    <sd-gain-field
      label="Gain"
      [inputId]="id('gain')"
      [value]="gain()"
      (valueChange)="change(asNoted($event, settings()))"
    />
    <sd-number-field
      label="Distance"
      [inputId]="id('distance')"
      [value]="settings().distanceM"
      (valueChange)="change({ distanceM: $event })"
      [sheet]="sheets.distance"
      [step]="1"
    />
    @if (settings().gainDb !== null) {
      <sd-text-field
        class="short"
        label="Dial"
        [inputId]="id('dial')"
        [most]="40"
        [value]="settings().dial"
        (valueChange)="change({ dial: $event })"
      />
    }
    @for (level of levels(); track level.id) {
      <sd-number-field
        [label]="level.label"
        [inputId]="id(level.id.toLowerCase())"
        [value]="settings()[level.id]"
        (valueChange)="changeLevel(level.id, $event)"
        [sheet]="level.sheet"
      />
    }
    @for (text of texts; track text[0]) {
      <sd-text-field
        class="short"
        [label]="text[1]"
        [inputId]="id(text[0].toLowerCase())"
        [most]="40"
        [value]="settings()[text[0]]"
        (valueChange)="changeText(text[0], $event)"
      />
    }
    @for (factor of factors; track factor[0]) {
      <sd-text-field
        class="short"
        [label]="factor[1]"
        [inputId]="id(factor[0])"
        [most]="60"
        [value]="settings()[factor[0]] ?? ''"
        (valueChange)="changeFactor(factor[0], $event)"
      />
    }
    @if (asksProcessing()) {
      <sd-text-field
        class="note"
        label="Processed afterwards, with what"
        placeholder="empty: as it came"
        [inputId]="id('processing')"
        [most]="100"
        [value]="settings().processing"
        (valueChange)="change({ processing: $event })"
      />
    }
    <sd-tick-field [value]="settings().phantom === true" (valueChange)="change({ phantom: $event })"
      >Phantom power on</sd-tick-field
    >
    <sd-text-field
      class="note"
      [label]="idPrefix() === '' ? 'Note (N)' : 'Note'"
      [inputId]="id('note')"
      [most]="2000"
      [value]="note()"
      (valueChange)="noteChange.emit($event)"
    />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: end;
      width: 100%;
    }
    .short {
      width: 76px;
    }
    .note {
      flex: 1 1 180px;
    }
    sd-tick-field {
      padding: 4px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeSettingsForm {
  readonly settings = input.required<TakeSettings>();
  readonly settingsChange = output<TakeSettings>();
  readonly note = input.required<string>();
  readonly noteChange = output<string>();
  /** Where two of these are on one screen, their fields have ids of their own. */
  readonly idPrefix = input('');

  /** Whether a take may have been worked on already: one that is being recorded cannot. */
  readonly asksProcessing = input(false, { transform: booleanAttribute });

  protected readonly sheets = SHEETS;
  protected readonly factors = FACTORS;
  protected readonly texts = TEXTS;
  protected readonly gain = computed(() => notedGain(this.settings()));
  protected readonly asNoted = asNoted;
  /** Levels and speeds that the step asks for, and those that are noted all the same. */
  readonly asks = input<readonly TakeLevel[]>([]);
  protected readonly levels = computed(() =>
    TAKE_LEVELS.filter(({ id }) => this.asks().includes(id) || this.settings()[id] !== null),
  );

  protected id(name: string): string {
    return this.idPrefix() + name;
  }

  protected change(part: Partial<TakeSettings>): void {
    this.settingsChange.emit({ ...this.settings(), ...part });
  }

  protected changeLevel(key: TakeLevel, value: number | null): void {
    this.change({ [key]: value });
  }

  protected changeFactor(key: ConditionFactor, text: string): void {
    this.change({ [key]: text === '' ? null : text });
  }

  protected changeText(key: (typeof TEXTS)[number][0], text: string): void {
    this.change({ [key]: text });
  }
}
