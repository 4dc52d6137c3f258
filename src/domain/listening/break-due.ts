/**
 * Whether the last answer took the time that was listened over another multiple of the limit.
 *
 * @param seconds - per answer, in order
 * @param afterMin - limit in minutes
 */
export function isBreakDue(seconds: readonly number[], afterMin: number): boolean {
  const last = seconds.at(-1);
  if (last === undefined) return false;
  const all = seconds.reduce((s, x) => s + x, 0) / 60 / afterMin;
  return Math.floor(all) > Math.floor(all - last / 60 / afterMin);
}
