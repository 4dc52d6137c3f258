import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, DestroyRef, effect, inject, input, viewChild } from '@angular/core';
import type ApexCharts from 'apexcharts';
import { ThemeChoice } from '../data/theme';
import { bandChartOptions, type BandSeries } from './band-chart-options';

/** Third-octave levels over frequency. The chart library is loaded when the first chart is shown. */
@Component({
  selector: 'sd-band-chart',
  template: `<div #host role="img" [attr.aria-label]="title()"></div>`,
  styles: ':host { display: block; min-height: 280px; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BandChart {
  readonly series = input.required<readonly BandSeries[]>();
  readonly title = input.required<string>();

  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly theme = inject(ThemeChoice);
  private chart: ApexCharts | null = null;
  private drawing = 0;

  constructor() {
    effect(() => {
      this.theme.theme();
      void this.draw(this.series(), this.title());
    });
    inject(DestroyRef).onDestroy(() => {
      this.drawing = -1;
      this.chart?.destroy();
    });
  }

  private async draw(series: readonly BandSeries[], title: string): Promise<void> {
    const turn = ++this.drawing;
    const { default: Apex } = await import('apexcharts');
    // Another draw, or the end of the component, has overtaken this one.
    if (turn !== this.drawing) return;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    const resolved = series.map((s) => ({ ...s, colour: colour(s.colour) }));
    const ink = {
      ink: colour('--ink'),
      quiet: colour('--quiet'),
      rule: colour('--rule'),
      isDark: this.theme.theme() === 'basalt',
    };
    this.chart?.destroy();
    this.chart = new Apex(this.host().nativeElement, bandChartOptions(resolved, ink, title));
    await this.chart.render();
  }
}
