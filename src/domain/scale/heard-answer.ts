/** An answer as the scale takes it. */
export interface HeardAnswer {
  readonly trialId: string | null;
  readonly listenerId: string | null;
  readonly source: 'test' | 'placing' | 'import';
  readonly importKey: string | null;
  readonly attribute: string;
  readonly voice: string | null;
  readonly use: string | null;
  readonly category: string;
  /** Best first; of a pair, as it was given. */
  readonly specimens: readonly string[];
  readonly outcome: 1 | 0.5 | 0 | null;
  readonly tiesAllowed: boolean;
  readonly weight: number;
  readonly circumstances: readonly (readonly [place: number, levelLu: number, isNamed: 0 | 1])[];
  readonly sighted: boolean;
  readonly day: string;
  /** The placing that it belongs to; null for all others. */
  readonly placingId: string | null;
}
