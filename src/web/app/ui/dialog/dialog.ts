import { Directive, DestroyRef, afterRenderEffect, inject } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { firstToFocus } from './first-to-focus';
import { focusToReturn, returnFocus } from './focus-to-return';

/**
 * Keys belong to a dialog as soon as it is there, and go back where they were when it closes. The library's own way takes
 * the focus some time after the movement of opening has ended: what is typed by then is lost, and a field that somebody
 * has gone to meanwhile is left again under their hands.
 */
@Directive({ selector: 'p-dialog' })
export class DialogFocus {
  private readonly dialog = inject(Dialog, { self: true });
  private before: HTMLElement | null = null;

  constructor() {
    this.dialog.focusOnShow = false;
    afterRenderEffect(() => {
      const container = this.dialog.container();
      if (container) this.opened(container);
      else this.closed();
    });
    inject(DestroyRef).onDestroy(() => this.closed());
  }

  private opened(container: HTMLElement): void {
    this.before = focusToReturn(container.ownerDocument);
    firstToFocus(container)?.focus();
  }

  private closed(): void {
    returnFocus(this.before);
    this.before = null;
  }
}

/** What a component imports to have a dialog. */
export const DIALOG = [Dialog, DialogFocus] as const;
