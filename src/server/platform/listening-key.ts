import { randomBytes } from 'node:crypto';

/** 128 random bits as lower-case letters and digits: what opens a sitting or lets a listener in. */
export const newKey = (): string =>
  BigInt(`0x${randomBytes(16).toString('hex')}`)
    .toString(36)
    .padStart(25, '0');

/** What decides the chance of a test or a sitting: never shown, never part of a link. */
export const newSecret = (): string => newKey() + newKey();
