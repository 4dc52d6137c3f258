import type { Device } from '#contracts/devices';
import { groupBy } from '#domain/group-by';
import type { Database } from './db/database';
import {
  deviceSessions,
  insertDeviceSession,
  listedDevices,
  notedElsewhere,
  revokeDeviceSession,
  type DeviceSessionRow,
} from './queries/device-session';
import { Failure } from './failure';
import { Memory, type Memories } from './memory';
import { newKey } from './listening-key';
import { hashOf, isSameSecret } from './secret';

/** A device that was not let in anew for so long has to show the token again. */
export const SESSION_DAYS = 30;
const MOST_LETTERS = 200;

/** Other devices of the owner's: let in by the token once, known by a key of their own afterwards. */
export class Devices {
  /** Sessions that count, by hash; only this process changes them. */
  private readonly sessions: Memory<'all', ReadonlyMap<string, DeviceSessionRow>>;

  /**
   * @param token - what a device shows the first time; null where only this machine is listened to
   */
  constructor(
    private readonly database: Database,
    private readonly now: () => Date,
    private readonly token: string | null,
    private readonly memories: Memories,
  ) {
    this.sessions = new Memory(memories, 'sessions of other devices', ['devices']);
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

  /** The number of the device with this key; null: none that is let in. */
  async known(key: string): Promise<string | null> {
    const session = (await this.sessions.of('all', () => this.read())).get(hashOf(key));
    return session && session.recorded_at > this.oldest() ? session.id : null;
  }

  /** Those that are let in, and those that were and have noted something, newest first. */
  async list(): Promise<Device[]> {
    const noted = groupBy(await notedElsewhere(this.database), (n) => n.device_id);
    return (await listedDevices(this.database, this.oldest())).map((row) => ({
      id: row.id,
      device: row.device,
      address: row.address,
      since: row.recorded_at.toISOString(),
      isLetIn: row.is_let_in,
      noted: (noted.get(row.id) ?? []).map(({ what, count, last }) => ({ what, count, last: last.toISOString() })),
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

  private async read(): Promise<Map<string, DeviceSessionRow>> {
    const rows = await deviceSessions(this.database, this.oldest());
    return new Map(rows.map((row) => [row.key_hash, row]));
  }
}
