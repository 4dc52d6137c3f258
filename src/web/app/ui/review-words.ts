/** How many lines of a review rest on facts that are others today. */
export const restWords = (lines: number): string =>
  lines === 1 ? 'one line rests on changed facts' : `${lines} lines rest on changed facts`;
