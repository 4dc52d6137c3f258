/**
 * Points that others have taken the place of.
 *
 * @param points - of a unit, newest first
 */
export function earlierPoints<P extends { readonly criterion: string }>(points: readonly P[]): P[] {
  const seen = new Set<string>();
  return points.filter(({ criterion }) => {
    const isCurrent = !seen.has(criterion);
    seen.add(criterion);
    return !isCurrent;
  });
}
