import { ChangeDetectionStrategy, Component } from '@angular/core';
import { ODD_LATENCY } from './latency-words';

/** Beside a latency that buffers do not explain. */
@Component({
  selector: 'sd-odd-latency-mark',
  template: `<i class="pi pi-exclamation-triangle" role="img" [attr.aria-label]="words" [title]="words"></i>`,
  styles: `
    i {
      color: var(--ochre-text);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OddLatencyMark {
  protected readonly words = ODD_LATENCY;
}
