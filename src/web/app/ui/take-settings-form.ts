import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Checkbox } from 'primeng/checkbox';
import { InputText } from 'primeng/inputtext';
import type { TakeSettings } from '#contracts/session-plan';
import { NumberField } from './number-field';
import { SHEETS } from './number-sheets';

const TEXTS = [
  ['dial', 'Dial'],
  ['pad', 'Pad'],
  ['lowCut', 'Low-cut'],
  ['pattern', 'Pattern'],
] as const;

/** Gain, distance and whatever else is noted with a take. */
@Component({
  selector: 'sd-take-settings-form',
  imports: [Checkbox, FormsModule, InputText, NumberField],
  template: `
    <div class="field">
      <label [for]="id('gain')">Gain</label>
      <sd-number-field
        [inputId]="id('gain')"
        [value]="settings().gainDb"
        (valueChange)="change({ gainDb: $event })"
        [sheet]="sheets.gain"
        [step]="1"
      />
    </div>
    <div class="field">
      <label [for]="id('distance')">Distance</label>
      <sd-number-field
        [inputId]="id('distance')"
        [value]="inCm(settings().distanceM)"
        (valueChange)="change({ distanceM: $event === null ? null : $event / 100 })"
        [sheet]="sheets.distance"
        [step]="1"
      />
    </div>
    @for (text of texts; track text[0]) {
      <div class="field">
        <label [for]="id(text[0].toLowerCase())">{{ text[1] }}</label>
        <input
          pInputText
          [id]="id(text[0].toLowerCase())"
          class="short"
          maxlength="40"
          [ngModel]="settings()[text[0]]"
          (ngModelChange)="changeText(text[0], $event)"
        />
      </div>
    }
    <div class="field">
      <label [for]="id('voice')">Voice</label>
      <input
        pInputText
        [id]="id('voice')"
        class="short"
        maxlength="60"
        [ngModel]="settings().voice ?? ''"
        (ngModelChange)="change({ voice: $event === '' ? null : $event })"
      />
    </div>
    <span class="check">
      <p-checkbox
        [inputId]="id('phantom')"
        [binary]="true"
        [ngModel]="settings().phantom === true"
        (ngModelChange)="change({ phantom: $event })"
      />
      <label [for]="id('phantom')">Phantom power on</label>
    </span>
    <div class="field note">
      <label [for]="id('note')">{{ idPrefix() === '' ? 'Note (N)' : 'Note' }}</label>
      <input
        pInputText
        [id]="id('note')"
        maxlength="2000"
        [ngModel]="note()"
        (ngModelChange)="noteChange.emit($event)"
      />
    </div>
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
    .note input {
      width: 100%;
    }
    .check {
      display: inline-flex;
      gap: 6px;
      align-items: center;
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

  protected readonly sheets = SHEETS;
  protected readonly texts = TEXTS;

  protected id(name: string): string {
    return this.idPrefix() + name;
  }

  /** Metres as centimetres, without what a binary fraction leaves behind the last digit. */
  protected inCm(m: number | null): number | null {
    return m === null ? null : Number((100 * m).toPrecision(9));
  }

  protected change(part: Partial<TakeSettings>): void {
    this.settingsChange.emit({ ...this.settings(), ...part });
  }

  protected changeText(key: (typeof TEXTS)[number][0], text: string): void {
    this.change({ [key]: text });
  }
}
