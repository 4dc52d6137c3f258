import { letterOf } from '#core/rules/listening/letters';
import { seededBits, uniform } from '#core/stats/random';
import type { TestPage } from '#contracts/listening';
import type { Application } from '#server/wiring';
import { DEMO_AUDIENCE } from './blind-pack';

/**
 * Answers of an audience to a pack that was sent out, as they come back: pasted comments in as many ways as people
 * write. What they say follows the worths of the scenario; some do not listen.
 *
 * @param application - with the pack
 * @param page - of the test
 * @param feltWorth - of an item, for a listener
 */
export async function answerDemoPack(
  application: Application,
  page: TestPage,
  feltWorth: (itemId: string, listener: string) => number,
): Promise<void> {
  const items = await application.database.query<{ id: string }>('SELECT id FROM test_item WHERE test_id = $1 ORDER BY ordinal', [page.row.id]); // prettier-ignore
  const letters = new Map(items.map(({ id }, i) => [id, letterOf(i)]));
  const text = DEMO_AUDIENCE.map(({ name, listens, writes }) => {
    const bits = seededBits(`audience ${name}`);
    const chance = (): number => -Math.log(-Math.log(uniform(bits) + 1e-12));
    const order = items
      .map(({ id }) => ({ letter: letters.get(id) ?? '', felt: (listens ? feltWorth(id, name) : 0) + chance() }))
      .sort((a, b) => b.felt - a.felt)
      .map((x) => x.letter);
    return `${name}: ${writes(order)}`;
  }).join('\n');
  const { answers } = await application.returnedAnswers.read(page.row.id, text);
  const kept = answers.filter((a) => a.problem === null && a.doubts.length === 0).map(({ line, listener }) => ({ line, listener, isSomebodyElse: false })); // prettier-ignore
  await application.returnedAnswers.keep(page.row.id, { text, kept });
}
