import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Category } from '#contracts/common';
import { hatchUrl, kindName } from './format';

/** The hatch of a kind of gear. */
@Component({
  selector: 'sd-hatch',
  template: `
    <svg width="16" height="16" role="img" [attr.aria-label]="name(category())">
      <rect width="16" height="16" [attr.fill]="hatch(category())" stroke="var(--quiet)" />
    </svg>
  `,
  styles: `
    svg {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Hatch {
  readonly category = input.required<Category>();
  protected readonly name = kindName;
  protected readonly hatch = hatchUrl;
}
