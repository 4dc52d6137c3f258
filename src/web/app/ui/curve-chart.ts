import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  viewChild,
} from '@angular/core';
import type ApexCharts from 'apexcharts';
import { ThemeChoice } from '../data/theme';
import { curveChartOptions, curveCsv, type CurveChartModel } from './curve-chart-options';
import { ExportRow } from './export-row';

/** Levels over a logarithmic axis. The chart library is loaded when the first chart is shown. */
@Component({
  selector: 'sd-curve-chart',
  imports: [ExportRow],
  template: `
    <div #host class="host" role="img" [attr.aria-label]="title()"></div>
    <sd-export-row [title]="title()" [drawing]="drawing" [csv]="csv" [legend]="legend()" />
  `,
  styles: `
    :host {
      display: block;
    }
    .host {
      min-height: 280px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CurveChart {
  readonly model = input.required<CurveChartModel>();
  readonly title = input.required<string>();

  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly theme = inject(ThemeChoice);
  private chart: ApexCharts | null = null;
  private turn = 0;

  /** A single line is what the title says. */
  protected readonly legend = computed(() => {
    const { series } = this.model();
    return series.length < 2 ? [] : series;
  });
  protected readonly drawing = (): SVGSVGElement | null => this.host().nativeElement.querySelector('svg');
  protected readonly csv = (): string => curveCsv(this.model());

  constructor() {
    effect(() => {
      this.theme.theme();
      void this.draw(this.model(), this.title());
    });
    inject(DestroyRef).onDestroy(() => {
      this.turn = -1;
      this.chart?.destroy();
    });
  }

  private async draw(model: CurveChartModel, title: string): Promise<void> {
    const turn = ++this.turn;
    const { default: Apex } = await import('apexcharts');
    // Another draw, or the end of the component, has overtaken this one.
    if (turn !== this.turn) return;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name).trim();
    const ink = {
      ink: colour('--ink'),
      quiet: colour('--quiet'),
      rule: colour('--rule'),
      isDark: this.theme.theme() === 'basalt',
      colour,
    };
    this.chart?.destroy();
    this.chart = new Apex(this.host().nativeElement, curveChartOptions(model, ink, title));
    await this.chart.render();
  }
}
