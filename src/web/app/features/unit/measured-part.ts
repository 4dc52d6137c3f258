import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { sumWith } from '../sums/sum-with';
import { gearKind } from '#core/gear/kinds';
import type { RankingInputs } from '#contracts/ranking';
import type { Run, SpecimenSheet, Take } from '#contracts/specimen';
import { PLAIN_PATHS } from '#contracts/http';
import { bandChart, type BandSeries } from '../../ui/band-chart-options';
import { CatalogueStrip } from '../../ui/catalogue-strip';
import { CurveChart } from '../../ui/curve-chart';
import { Figure } from '../../ui/figure';
import { FiguresOverTable } from '../../ui/figures-over';
import { formatNumber } from '../../ui/format';
import { PolarPlot } from '../../ui/polar-plot';
import { lineMarks } from '../take/take-charts';
import { ConditionPart } from './condition-part';
import { distanceChart, responseChart } from './measured-charts';
import { PairPart } from './pair-part';
import { measuredGroups } from './measured-groups';
import { tablesOver } from './tables-over';

/** What was measured of a unit: figures with claim and place, then the curves. */
@Component({
  selector: 'sd-measured-part',
  imports: [CatalogueStrip, ConditionPart, CurveChart, Figure, FiguresOverTable, PairPart, PolarPlot, RouterLink],
  templateUrl: './measured-part.html',
  styleUrl: './measured-part.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasuredPart {
  readonly sheet = input.required<SpecimenSheet>();
  /** Of the run that counts. */
  readonly run = input.required<Run>();
  readonly name = input.required<string>();
  /** Days of figures that the newest run does not have. */
  readonly older = input<ReadonlyMap<string, string>>(new Map());
  readonly inputs = input<RankingInputs | null>(null);

  protected readonly groups = computed(() =>
    measuredGroups(this.run().measurements, this.sheet().claims, this.inputs()?.units ?? [], this.sheet().row.id),
  );
  private readonly kind = computed(() => gearKind(this.sheet().row.category));
  /** What the rig of its kind cannot tell. */
  protected readonly cannotTell = computed(() => this.kind().cannotTell ?? null);
  protected readonly hasClaims = computed(() => this.sheet().claims.length > 0);
  protected readonly response = computed(() => {
    const { response, sides } = this.run().curves;
    return response && responseChart(response, this.kind().sweepWhere, sides);
  });
  protected readonly distance = computed(() => {
    const { distance } = this.run().curves;
    return distance && distanceChart(distance);
  });
  protected readonly over = computed(() => tablesOver(this.run().curves));
  protected readonly room = computed(() => this.run().curves.room);
  protected readonly roomColumns = [
    { id: 'edt', key: 'edt', name: 'EDT' },
    { id: 't20', key: 't20', name: 'T20' },
    { id: 't30', key: 't30', name: 'T30' },
    { id: 'c50', key: 'c50', name: 'C50' },
  ] as const;
  protected readonly formatNumber = formatNumber;
  protected readonly polar = computed(() => this.run().curves.polar);
  protected readonly spectra = computed(() => {
    const find = (step: string): Take | undefined => this.run().takes.findLast((t) => t.step === step && t.summary);
    const curve = (step: string, name: string, colour: string, dash: number): BandSeries[] => {
      const summary = find(step)?.summary;
      const bands = step === 'silence' ? summary?.noise.thirdOctave : summary?.thirdOctave;
      return bands && bands.length > 0 ? [{ name, bands, colour, dash }] : [];
    };
    const silence = find('silence')?.summary;
    const series = [
      ...curve('speech', 'Speech, in front', '--realgar', 0),
      ...curve('rear', 'Speech, behind', '--azurite', 6),
      ...curve('silence', 'Silence', '--quiet', 2),
    ];
    return series.length === 0 ? null : bandChart(series, 'dBFS', silence ? lineMarks(silence) : []);
  });

  /** The sum that it is most asked for in, filled with its own numbers. */
  protected readonly sumLink = computed(() => sumWith(this.sheet().row));

  protected export(path: string): string {
    return path.replace(':id', this.sheet().row.id);
  }
  protected readonly paths = PLAIN_PATHS;
}
