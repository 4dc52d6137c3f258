import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { pairWords } from '#core/gear/pair/pair-words';
import { quantity } from '#core/measure/registry';
import type { PairGroupJson } from '#contracts/curves';
import { CurveChart } from '../../ui/curve-chart';
import { Figure } from '../../ui/figure';
import { pairLink } from '../../ui/pair-link';
import { pairChart } from './measured-charts';

/** What a part does, from takes with it and without it: in words, as curves, and to be heard. */
@Component({
  selector: 'sd-pair-part',
  imports: [CurveChart, Figure, RouterLink],
  templateUrl: './pair-part.html',
  styles: `
    ul {
      margin: 4px 0 8px;
      padding-left: 20px;
    }
    .hear {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      margin: 4px 0 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PairPart {
  readonly groups = input.required<readonly PairGroupJson[]>();
  readonly name = input.required<string>();

  protected readonly pairLink = pairLink;
  protected readonly shown = computed(() =>
    this.groups().map((group, i) => ({
      group,
      title: [`With and without: ${group.varies}`, group.setting].filter((t) => t !== null).join(', '),
      words: pairWords(group),
      chart: pairChart(group),
      // The first setting's figures stand in the table of the unit already.
      figures: i === 0 ? [] : group.figures.map((m) => ({ ...m, name: quantity(m.quantity).name })),
    })),
  );
}
