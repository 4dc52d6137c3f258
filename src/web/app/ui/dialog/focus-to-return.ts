/**
 * What had the keys before a dialog opened, where they should go back to it: somebody who works by keyboard goes on where
 * they were. After a click they belong to the screen, whose own keys a focused button would swallow.
 *
 * @param document - that the dialog opens in
 */
export function focusToReturn(document: Document): HTMLElement | null {
  const at = document.activeElement;
  return at instanceof HTMLElement && at !== document.body && at.matches(':focus-visible') ? at : null;
}

/** Gives the keys back, unless something else has taken them meanwhile or it has gone from the screen. */
export function returnFocus(to: HTMLElement | null): void {
  if (!to?.isConnected) return;
  const at = to.ownerDocument.activeElement;
  if (at === null || at === to.ownerDocument.body) to.focus();
}
