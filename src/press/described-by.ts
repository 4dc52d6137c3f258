import type { FrozenWords } from '#contracts/edition';

/** How a unit is described, a line for each of those who do: listeners, figures, its maker. */
export function describedBy({ heard, measured, maker }: FrozenWords): { readonly by: string; readonly text: string }[] {
  const said = heard.map(({ word, count }) => (count > 1 ? `${word} (${count} times)` : word));
  return [
    ...(said.length > 0 ? [{ by: 'By listeners', text: said.join(', ') }] : []),
    ...measured.map(({ word, why }) => ({ by: 'By its figures', text: `${word} (${why})` })),
    ...(maker.length > 0 ? [{ by: 'By its maker', text: maker.join(', ') }] : []),
  ];
}
