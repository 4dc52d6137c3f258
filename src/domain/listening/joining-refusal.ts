import type { NewTest } from '#contracts/listening';
import { isHeldElsewhere } from './trial-plan';

/** Sittings of one test; more are no listeners. */
const MOST_SITTINGS = 400;

/** Why nobody can sit down to a test now. */
export interface JoiningRefusal {
  readonly code: 'answer-refused' | 'too-many';
  readonly message: string;
}

/** @returns null where a listener may come in */
export function joiningRefusal(
  test: Pick<NewTest, 'design'>,
  status: 'preparing' | 'failed' | 'open' | 'closed',
  listeners: number,
): JoiningRefusal | null {
  const refuse = (message: string): JoiningRefusal => ({ code: 'answer-refused', message });
  if (status === 'preparing') return refuse('The clips of this test are still being prepared.');
  if (status !== 'open') return refuse('This test is closed.');
  if (test.design === 'pack') return refuse('This test is sent out as a pack; answers come back by whoever sent it.');
  // A panel is held in one room, and its listeners come in by the same link.
  if (isHeldElsewhere(test) && test.design !== 'panel')
    return refuse('This test is performed live; the operator enters the answers.');
  return listeners >= MOST_SITTINGS
    ? { code: 'too-many', message: `This test has ${listeners} listeners; it takes no more.` }
    : null;
}
