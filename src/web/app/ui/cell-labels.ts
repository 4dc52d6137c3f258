/**
 * Gives every cell of a plain table the heading of its column, so that on a narrow screen, where a row is shown as a
 * block of its own, each cell says what it is.
 *
 * @param root - whatever holds the tables
 */
export function labelCells(root: ParentNode): void {
  for (const table of root.querySelectorAll('table')) {
    const heads = [...table.querySelectorAll<HTMLElement>(':scope > thead > tr:last-child > *')].map((head) =>
      wordsOf(head).replace(/\s+/g, ' ').trim(),
    );
    if (heads.length === 0) continue;
    for (const row of table.querySelectorAll(':scope > tbody > tr')) {
      let column = 0;
      for (const cell of row.children as Iterable<HTMLTableCellElement>) {
        const label = cell.colSpan > 1 ? '' : (heads[column] ?? '');
        if (cell.dataset['label'] !== label) cell.dataset['label'] = label;
        column += cell.colSpan;
      }
    }
  }
}

/** What a heading says; what is only drawn in it (the numbers of an axis) says nothing over a cell. */
function wordsOf(node: Node): string {
  if (node instanceof Element && node.getAttribute('aria-hidden') === 'true') return '';
  return node.childNodes.length === 0 ? (node.textContent ?? '') : [...node.childNodes].map(wordsOf).join('');
}

/** Keeps the cells labelled while a page changes. @returns stops it */
export function keepCellsLabelled(root: HTMLElement): () => void {
  let isDue = false;
  const observer = new MutationObserver(() => {
    if (isDue) return;
    isDue = true;
    requestAnimationFrame(() => {
      isDue = false;
      labelCells(root);
    });
  });
  observer.observe(root, { childList: true, subtree: true });
  labelCells(root);
  return () => observer.disconnect();
}
