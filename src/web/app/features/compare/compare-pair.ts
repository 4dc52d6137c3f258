import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import { lowCutWords } from '#core/measure/low-cut';
import { removalWords } from '#core/measure/removed-by-band';
import type { CompareRequest, CompareTable, LaneDifference } from '#contracts/compare';
import { formatNumber, plusMinus } from '../../ui/format';

/** Third octaves that say something of speech and of what disturbs it, Hz. */
const [LOWEST_HZ, HIGHEST_HZ] = [60, 16_000];

/** What a part does: gain, noise, hidden low-cut and what it takes away, from takes with and without it. */
@Component({
  selector: 'sd-compare-pair',
  imports: [Button],
  templateUrl: './compare-pair.html',
  styles: `
    :host {
      display: grid;
      gap: 12px;
      padding: 16px;
    }
    .figures {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 32px;
      margin: 0;
    }
    .figures dt {
      font-size: 12px;
      color: var(--quiet);
    }
    .figures dd {
      margin: 0;
    }
    .removed th,
    .removed td {
      padding-right: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ComparePair {
  readonly pair = input.required<NonNullable<CompareTable['pair']>>();
  /** Null where it was not looked for: the zero line is another clip than the one without the part. */
  readonly lowCut = input.required<LaneDifference['lowCut'] | null>();
  readonly lowCutAsked = output();
  /** How levels are matched now. */
  readonly match = input.required<CompareRequest['match']>();
  readonly gainAsked = output();

  protected readonly rows = computed(() =>
    this.pair().removed.filter((r) => r.centreHz >= LOWEST_HZ && r.centreHz <= HIGHEST_HZ),
  );
  protected readonly number = formatNumber;
  protected readonly plusMinus = plusMinus;
  protected readonly lowCutWords = lowCutWords;
  protected readonly removalWords = removalWords;
}
