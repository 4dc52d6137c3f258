/** Stack frames that are printed; more of them tell nothing new. */
const MOST_FRAMES = 8;

/**
 * An error as it is printed: its kind, code and place. Its message may quote what somebody typed, and what a database
 * driver hangs on it holds statements and values; neither is printed.
 */
export function logLines(error: unknown): string {
  if (!(error instanceof Error)) return `unforeseen: ${typeof error}`;
  const { code, routine, table, constraint } = error as Error & Record<string, unknown>;
  const facts = { code, routine, table, constraint };
  const known = Object.entries(facts).flatMap(([key, value]) => (typeof value === 'string' ? [`${key} ${value}`] : []));
  const frames = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, MOST_FRAMES);
  const cause = error.cause === undefined ? [] : [`caused by ${logLines(error.cause)}`];
  return [`unforeseen: ${[error.name, ...known].join(', ')}`, ...frames, ...cause].join('\n');
}
