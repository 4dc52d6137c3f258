import { QUESTIONS, type NewTest } from '#contracts/listening';
import type { PackDocument } from '#contracts/blind-pack';
import { CODE_NAMES } from '#core/rules/listening/code-names';
import { letterOf } from '#core/rules/listening/letters';
import { partWords } from '#domain/listening/pack-result';
import type { ItemRow } from '#domain/listening/test-item';
import { isRanked } from '#domain/listening/trial-plan';
import type { BlindPackRow } from './queries/blind-pack';
import type { TestDbRow } from './queries/listening';
import { keyText, nonceOf, openingCodeOf, sha256Of } from './seal-key';

/**
 * The key of a pack, before it goes out.
 *
 * @param of - the test
 * @param of.row - with its secret and its day
 * @param of.test - what is asked
 * @param of.items - in the order that was drawn: the first is called by the first code name
 * @param of.sha256s - of their files as they go out
 */
export function sealPack({
  row,
  test,
  items,
  sha256s,
}: {
  readonly row: Pick<TestDbRow, 'id' | 'secret' | 'day'>;
  readonly test: NewTest;
  readonly items: readonly ItemRow[];
  readonly sha256s: readonly string[];
}): Omit<BlindPackRow, 'document'> & { readonly document: PackDocument } {
  const text = keyText({
    format: 'sediment-blind-key/1',
    title: test.pack?.title ?? '',
    question: QUESTIONS[test.attribute],
    sealedOn: row.day,
    revealOn: test.pack?.revealOn ?? row.day,
    nonce: nonceOf(row.secret),
    clips: items.map((item, i) => ({
      letter: letterOf(i),
      name: CODE_NAMES[i],
      unit: item.name,
      part: partWords(item),
      sha256: sha256s[i],
    })),
  });
  // By their names, which says nothing of the order that was drawn.
  const names = items.filter(isRanked).map((i) => ({ specimenId: i.specimen_id, name: i.name })).sort((a, b) => (a.name < b.name ? -1 : 1)); // prettier-ignore
  return {
    test_id: row.id,
    key_text: text,
    key_sha256: sha256Of(text),
    opening_code: openingCodeOf(row.secret),
    document: { names },
    sealed_on: row.day,
  };
}
