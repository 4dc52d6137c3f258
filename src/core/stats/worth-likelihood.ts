import type { AnswerTable } from './comparison-answers';

/** How strongly parameters are drawn to zero. */
export interface WorthPenalty {
  /** Precision of a normal prior on each log worth; 0 for plain maximum likelihood. */
  readonly worth: number;
  /** The same on covariates and on the logarithm of the tie parameter. */
  readonly others: number;
}

/**
 * Log likelihood of answers, with gradient and Hessian, at one set of parameters: log worths, then the logarithm of
 * Davidson's tie parameter ν where ties occur, then covariates.
 *
 * Pairs: P(a) : P(tie) : P(b) = √(wa/wb) : ν : √(wb/wa) (Davidson, JASA 65 (1970); Bradley & Terry, Biometrika 39
 * (1952) where ties were not allowed). Orders: each place is a choice among what is left (Plackett, Appl. Statist. 24
 * (1975); Luce 1959). Both are exponential families, so the log likelihood is concave.
 */
export class WorthLikelihood {
  readonly size: number;
  private readonly tieAt: number;
  private readonly covariatesAt: number;
  private nu = 0;
  // Per pair: second derivatives with respect to the difference, to difference and tie, to the tie.
  private readonly hDD: Float64Array;
  private readonly hDT: Float64Array;
  private readonly hTT: Float64Array;
  /** Probability of each choice at each stage, stages in turn. */
  private readonly stageP: Float64Array;
  private readonly scratch: Float64Array;
  readonly gradient: Float64Array;
  /** Log likelihood without the penalty. */
  logLikelihood = 0;
  /** Log likelihood less the penalty: what is made as large as can be. */
  objective = 0;

  /**
   * @param answers - stays the caller's; may grow between calls of a new instance, not of this one
   * @param penalty - on the parameters
   * @param withTies - whether the tie parameter is estimated
   */
  constructor(
    private readonly answers: AnswerTable,
    private readonly penalty: WorthPenalty,
    private readonly withTies: boolean,
  ) {
    const { items, covariates, pairA, orderStarts } = answers;
    this.tieAt = items;
    this.covariatesAt = items + (withTies ? 1 : 0);
    this.size = this.covariatesAt + covariates;
    [this.hDD, this.hDT, this.hTT] = Array.from({ length: 3 }, () => new Float64Array(pairA.length));
    let stages = 0;
    let longest = 0;
    for (let o = 0; o + 1 < orderStarts.length; o++) {
      const length = orderStarts[o + 1] - orderStarts[o];
      stages += (length * (length + 1)) / 2 - 1;
      longest = Math.max(longest, length);
    }
    this.stageP = new Float64Array(stages);
    this.scratch = new Float64Array(longest);
    this.gradient = new Float64Array(this.size);
  }

  /** Sets the parameters: likelihood, gradient and what the Hessian is made of follow. */
  evaluate(parameters: Float64Array): void {
    this.gradient.fill(0);
    this.nu = this.withTies ? Math.exp(parameters[this.tieAt]) : 0;
    this.logLikelihood = this.evaluatePairs(parameters) + this.evaluateOrders(parameters);
    let penalty = 0;
    for (let i = 0; i < this.size; i++) {
      const precision = this.precision(i);
      penalty += 0.5 * precision * parameters[i] ** 2;
      this.gradient[i] -= precision * parameters[i];
    }
    this.objective = this.logLikelihood - penalty;
  }

  private precision(i: number): number {
    return i < this.answers.items ? this.penalty.worth : this.penalty.others;
  }

  private evaluatePairs(parameters: Float64Array): number {
    const { pairA, pairB, winsA, winsB, ties, tiesAllowed, covariates, pairCovariates } = this.answers;
    const { gradient, covariatesAt } = this;
    let sum = 0;
    for (let e = 0; e < pairA.length; e++) {
      let difference = parameters[pairA[e]] - parameters[pairB[e]];
      for (let c = 0; c < covariates; c++)
        difference += pairCovariates[e * covariates + c] * parameters[covariatesAt + c];
      const nu = tiesAllowed[e] ? this.nu : 0;
      // Scaled by the larger of the two, so that nothing overflows.
      const shift = Math.abs(difference) / 2;
      const root = Math.exp(-shift);
      const up = difference > 0 ? 1 : root * root;
      const down = difference > 0 ? root * root : 1;
      const tie = nu * root;
      const total = up + down + tie;
      const pA = up / total;
      const pT = tie / total;
      const count = winsA[e] + winsB[e] + ties[e];
      sum += winsA[e] * (difference / 2 - shift) - winsB[e] * (difference / 2 + shift) - count * Math.log(total);
      if (ties[e] > 0) sum += ties[e] * (Math.log(nu) - shift);
      const expected = pA + pT / 2;
      const slope = winsA[e] + ties[e] / 2 - count * expected;
      gradient[pairA[e]] += slope;
      gradient[pairB[e]] -= slope;
      for (let c = 0; c < covariates; c++) gradient[covariatesAt + c] += slope * pairCovariates[e * covariates + c];
      this.hDD[e] = count * (pA + pT / 4 - expected * expected);
      if (this.withTies && tiesAllowed[e]) {
        gradient[this.tieAt] += ties[e] - count * pT;
        this.hDT[e] = count * pT * (0.5 - expected);
        this.hTT[e] = count * pT * (1 - pT);
      }
    }
    return sum;
  }

  private evaluateOrders(parameters: Float64Array): number {
    const { orderStarts, orderItems, orderWeights, orderCovariates, covariates } = this.answers;
    const { gradient, covariatesAt, stageP, scratch } = this;
    let sum = 0;
    let at = 0;
    for (let o = 0; o < orderWeights.length; o++) {
      const [start, end, weight] = [orderStarts[o], orderStarts[o + 1], orderWeights[o]];
      let most = -Infinity;
      for (let i = start; i < end; i++) {
        let value = parameters[orderItems[i]];
        for (let c = 0; c < covariates; c++)
          value += orderCovariates[i * covariates + c] * parameters[covariatesAt + c];
        scratch[i - start] = value;
        if (value > most) most = value;
      }
      let all = 0;
      for (let i = end - 1; i >= start; i--) {
        const value = scratch[i - start] - most;
        scratch[i - start] = Math.exp(value);
        all += scratch[i - start];
        if (i < end - 1) sum += weight * (value - Math.log(all));
      }
      for (let stage = start; stage < end - 1; stage++) {
        // Summed anew: what is left after the best is taken off would lose digits.
        let total = 0;
        for (let i = stage; i < end; i++) total += scratch[i - start];
        for (let i = stage; i < end; i++) {
          const p = scratch[i - start] / total;
          stageP[at + i - stage] = p;
          const slope = weight * ((i === stage ? 1 : 0) - p);
          gradient[orderItems[i]] += slope;
          for (let c = 0; c < covariates; c++)
            gradient[covariatesAt + c] += slope * orderCovariates[i * covariates + c];
        }
        at += end - stage;
      }
    }
    return sum;
  }

  /**
   * Negative Hessian of the objective times a vector.
   *
   * @param v - as long as the parameters
   * @param out - filled
   */
  multiply(v: Float64Array, out: Float64Array): void {
    for (let i = 0; i < this.size; i++) out[i] = this.precision(i) * v[i];
    const { pairA, pairB, covariates, pairCovariates } = this.answers;
    const { covariatesAt, tieAt, withTies } = this;
    for (let e = 0; e < pairA.length; e++) {
      let d = v[pairA[e]] - v[pairB[e]];
      for (let c = 0; c < covariates; c++) d += pairCovariates[e * covariates + c] * v[covariatesAt + c];
      const t = withTies ? v[tieAt] : 0;
      const u = this.hDD[e] * d + this.hDT[e] * t;
      out[pairA[e]] += u;
      out[pairB[e]] -= u;
      for (let c = 0; c < covariates; c++) out[covariatesAt + c] += u * pairCovariates[e * covariates + c];
      if (withTies) out[tieAt] += this.hDT[e] * d + this.hTT[e] * t;
    }
    this.multiplyOrders(v, out);
  }

  /** The inner loop of every conjugate gradient: no closures here. */
  private multiplyOrders(v: Float64Array, out: Float64Array): void {
    const { orderStarts, orderItems, orderWeights, covariates, orderCovariates } = this.answers;
    const { covariatesAt, stageP, scratch } = this;
    let at = 0;
    for (let o = 0; o < orderWeights.length; o++) {
      const [start, end, weight] = [orderStarts[o], orderStarts[o + 1], orderWeights[o]];
      for (let i = start; i < end; i++) {
        let x = v[orderItems[i]];
        for (let c = 0; c < covariates; c++) x += orderCovariates[i * covariates + c] * v[covariatesAt + c];
        scratch[i - start] = x;
      }
      for (let stage = start; stage < end - 1; stage++) {
        let mean = 0;
        for (let i = stage; i < end; i++) mean += stageP[at + i - stage] * scratch[i - start];
        for (let i = stage; i < end; i++) {
          const u = weight * stageP[at + i - stage] * (scratch[i - start] - mean);
          out[orderItems[i]] += u;
          for (let c = 0; c < covariates; c++) out[covariatesAt + c] += u * orderCovariates[i * covariates + c];
        }
        at += end - stage;
      }
    }
  }

  /** Diagonal of the negative Hessian, for preconditioning. */
  diagonal(): Float64Array {
    const out = Float64Array.from({ length: this.size }, (_, i) => this.precision(i));
    const { pairA, pairB, covariates, pairCovariates, orderCovariates } = this.answers;
    for (let e = 0; e < pairA.length; e++) {
      out[pairA[e]] += this.hDD[e];
      out[pairB[e]] += this.hDD[e];
      for (let c = 0; c < covariates; c++)
        out[this.covariatesAt + c] += this.hDD[e] * pairCovariates[e * covariates + c] ** 2;
      if (this.withTies) out[this.tieAt] += this.hTT[e];
    }
    this.eachStage((indices, at, count, weight, first) => {
      for (let i = 0; i < count; i++) {
        const p = this.stageP[at + i];
        out[indices[first + i]] += weight * p * (1 - p);
        for (let c = 0; c < covariates; c++)
          out[this.covariatesAt + c] += weight * p * (1 - p) * orderCovariates[(first + i) * covariates + c] ** 2;
      }
    });
    return out;
  }

  /** The whole negative Hessian, row by row (size × size). */
  dense(): Float64Array {
    const n = this.size;
    const out = new Float64Array(n * n);
    for (let i = 0; i < n; i++) out[i * n + i] = this.precision(i);
    const { pairA, pairB, covariates } = this.answers;
    const add = (i: number, j: number, value: number): void => {
      out[i * n + j] += value;
      if (i !== j) out[j * n + i] += value;
    };
    for (let e = 0; e < pairA.length; e++) {
      const [a, b, h] = [pairA[e], pairB[e], this.hDD[e]];
      add(a, a, h);
      add(b, b, h);
      add(a, b, -h);
      if (this.withTies) {
        add(a, this.tieAt, this.hDT[e]);
        add(b, this.tieAt, -this.hDT[e]);
        add(this.tieAt, this.tieAt, this.hTT[e]);
      }
      for (let c = 0; c < covariates; c++) {
        const x = this.answers.pairCovariates[e * covariates + c];
        const at = this.covariatesAt + c;
        add(a, at, h * x);
        add(b, at, -h * x);
        if (this.withTies) add(this.tieAt, at, this.hDT[e] * x);
        for (let k = 0; k <= c; k++)
          add(this.covariatesAt + k, at, h * x * this.answers.pairCovariates[e * covariates + k]);
      }
    }
    this.addStages(add);
    return out;
  }

  private addStages(add: (i: number, j: number, value: number) => void): void {
    const { covariates, orderCovariates } = this.answers;
    this.eachStage((indices, at, count, weight, first) => {
      // Each choice touches its own log worth and its covariates; their weighted covariance is the Hessian.
      const touched = Array.from({ length: count }, (_, i) => [
        [indices[first + i], 1] as const,
        ...Array.from(
          { length: covariates },
          (_, c) => [this.covariatesAt + c, orderCovariates[(first + i) * covariates + c]] as const,
        ),
      ]);
      for (let i = 0; i < count; i++) {
        for (let j = 0; j < count; j++) {
          const [p, q] = [this.stageP[at + i], this.stageP[at + j]];
          const h = weight * ((i === j ? p : 0) - p * q);
          for (const [x, fx] of touched[i]) for (const [y, fy] of touched[j]) if (x <= y) add(x, y, h * fx * fy);
        }
      }
    });
  }

  private eachStage(
    visit: (indices: readonly number[], at: number, count: number, weight: number, first: number) => void,
  ): void {
    const { orderStarts, orderItems, orderWeights } = this.answers;
    let at = 0;
    for (let o = 0; o < orderWeights.length; o++) {
      const end = orderStarts[o + 1];
      for (let stage = orderStarts[o]; stage < end - 1; stage++) {
        visit(orderItems, at, end - stage, orderWeights[o], stage);
        at += end - stage;
      }
    }
  }
}
