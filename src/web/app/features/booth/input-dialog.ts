import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { firstValueFrom } from 'rxjs';
import type { BenchParts } from '#contracts/bench';
import { DIALOG } from '../../ui/dialog/dialog';
import { Recorder, SIMULATED_BENCH, type InputDevice } from '../../audio/recorder';
import { SessionData } from '../../data/sessions';
import { ChoiceField } from '../../ui/field/choice-field';
import { TickField } from '../../ui/field/tick-field';
import type { BenchChoice } from './bench-choice';
import { BenchPanel } from './bench-panel';

const DEVICE_KEY = 'sediment.booth.device';
const BENCH_RATE_HZ = 48_000;

/** Where the sound comes from: a device of this machine, or the simulated bench. */
@Component({
  selector: 'sd-input-dialog',
  imports: [BenchPanel, Button, ChoiceField, DIALOG, TickField],
  templateUrl: './input-dialog.html',
  styles: `
    .dialog {
      display: grid;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InputDialog {
  readonly visible = input.required<boolean>();
  readonly visibleChange = output<boolean>();
  /** Sample rate that the protocol or the rig asks for; null takes what the device has. */
  readonly rateHz = input.required<number | null>();
  readonly countsIn = input.required<boolean>();
  readonly countsInChange = output<boolean>();
  readonly bench = input.required<BenchChoice>();
  readonly benchChange = output<BenchChoice>();

  protected readonly recorder = inject(Recorder);
  private readonly data = inject(SessionData);
  protected readonly devices = signal<readonly InputDevice[]>([SIMULATED_BENCH]);
  protected readonly choices = computed(() => this.devices().map((d) => ({ label: d.label, value: d.id })));
  protected readonly channelChoices = [
    { label: 'one', value: 1 },
    { label: 'two', value: 2 },
  ];
  protected readonly deviceId = signal(localStorage.getItem(DEVICE_KEY) ?? '');
  protected readonly channels = signal(1);
  protected readonly refused = signal('');
  protected readonly isBench = computed(() => this.recorder.listening()?.device.id === SIMULATED_BENCH.id);
  protected readonly parts = signal<BenchParts | null>(null);

  constructor() {
    void this.list();
  }

  private async list(): Promise<void> {
    this.devices.set(await this.recorder.devices());
    if (!this.devices().some((d) => d.id === this.deviceId())) this.deviceId.set(this.devices()[0].id);
  }

  protected async open(): Promise<void> {
    const device = this.devices().find((d) => d.id === this.deviceId()) ?? this.devices()[0];
    this.refused.set('');
    try {
      const isBench = device.id === SIMULATED_BENCH.id;
      if (isBench) this.parts.set(await firstValueFrom(this.data.benchParts()));
      await this.recorder.open(device, this.channels(), isBench ? BENCH_RATE_HZ : this.rateHz());
      localStorage.setItem(DEVICE_KEY, device.id);
      this.visibleChange.emit(false);
      await this.list();
    } catch (error) {
      const what = error instanceof Error ? error.message : String(error);
      this.refused.set(`This input cannot be opened: ${what}. Allow it in the browser, or choose another one.`);
    }
  }
}
