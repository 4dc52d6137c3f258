import type { ItemRole } from '#contracts/listening';

/** A clip of a test, and whose it is. */
export interface ItemRow {
  readonly id: string;
  readonly test_id: string;
  readonly ordinal: number;
  readonly specimen_id: string;
  readonly take_id: string | null;
  readonly role: ItemRole;
  readonly gain_db: number | null;
  readonly loudness_lufs: number | null;
  readonly name: string;
}
