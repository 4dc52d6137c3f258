const FOCUSABLE = [
  ...['input:not([type="hidden"])', 'textarea', 'select', 'button'].map((tag) => `${tag}:not(:disabled)`),
  'a[href]',
  '[tabindex]',
]
  .map((selector) => `${selector}:not([tabindex="-1"])`)
  .join(',');

/** Where a dialog's fields, its answers and its cross stand, in the order in which they are looked through. */
const PLACES = ['.p-dialog-content', '.p-dialog-footer', '.p-dialog-header'];

/**
 * What takes the keys when a dialog opens: its first field, else its first answer, else its cross. (Whether a button
 * asks for them cannot be seen: the library writes `autofocus` on each of them.)
 *
 * @param dialog - as it stands in the document
 * @returns null where it already has the focus, or nothing that could
 */
export function firstToFocus(dialog: HTMLElement): HTMLElement | null {
  if (dialog.contains(dialog.ownerDocument.activeElement)) return null;
  for (const place of PLACES) {
    const found = dialog.querySelector(place)?.querySelector<HTMLElement>(FOCUSABLE);
    if (found) return found;
  }
  return null;
}
