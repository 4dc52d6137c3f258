import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, signal, viewChild } from '@angular/core';
import { POLAR_OCTAVES_HZ, patternName } from '#core/measure/polar-pattern';
import type { Curves } from '#contracts/curves';
import { frequencyLabel } from './curve-chart-options';
import { ExportRow } from './export-row';
import { formatNumber } from './format';
import { patternPath, polarPath, polarPoint, radiusShare, RINGS_DB } from './polar-geometry';

const RADIUS = 110;
const COLOURS = ['--quiet', '--malachite', '--azurite', '--ochre', '--cinnabar', '--ink'];
const DASHES = ['2 2', '6 3', '', '8 2 2 2', '3 1', '1 2'];

/** Levels by direction re the front: broadband, by octave, and the nearest first-order pattern. */
@Component({
  selector: 'sd-polar-plot',
  imports: [ExportRow],
  templateUrl: './polar-plot.html',
  styleUrl: './polar-plot.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PolarPlot {
  readonly polar = input.required<NonNullable<Curves['polar']>>();
  readonly title = input.required<string>();

  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');
  /** Octave that is picked out; null shows the mean of all. */
  protected readonly octave = signal<number | null>(null);

  protected readonly octaves = POLAR_OCTAVES_HZ.map((hz, i) => ({
    i,
    label: `${frequencyLabel(hz)} Hz`,
    colour: `var(${COLOURS[i]})`,
    dash: DASHES[i],
  }));
  protected readonly rings = RINGS_DB.map((db) => ({ db: formatNumber(db, 0), r: RADIUS * radiusShare(db) }));
  protected readonly spokes = [0, 45, 90, 135, 180, 225, 270, 315].map((angle) => ({
    angle,
    ...polarPoint(angle, 0, RADIUS),
    label: polarPoint(angle, 3, RADIUS),
  }));
  protected readonly broadband = computed(() =>
    polarPath(
      this.polar().levels.map((l) => ({ angleDeg: Math.abs(l.angleDeg), db: l.broadbandDb })),
      RADIUS,
    ),
  );
  protected readonly curves = computed(() =>
    this.octaves.map((o) => ({
      ...o,
      path: polarPath(
        this.polar().levels.flatMap((l) => {
          const db = l.octavesDb[o.i];
          return db === null ? [] : [{ angleDeg: Math.abs(l.angleDeg), db }];
        }),
        RADIUS,
      ),
    })),
  );
  protected readonly pattern = computed(() => {
    const { pattern } = this.polar();
    return pattern && { path: patternPath(pattern.alpha, RADIUS), name: patternName(pattern.alpha), ...pattern };
  });
  protected readonly points = computed(() =>
    this.polar().levels.map((l) => ({ ...polarPoint(l.angleDeg, l.broadbandDb, RADIUS), angle: l.angleDeg })),
  );
  protected readonly number = formatNumber;

  protected readonly drawing = (): SVGSVGElement => this.svg().nativeElement;
  protected readonly csv = (): string => {
    const head = ['angle/°', 'broadband/dB', ...POLAR_OCTAVES_HZ.map((hz) => `${hz} Hz/dB`)];
    const rows = this.polar().levels.map((l) => [
      l.angleDeg,
      l.broadbandDb.toFixed(2),
      ...l.octavesDb.map((db) => db?.toFixed(2) ?? ''),
    ]);
    return [head, ...rows].map((cells) => cells.join(',')).join('\r\n') + '\r\n';
  };
}
