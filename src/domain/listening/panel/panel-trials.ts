import type { Answer, TrialDocument } from '#contracts/listening';
import { codeOf } from '../heard-from-answer';
import type { PanelTurn } from './panel-state';

/** What one listener was asked in a turn, and answered, as every listening test keeps it. */
export interface PanelTrial {
  readonly sitting: string;
  readonly trial: TrialDocument;
  readonly answer: Answer;
}

/** Trials of a turn that is closed: one for each who gave an order. */
export function panelTrials(turn: PanelTurn): PanelTrial[] {
  const items = [...turn.items];
  return [...turn.orders].map(([sitting, order]) =>
    turn.kind === 'place'
      ? {
          sitting,
          trial: { kind: 'place', items, round: turn.round },
          answer: { kind: 'place', at: order.indexOf(items.at(-1) ?? '') },
        }
      : {
          sitting,
          trial: { kind: 'order', items, round: turn.round, isFinal: turn.isFinal, isAgain: turn.again !== null },
          answer: { kind: 'order', codes: order.map((item) => codeOf(items.indexOf(item))) },
        },
  );
}
