import { ChangeDetectionStrategy, Component, booleanAttribute, computed, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import type { SlotTake } from '#contracts/session-plan';
import { ClipPlayer } from '../../ui/clip-player';
import { formatNumber } from '../../ui/format';
import { settingsLine } from './take-defaults';
import { stateWords, verdictLook } from './verdict-words';

/** What a take is judged to be, why, and what can be done with it; beside it the other takes of its step. */
@Component({
  selector: 'sd-take-verdict',
  imports: [Button, ClipPlayer],
  templateUrl: './take-verdict.html',
  styleUrl: './take-verdict.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeVerdict {
  /** The take that is looked at; null where none of the step counts. */
  readonly take = input.required<SlotTake | null>();
  /** Every take of the step, oldest first. */
  readonly attempts = input.required<readonly SlotTake[]>();
  readonly stepTitle = input.required<string>();
  /** There is a step after this one. */
  readonly hasNext = input(false, { transform: booleanAttribute });
  /** The unit's run is made: nothing is decided any more. */
  readonly closed = input(false, { transform: booleanAttribute });

  readonly keepAsked = output();
  readonly retakeAsked = output();
  readonly correctAsked = output<SlotTake>();
  readonly picked = output<string>();

  protected readonly look = computed(() => {
    const take = this.take();
    return take && verdictLook(take);
  });
  protected readonly number = formatNumber;
  protected readonly settingsLine = settingsLine;
  protected readonly stateWords = stateWords;
}
