/** A table that was filled in during a run, as far as figures are read from it. */
export interface RunTable {
  /** Of the protocol. */
  readonly step: string;
  readonly cells: readonly { readonly row: string; readonly column: string; readonly value: number }[];
}
