/** A sheet has all its parts after this time. */
const SETTLING_MS = 5_000;
/** By these somebody takes over. */
const TOUCHES = ['wheel', 'keydown', 'pointerdown', 'touchmove'] as const;

/**
 * Keeps a section in view while what stands above it is still coming in and pushes it down, until somebody scrolls or
 * types, or the sheet has settled.
 *
 * @param sheet - what grows
 * @param show - brings the section into view
 * @returns what ends it
 */
export function stayInView(sheet: Element, show: () => void): () => void {
  const observer = new ResizeObserver(show);
  const leave = (): void => {
    observer.disconnect();
    clearTimeout(timer);
    for (const event of TOUCHES) window.removeEventListener(event, leave);
  };
  const timer = setTimeout(leave, SETTLING_MS);
  for (const event of TOUCHES) window.addEventListener(event, leave, { once: true, passive: true });
  show();
  observer.observe(sheet);
  return leave;
}
