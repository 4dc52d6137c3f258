import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { ThemeChoice } from './data/theme';
import { Frame } from './frame';
import { HearingDialog } from './ui/hearing-dialog';

/**
 * A listener's page stands outside the frame, which knows the catalogue: nothing that names a unit may come to it, not
 * even over the network. Such a page is entered by its link, so that where the page was opened decides.
 */
@Component({
  selector: 'sd-root',
  imports: [Frame, HearingDialog, RouterOutlet],
  template: `
    @if (isListener) {
      <router-outlet />
      <sd-hearing-dialog />
    } @else {
      <sd-frame />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class App {
  /** Made here, so that a listener's page follows the system's theme as well. */
  protected readonly theme = inject(ThemeChoice);
  protected readonly isListener = location.pathname.startsWith('/listen/');
}
