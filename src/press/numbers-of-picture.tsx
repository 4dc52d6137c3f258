import type { ComponentChildren } from 'preact';
import { Scroll } from './scroll';

/** What a picture shows, as a table behind it: for who cannot see it, and for who wants to take the numbers away. */
export function NumbersOfPicture({ label, children }: { label: string; children: ComponentChildren }) {
  return (
    <details>
      <summary>The numbers of this picture</summary>
      <Scroll label={label}>
        <table>{children}</table>
      </Scroll>
    </details>
  );
}
