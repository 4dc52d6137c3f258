import { agreementWords, timesIn } from '#core/rules/listening/plain-words';
import { agreement } from '#core/stats/agreement';
import { orderAgreement } from '#core/stats/order-agreement';
import type { Answer, TrialDocument } from '#contracts/listening';
import { orderOf } from '../heard-from-answer';

/** A listener of a panel, with what they answered. */
export interface PanelListener {
  readonly listener: string;
  readonly trials: readonly { readonly trial: TrialDocument; readonly answer: Answer | null }[];
}

interface Heard {
  readonly items: string;
  readonly isAgain: boolean;
  readonly order: readonly string[];
}

/**
 * What may be said of a panel: how far its listeners agree, heat by heat, since each heat is heard by all at once; and
 * of each who heard a heat twice, how far they agree with themselves.
 *
 * @param listeners - whose answers count
 * @param nameOf - an item by its name
 */
export function panelSentences(
  listeners: readonly PanelListener[],
  nameOf: (item: string) => string,
): { about: string; words: string }[] {
  const all = listeners.map(({ listener, trials }) => ({ listener, heard: trials.flatMap(heard) }));
  const heats = [...new Set(all.flatMap((l) => l.heard.filter((h) => !h.isAgain).map((h) => h.items)))];
  return [
    ...heats.map((items) => {
      const ids = items.split(' ');
      const orders = all.flatMap((l) => l.heard.filter((h) => h.items === items && !h.isAgain).slice(0, 1));
      const scores = orders.map(({ order }) => ids.map((id) => -order.indexOf(id)));
      return { about: `Heat of ${list(ids.map(nameOf))}`, words: agreementWords(agreement(scores)) };
    }),
    ...all.flatMap(({ listener, heard: own }) =>
      own
        .filter((h) => h.isAgain)
        .flatMap((again) => {
          const first = own.find((h) => h.items === again.items && !h.isAgain);
          if (!first) return [];
          const { pairs, alike, p } = orderAgreement(first.order, again.order);
          const words = `Heard ${list(again.items.split(' ').map(nameOf))} twice: ${alike} of ${pairs} pairs were ordered alike. Whoever orders at random does as well ${timesIn(p)}.`;
          return [{ about: listener, words }];
        }),
    ),
  ];
}

function heard({ trial, answer }: PanelListener['trials'][number]): Heard[] {
  if (trial.kind !== 'order' || answer?.kind !== 'order') return [];
  return [{ items: [...trial.items].sort().join(' '), isAgain: trial.isAgain === true, order: orderOf(trial, answer) }];
}

const list = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;
