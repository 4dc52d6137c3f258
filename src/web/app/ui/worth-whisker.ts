import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Whisker, type Scale } from './whisker';

/** 5 % and 95 % points of a normal distribution lie so many standard errors out. */
const REACH = 1.645;

/** 90 % interval of a log worth. */
export const worthInterval = ({
  logWorth,
  se,
}: {
  readonly logWorth: number;
  readonly se: number;
}): [number, number] => [logWorth - REACH * se, logWorth + REACH * se];

/** A scale in whole steps that holds the intervals of all. */
export function worthScaleAround(worths: readonly { readonly logWorth: number; readonly se: number }[]): Scale {
  const ends = worths.flatMap(worthInterval);
  return { low: Math.floor(Math.min(-1, ...ends)), high: Math.ceil(Math.max(1, ...ends)) };
}

/** Log worth with its 90 % interval on a scale that others share; zero is the mean of all. */
@Component({
  selector: 'sd-worth-whisker',
  imports: [Whisker],
  template: `<sd-whisker [value]="value()" [interval]="interval()" [scale]="scale()" [text]="text()" [mark]="0" />`,
  styles: `
    :host {
      display: block;
      min-width: 120px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorthWhisker {
  readonly value = input.required<number>();
  readonly se = input.required<number>();
  readonly scale = input.required<Scale>();

  protected readonly interval = computed(() => worthInterval({ logWorth: this.value(), se: this.se() }));
  protected readonly text = computed(() => {
    const [low, high] = this.interval();
    return `log worth ${this.value().toFixed(2)}, 90 % interval ${low.toFixed(2)} to ${high.toFixed(2)}`;
  });
}
