import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import type { z } from 'zod';
import type { headphonesSchema } from '#contracts/listening';
import { HeardClips } from '../../audio/heard-clips';

type Found = z.infer<typeof headphonesSchema>;

/** Soft pink-like noise: loud enough to tell the side, never at full level. */
const LEVEL = 0.08;

/** Are left and right where they belong, and do both sides move together? Made in the browser; no file is needed. */
@Component({
  selector: 'sd-headphone-check',
  imports: [Button],
  template: `
    <h1>Your headphones</h1>
    <p>Two short checks. Turn the volume down first, then up to where speech would be comfortable.</p>
    <fieldset>
      <legend>1. On which side do you hear this?</legend>
      <p-button label="Play" icon="pi pi-play" severity="secondary" (onClick)="playSide()" />
      <div class="answers">
        @for (a of sides; track a.value) {
          <p-button
            [label]="a.label"
            [severity]="left() === a.value ? 'primary' : 'secondary'"
            [disabled]="!heardSide()"
            [attr.aria-pressed]="left() === a.value"
            (onClick)="left.set(a.value)"
          />
        }
      </div>
    </fieldset>
    <fieldset>
      <legend>2. Two sounds. Which one is in the middle of your head?</legend>
      <p-button label="Play" icon="pi pi-play" severity="secondary" (onClick)="playPhase()" />
      <div class="answers">
        @for (a of phases; track a.value) {
          <p-button
            [label]="a.label"
            [severity]="phase() === a.value ? 'primary' : 'secondary'"
            [disabled]="!heardPhase()"
            [attr.aria-pressed]="phase() === a.value"
            (onClick)="phase.set(a.value)"
          />
        }
      </div>
    </fieldset>
    @if (left() === 'right') {
      <p class="caution">Left and right are swapped: turn your headphones round.</p>
    }
    @if (phase() === 'out') {
      <p class="caution">One side seems to be wired the wrong way round. Try other headphones if you have any.</p>
    }
    <div class="answers">
      <p-button label="Go on" [disabled]="left() === null || phase() === null" (onClick)="finish()" />
      <p-button label="Skip the check" severity="secondary" (onClick)="skip()" />
    </div>
  `,
  styleUrl: './sitting.css',
  host: { class: 'part' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HeadphoneCheck {
  readonly found = output<Found>();
  private readonly clips = inject(HeardClips);
  protected readonly left = signal<'left' | 'right' | 'both' | null>(null);
  protected readonly phase = signal<'in' | 'out' | 'alike' | null>(null);
  protected readonly heardSide = signal(false);
  protected readonly heardPhase = signal(false);
  protected readonly sides = [
    { value: 'left' as const, label: 'Left' },
    { value: 'right' as const, label: 'Right' },
    { value: 'both' as const, label: 'Both' },
  ];
  protected readonly phases = [
    { value: 'in' as const, label: 'The first' },
    { value: 'out' as const, label: 'The second' },
    { value: 'alike' as const, label: 'Alike' },
  ];

  protected async playSide(): Promise<void> {
    if (!(await this.clips.ready())) return;
    this.burst(0, 1, 0);
    this.heardSide.set(true);
  }

  protected async playPhase(): Promise<void> {
    if (!(await this.clips.ready())) return;
    this.burst(0, 1, 1);
    this.burst(1.4, 1, -1);
    this.heardPhase.set(true);
  }

  protected finish(): void {
    this.found.emit({ left: this.left() ?? 'skipped', phase: this.phase() ?? 'skipped' });
  }

  protected skip(): void {
    this.found.emit({ left: 'skipped', phase: 'skipped' });
  }

  /** A second of smoothed noise with soft ends: left by one factor, right by the other. */
  private burst(inS: number, left: number, right: number): void {
    const context = this.clips.open();
    const buffer = context.createBuffer(2, context.sampleRate, context.sampleRate);
    const [l, r] = [buffer.getChannelData(0), buffer.getChannelData(1)];
    let low = 0;
    for (let i = 0; i < l.length; i++) {
      low += 0.15 * (2 * Math.random() - 1 - low);
      const x = 3 * LEVEL * low * Math.sin((Math.PI * i) / l.length) ** 0.5;
      l[i] = left * x;
      r[i] = right * x;
    }
    const source = context.createBufferSource();
    source.buffer = buffer;
    source.connect(context.destination);
    source.start(context.currentTime + 0.05 + inS);
  }
}
