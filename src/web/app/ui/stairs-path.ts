/** A line that stays level until the next point, as the path of a picture; no points, no path. */
export const stairsPath = (points: readonly { readonly x: number; readonly y: number }[]): string =>
  points
    .map(({ x, y }, i) => (i === 0 ? `M${x.toFixed(1)} ${y.toFixed(1)}` : `H${x.toFixed(1)}V${y.toFixed(1)}`))
    .join('');
