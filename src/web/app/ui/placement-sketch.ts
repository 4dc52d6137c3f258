import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { placementSketch } from './placement-geometry';

/** Plan view of a step: capsule, source, distance, angle. */
@Component({
  selector: 'sd-placement-sketch',
  template: `
    <svg viewBox="-100 -100 200 200" role="img" [attr.aria-label]="words()">
      @for (ring of sketch().rings; track ring.label) {
        <circle class="ring" cx="0" cy="0" [attr.r]="ring.r" />
        <text class="ring-label" [attr.x]="0" [attr.y]="ring.r + 8">{{ ring.label }}</text>
      }
      <line class="axis" x1="0" y1="0" x2="0" y2="-96" />
      @if (sketch().arc) {
        <path class="arc" [attr.d]="sketch().arc" />
      }
      <line class="reach" x1="0" y1="0" [attr.x2]="sketch().source.x" [attr.y2]="sketch().source.y" />
      @if (address() === 'side') {
        <rect class="capsule" x="-9" y="-6" width="18" height="12" rx="6" />
      } @else {
        <path class="capsule" d="M -7 4 L -7 -3 A 7 7 0 0 1 7 -3 L 7 4 L 4 18 L -4 18 Z" />
      }
      <circle class="source" [attr.cx]="sketch().source.x" [attr.cy]="sketch().source.y" r="9" />
      <path
        class="mouth"
        [attr.d]="'M -4 0 A 5 5 0 0 0 4 0'"
        [attr.transform]="'translate(' + sketch().source.x + ' ' + sketch().source.y + ') rotate(' + angleDeg() + ')'"
      />
    </svg>
    <div class="words num">{{ words() }}</div>
  `,
  styles: `
    :host {
      display: grid;
      justify-items: center;
      gap: 4px;
    }
    svg {
      width: 100%;
      max-width: 260px;
      aspect-ratio: 1;
      background: var(--ground);
      border: 1px solid var(--rule);
      border-radius: 2px;
    }
    .ring {
      fill: none;
      stroke: var(--rule);
    }
    .ring-label {
      font: 7px var(--mono);
      fill: var(--quiet);
      text-anchor: middle;
    }
    .axis {
      stroke: var(--quiet);
      stroke-dasharray: 2 3;
      stroke-width: 0.7;
    }
    .reach,
    .arc {
      fill: none;
      stroke: var(--azurite);
      stroke-width: 1.2;
    }
    .capsule {
      fill: var(--ink);
    }
    .source {
      fill: var(--realgar);
    }
    .mouth {
      fill: none;
      stroke: var(--panel);
      stroke-width: 1.6;
    }
    .words {
      text-align: center;
      white-space: normal;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacementSketch {
  readonly distanceM = input.required<number>();
  readonly angleDeg = input(0);
  readonly heightM = input<number | null>(null);
  readonly address = input<'end' | 'side' | null>(null);

  protected readonly sketch = computed(() => placementSketch(this.distanceM(), this.angleDeg()));
  protected readonly words = computed(() => {
    const { distanceText, angleText } = this.sketch();
    const height = this.heightM();
    const parts = [distanceText, angleText === '0°' ? 'in front' : angleText];
    if (height !== null)
      parts.push(height === 0 ? 'level' : `${Math.abs(height * 100)} cm ${height > 0 ? 'above' : 'below'}`);
    const address = this.address();
    if (address) parts.push(`${address} address`);
    return parts.join(' · ');
  });
}
