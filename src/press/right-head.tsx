import type { ComponentChildren } from 'preact';

/** Head of a column of numbers, which stand to the right. */
export function RightHead({ children }: { children: ComponentChildren }) {
  return (
    <th class="right" scope="col">
      {children}
    </th>
  );
}
