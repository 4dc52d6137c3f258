import type { Device } from '#contracts/devices';
import type { Database } from './db/database';
import { deviceSessions, insertDeviceSession, revokeDeviceSession } from './queries/device-session';
import { Failure } from './failure';
import { Memory, type Memories } from './memory';
import { newKey } from './listening-key';
import { hashOf, isSameSecret } from './secret';

/** A device that was not let in anew for so long has to show the token again. */
export const SESSION_DAYS = 30;
const MOST_LETTERS = 200;

/** Other devices of the owner's: let in by the token once, known by a key of their own afterwards. */
export class Devices {
  /** When sessions that count were opened, by hash; only this process changes them. */
  private readonly known: Memory<'all', ReadonlyMap<string, number>>;

  /**
   * @param token - what a device shows the first time; null where only this machine is listened to
   */
  constructor(
    private readonly database: Database,
    private readonly now: () => Date,
    private readonly token: string | null,
    private readonly memories: Memories,
  ) {
    this.known = new Memory(memories, 'sessions of other devices', ['devices']);
  }

  /** @returns the key of a new session, or null for a wrong token */
  async admit(token: string, device: string, address: string): Promise<string | null> {
    if (this.token === null || !isSameSecret(token, this.token)) return null;
    const key = newKey();
    // What a browser says of itself may hold anything.
    const readable = device.replaceAll(/[^\x20-\x7e]/g, '').slice(0, MOST_LETTERS);
    await insertDeviceSession(this.database, { keyHash: hashOf(key), device: readable, address });
    this.memories.tell({ cause: 'devices' });
    return key;
  }

  async isKnown(key: string): Promise<boolean> {
    const since = (await this.known.of('all', () => this.read())).get(hashOf(key));
    return since !== undefined && since > this.oldest().getTime();
  }

  async list(): Promise<Device[]> {
    return (await deviceSessions(this.database, this.oldest())).map((row) => ({
      id: row.id,
      device: row.device,
      address: row.address,
      since: row.recorded_at.toISOString(),
    }));
  }

  /** @throws Failure `not-found` */
  async revoke(id: string): Promise<void> {
    if (!(await revokeDeviceSession(this.database, id, this.now())))
      throw new Failure('not-found', 'There is no device with this number, or it was shut out already.');
    this.memories.tell({ cause: 'devices' });
  }

  private oldest(): Date {
    return new Date(this.now().getTime() - SESSION_DAYS * 24 * 3_600_000);
  }

  private async read(): Promise<Map<string, number>> {
    const rows = await deviceSessions(this.database, this.oldest());
    return new Map(rows.map((row) => [row.key_hash, row.recorded_at.getTime()]));
  }
}
