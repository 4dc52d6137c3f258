import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterOutlet } from '@angular/router';
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
  protected readonly isListener = location.pathname.startsWith('/listen/');
}
