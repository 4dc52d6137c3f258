import type { Protocol } from '#contracts/protocol';
import type { Database } from '../db/database';
import { listProtocols } from '../db/queries/protocol';

/** The written rules: protocols. */
export class RulesReader {
  constructor(private readonly database: Database) {}

  protocols(): Promise<Protocol[]> {
    return listProtocols(this.database);
  }
}
