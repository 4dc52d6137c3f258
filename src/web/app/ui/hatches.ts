import { ChangeDetectionStrategy, Component } from '@angular/core';

/** Hatches of the kinds that ship and of a person’s own, as on geological sections; once per page, used by url(#hatch-…). */
@Component({
  selector: 'sd-hatches',
  template: `
    <svg width="0" height="0" aria-hidden="true" style="position: absolute">
      <defs>
        <pattern id="hatch-microphone" width="5" height="5" patternUnits="userSpaceOnUse">
          <circle cx="1.2" cy="1.2" r="0.9" class="fill" />
          <circle cx="3.7" cy="3.7" r="0.9" class="fill" />
        </pattern>
        <pattern id="hatch-field-microphone" width="8" height="4" patternUnits="userSpaceOnUse">
          <path d="M0 1h5M4 3h4" class="line" />
        </pattern>
        <pattern id="hatch-interface" width="10" height="8" patternUnits="userSpaceOnUse">
          <path d="M0 0.5h10M0 4.5h10M2.5 0.5v4M7.5 4.5v4" class="line" />
        </pattern>
        <pattern id="hatch-booster" width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M-1 6L6 -1M-1 1L1 -1M4 6L6 4" class="line" />
        </pattern>
        <pattern id="hatch-accessory" width="10" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 2.5q2.5 -3 5 0t5 0" class="line" />
        </pattern>
        <pattern id="hatch-headphones" width="6" height="6" patternUnits="userSpaceOnUse">
          <path d="M1 1l4 4M5 1L1 5" class="line" />
        </pattern>
        <pattern id="hatch-rings" width="7" height="7" patternUnits="userSpaceOnUse">
          <circle cx="3.5" cy="3.5" r="2.2" class="line" />
        </pattern>
        <pattern id="hatch-bricks" width="8" height="6" patternUnits="userSpaceOnUse">
          <path d="M0 0.5h8M0 3.5h8M4 0.5v3M0.5 3.5v3" class="line" />
        </pattern>
        <pattern id="hatch-grid" width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 0.5h5M0.5 0v5" class="line" />
        </pattern>
        <pattern id="hatch-chevrons" width="8" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 4L4 1L8 4" class="line" />
        </pattern>
      </defs>
    </svg>
  `,
  styles: `
    .line {
      stroke: var(--ink);
      stroke-width: 0.9;
      fill: none;
    }
    .fill {
      fill: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Hatches {}
