import { expect, it } from 'vitest';
import { newSavedListSchema } from '#contracts/saved-list';
import { testApplication } from '../testing/application';

it('keeps what an address says under a name; the same name again takes its place, and it can be removed', async () => {
  const { savedLists: lists } = await testApplication();
  const under = { page: 'ranking', query: { kind: 'microphone', upTo: '50' } } as const;
  await lists.keep({ name: 'Under 50', ...under });
  const { id: road } = await lists.keep({ name: 'for the road', page: 'ranking', query: { kind: 'field-microphone' } });
  await lists.keep({ name: 'under 50', page: 'gear', query: { kind: 'microphone' } });
  await lists.keep({ name: 'under 50', ...under, query: { ...under.query, upTo: '49' } });
  const named = async () => (await lists.list()).map((l) => [l.name, l.page, l.query]);
  expect(await named()).toEqual([
    ['for the road', 'ranking', { kind: 'field-microphone' }],
    ['under 50', 'gear', { kind: 'microphone' }],
    ['under 50', 'ranking', { kind: 'microphone', upTo: '49' }],
  ]);
  await lists.remove(road);
  expect(await named()).toHaveLength(2);
  await expect(lists.remove(road)).rejects.toThrow(/no such list/);
  expect(newSavedListSchema.safeParse({ name: 'x', page: 'bench', query: {} }).success).toBe(false);
});
