/**
 * Whether the last answer took the time that was listened over another multiple of the limit.
 *
 * @param seconds - per answer, in order
 * @param afterMin - limit in minutes
 */
export function isBreakDue(seconds: readonly number[], afterMin: number): boolean {
  const stretches = (answers: readonly number[]): number =>
    Math.floor(answers.reduce((s, x) => s + x, 0) / (60 * afterMin));
  return stretches(seconds) > stretches(seconds.slice(0, -1));
}
