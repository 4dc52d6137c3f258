import { expect, it } from 'vitest';
import { joiningRefusal } from './joining-refusal';

it('lets in whoever comes while a test is open', () => {
  expect(joiningRefusal({ design: 'pairs' }, 'open', 0)).toBeNull();
  expect(joiningRefusal({ design: 'panel' }, 'open', 3)).toBeNull();
});

it('says of each test why not: not ready, over, sent out, performed', () => {
  const say = (design: 'pairs' | 'pack' | 'performer', status: 'preparing' | 'failed' | 'open' | 'closed' = 'open') =>
    joiningRefusal({ design }, status, 0);
  expect(say('pairs', 'preparing')).toMatchObject({ code: 'answer-refused', message: expect.stringMatching(/prepared/) as string }); // prettier-ignore
  for (const status of ['closed', 'failed'] as const)
    expect(say('pairs', status)?.message).toBe('This test is closed.');
  expect(say('pack')?.message).toContain('sent out as a pack');
  expect(say('performer')?.message).toContain('performed live');
});

it('has seats for 400', () => {
  expect(joiningRefusal({ design: 'pairs' }, 'open', 399)).toBeNull();
  expect(joiningRefusal({ design: 'pairs' }, 'open', 400)?.code).toBe('too-many');
});
