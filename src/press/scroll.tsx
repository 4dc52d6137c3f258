import type { ComponentChildren } from 'preact';

/** A table that may be wider than the screen: it scrolls by itself, also by keys, and says what it is. */
export const Scroll = ({ label, children }: { label: string; children: ComponentChildren }) => (
  <div class="scroll" tabindex={0} role="region" aria-label={label}>
    {children}
  </div>
);
