import { expect, it } from 'vitest';
import { protocolSchema } from '#contracts/protocol';
import first from '../seed/protocol-input-stage-1.json' with { type: 'json' };
import second from '../seed/protocol-input-stage-2.json' with { type: 'json' };
import { wantedVersion } from './seed';

const [one, two] = protocolSchema.array().parse([first, second]);
const SHIPPED = [one, two];

it('a new archive gets the newest version as its first', () => {
  expect(wantedVersion(two, SHIPPED, [])).toMatchObject({ version: 1, changes: '' });
  expect(wantedVersion(two, SHIPPED, [])?.steps.every((s) => s.comparable === null)).toBe(true);
});

it('a protocol that was left as it was shipped gets the next version, with what it changes', () => {
  expect(wantedVersion(two, SHIPPED, [one])).toEqual(two);
  // And not once more.
  expect(wantedVersion(two, SHIPPED, [one, two])).toBeNull();
  // Where the archive counts on its own, it is the next there.
  expect(wantedVersion(two, SHIPPED, [{ ...one, version: 4 }])?.version).toBe(5);
});

it('a protocol that a person has changed is theirs', () => {
  const own = { ...one, version: 2, steps: one.steps.slice(1) };
  expect(wantedVersion(two, SHIPPED, [one, own])).toBeNull();
});

it('a protocol of one shipped version is left alone', () => {
  expect(wantedVersion(one, [one], [{ ...one, name: 'Mine' }])).toBeNull();
});
