/** How many of a list several threads have taken, each the next one that nobody has. */
export type TakenCount = Int32Array<SharedArrayBuffer>;

export const noneTaken = (): TakenCount => new Int32Array(new SharedArrayBuffer(4));

/** @returns the place of the next one in the list, at or beyond its end where all are taken */
export const takeNext = (taken: TakenCount): number => Atomics.add(taken, 0, 1);

/** Nobody takes any more: what each has taken is its last. */
export const takeNoMore = (taken: TakenCount): void => void Atomics.store(taken, 0, 2 ** 30);
