/** Two things were compared. */
export interface PairAnswer {
  /** Index of the one that was given first. */
  readonly a: number;
  readonly b: number;
  /** 1: a was preferred, 0: b, 0.5: neither. */
  readonly outcome: 1 | 0.5 | 0;
  /** Whether "neither" could have been answered. */
  readonly tiesAllowed: boolean;
  /** How much the answer counts; 1 for one fresh answer. */
  readonly weight: number;
  /** Covariates of a minus those of b, as many as the table has. */
  readonly covariates?: readonly number[];
}

/** Several things were put in order, no two alike. */
export interface OrderAnswer {
  /** Indices, best first. */
  readonly items: readonly number[];
  readonly weight: number;
  /** Covariates of each thing, in the order of the items. */
  readonly covariates?: readonly (readonly number[])[];
}

/**
 * Answers laid out for fitting. Like answers to the same pair are counted together, so that a table of a thousand
 * units and fifty thousand answers stays small, and one more answer costs nothing.
 */
export class AnswerTable {
  readonly pairA: number[] = [];
  readonly pairB: number[] = [];
  readonly winsA: number[] = [];
  readonly ties: number[] = [];
  readonly winsB: number[] = [];
  readonly tiesAllowed: boolean[] = [];
  /** Covariates of each pair, in turn. */
  readonly pairCovariates: number[] = [];
  /** Orders in turn: where each begins in `orderItems`, with the end of the last. */
  readonly orderStarts: number[] = [0];
  readonly orderItems: number[] = [];
  readonly orderWeights: number[] = [];
  readonly orderCovariates: number[] = [];
  private readonly known = new Map<number, number>();

  /**
   * @param items - how many things there are
   * @param covariates - how many covariates each answer carries
   */
  constructor(
    readonly items: number,
    readonly covariates = 0,
  ) {}

  /** Whether any answer was "neither". */
  get hasTies(): boolean {
    return this.ties.some((count) => count > 0);
  }

  addPair({ a, b, outcome, tiesAllowed, weight, covariates }: PairAnswer): void {
    if (a === b || weight <= 0) return;
    // Without covariates, A against B is B against A.
    const isTurned = this.covariates === 0 && a > b;
    const [first, second] = isTurned ? [b, a] : [a, b];
    const index = this.row(first, second, tiesAllowed, covariates);
    const won = isTurned ? 1 - outcome : outcome;
    if (won === 1) this.winsA[index] += weight;
    else if (won === 0) this.winsB[index] += weight;
    else this.ties[index] += weight;
  }

  addOrder({ items, weight, covariates }: OrderAnswer): void {
    if (items.length < 2 || weight <= 0) return;
    items.forEach((item, i) => {
      this.orderItems.push(item);
      for (let c = 0; c < this.covariates; c++) this.orderCovariates.push(covariates?.[i]?.[c] ?? 0);
    });
    this.orderStarts.push(this.orderItems.length);
    this.orderWeights.push(weight);
  }

  private row(a: number, b: number, tiesAllowed: boolean, covariates: readonly number[] | undefined): number {
    const key = this.covariates === 0 ? (a * this.items + b) * 2 + (tiesAllowed ? 1 : 0) : -1;
    const found = this.known.get(key);
    if (found !== undefined) return found;
    const index = this.pairA.length;
    this.pairA.push(a);
    this.pairB.push(b);
    this.winsA.push(0);
    this.ties.push(0);
    this.winsB.push(0);
    this.tiesAllowed.push(tiesAllowed);
    for (let c = 0; c < this.covariates; c++) this.pairCovariates.push(covariates?.[c] ?? 0);
    if (key >= 0) this.known.set(key, index);
    return index;
  }
}
