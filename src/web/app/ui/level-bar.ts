import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LiveLevels } from '#core/measure/live-meter';
import { formatNumber } from './format';
import { barShare, levelWord } from './level-scale';

const TICKS = [-60, -40, -30, -20, -12, -6, 0];

/** A level bar with the target window lit. */
@Component({
  selector: 'sd-level-bar',
  template: `
    <div
      class="bar"
      role="meter"
      aria-label="Input level"
      [attr.aria-valuemin]="-60"
      [attr.aria-valuemax]="0"
      [attr.aria-valuenow]="now()"
      [attr.aria-valuetext]="text()"
    >
      @if (window(); as w) {
        <span
          class="window"
          [style.left.%]="100 * share(w.lowDbfs)"
          [style.width.%]="100 * (share(w.highDbfs) - share(w.lowDbfs))"
        ></span>
      }
      <span class="rms" [style.width.%]="100 * share(levels()?.rmsDbfs ?? -999)"></span>
      <span class="recent" [style.left.%]="100 * share(levels()?.recentPeakDbfs ?? -999)"></span>
      <span
        class="peak"
        [class.over]="word() === 'clipped'"
        [style.left.%]="100 * share(levels()?.peakDbfs ?? -999)"
      ></span>
    </div>
    <div class="ticks" aria-hidden="true">
      @for (tick of ticks; track tick) {
        <span [style.left.%]="100 * share(tick)">{{ tickText(tick) }}</span>
      }
    </div>
    <div class="line">
      <b
        [class.bad]="word() === 'clipped'"
        [class.good]="word() === 'in the window'"
        [class.warn]="word() === 'too loud' || word() === 'too soft'"
        >{{ word() }}</b
      >
      <span class="num">{{ text() }}</span>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
    }
    .bar {
      position: relative;
      height: var(--bar-height, 36px);
      background: var(--panel);
      border: 1px solid var(--rule);
      overflow: hidden;
    }
    .bar span {
      position: absolute;
      top: 0;
      bottom: 0;
    }
    .window {
      background: color-mix(in srgb, var(--malachite) 26%, transparent);
      border-inline: 2px solid var(--malachite);
    }
    .rms {
      left: 0;
      background: color-mix(in srgb, var(--azurite) 60%, transparent);
      top: 30% !important;
      bottom: 30% !important;
    }
    .recent {
      width: 2px;
      background: var(--ink);
    }
    .peak {
      width: 4px;
      margin-left: -2px;
      background: var(--realgar);
    }
    .peak.over {
      background: var(--cinnabar);
      width: 8px;
      margin-left: -8px;
    }
    .ticks {
      position: relative;
      height: 14px;
      font: 10px/14px var(--mono);
      color: var(--quiet);
    }
    .ticks span {
      position: absolute;
      transform: translateX(-50%);
    }
    .ticks span:first-child {
      transform: none;
    }
    .ticks span:last-child {
      transform: translateX(-100%);
    }
    .line {
      display: flex;
      gap: 12px;
      align-items: baseline;
      flex-wrap: wrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LevelBar {
  readonly levels = input.required<LiveLevels | null>();
  readonly window = input<{ readonly lowDbfs: number; readonly highDbfs: number } | null>(null);

  protected readonly ticks = TICKS;
  protected readonly share = barShare;
  protected readonly tickText = (db: number): string => formatNumber(db, 0);
  protected readonly now = computed(() => Math.round(Math.max(-60, this.levels()?.recentPeakDbfs ?? -60)));
  protected readonly word = computed(() => {
    const levels = this.levels();
    return levels ? levelWord(levels.peakDbfs, this.window(), levels.clippedRuns) : 'no sound yet';
  });
  protected readonly text = computed(() => {
    const levels = this.levels();
    if (!levels || !Number.isFinite(levels.peakDbfs)) return 'no signal';
    const loudness = Number.isFinite(levels.momentaryLufs)
      ? ` · ${formatNumber(levels.momentaryLufs, 1)} LUFS now`
      : '';
    return `peak ${formatNumber(levels.peakDbfs, 1)} dBFS${loudness}`;
  });
}
