/** What is known under some keys, in the order of these; what is not known is left out. Plain loops: lists are long. */
export function inOrder<T>(known: ReadonlyMap<string, T>, keys: readonly string[]): T[] {
  const all: T[] = [];
  for (const key of keys) {
    const one = known.get(key);
    if (one !== undefined) all.push(one);
  }
  return all;
}
