import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import type { Knot } from '#core/rules/points-curve';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS } from '../../ui/field/number-sheets';
import { curvePath, frameOf, knotAt, xOf, yOf } from './curve-geometry';
import { withKnot, withMoreKnots } from './rubric-draft';

const [WIDTH, HEIGHT] = [420, 120];
/** What an arrow key moves a knot by, in pixels. */
const KEY_PX = 4;

/** A points curve: its knots are typed, or dragged over a strip of what the catalogue has. */
@Component({
  selector: 'sd-curve-editor',
  imports: [Button, NumberField],
  template: `
    <svg
      [attr.viewBox]="'-18 -8 ' + (width + 26) + ' ' + (height + 34)"
      (pointermove)="drag($event)"
      (pointerup)="dragged = null"
    >
      @for (p of [0, 1, 2, 3, 4, 5]; track p) {
        <line class="grid" x1="0" [attr.x2]="width" [attr.y1]="y(p)" [attr.y2]="y(p)" />
        <text class="mark" x="-8" [attr.y]="y(p) + 3" text-anchor="end">{{ p }}</text>
      }
      @for (v of values(); track $index) {
        <line class="unit" [attr.x1]="x(v)" [attr.x2]="x(v)" [attr.y1]="height + 4" [attr.y2]="height + 12" />
      }
      <path class="curve" [attr.d]="path()" />
      @for (knot of curve(); track $index; let i = $index) {
        <circle
          class="knot"
          tabindex="0"
          role="slider"
          [attr.cx]="x(knot[0])"
          [attr.cy]="y(knot[1])"
          r="6"
          [attr.aria-label]="'Knot ' + (i + 1) + ' of ' + name()"
          aria-valuemin="0"
          aria-valuemax="5"
          [attr.aria-valuenow]="knot[1]"
          [attr.aria-valuetext]="knot[1] + ' points at ' + knot[0] + ' ' + unit()"
          (pointerdown)="grab($event, i)"
          (keydown)="key($event, i)"
        />
      }
      <text class="mark" x="0" [attr.y]="height + 24">{{ ends()[0] }}</text>
      <text class="mark" [attr.x]="width" [attr.y]="height + 24" text-anchor="end">{{ ends()[1] }} {{ unit() }}</text>
    </svg>
    <p class="small quiet">
      {{
        values().length === 0
          ? 'No unit has a value here yet.'
          : 'The marks below are the ' + values().length + (values().length === 1 ? ' unit' : ' units') + ' of today.'
      }}
    </p>
    <table class="plain-table narrow">
      <thead>
        <tr>
          <th class="head">At {{ unit() }}</th>
          <th class="head">Points</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        @for (knot of curve(); track $index; let i = $index) {
          <tr>
            <td>
              <sd-number-field
                bare
                required
                [label]="'Knot ' + (i + 1) + ' of ' + name()"
                [sheet]="{ unit: unit() }"
                [value]="knot[0]"
                (valueChange)="type(i, $event ?? knot[0], knot[1])"
              />
            </td>
            <td>
              <sd-number-field
                bare
                required
                [label]="'Points at knot ' + (i + 1) + ' of ' + name()"
                [sheet]="sheets.points"
                [step]="0.5"
                [value]="knot[1]"
                (valueChange)="type(i, knot[0], $event ?? knot[1])"
              />
            </td>
            <td>
              @if (curve().length > 1) {
                <p-button
                  size="small"
                  [text]="true"
                  icon="pi pi-times"
                  [ariaLabel]="'Remove knot ' + (i + 1) + ' of ' + name()"
                  (onClick)="remove(i)"
                />
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
    <p-button size="small" [text]="true" icon="pi pi-plus" label="Another knot" (onClick)="more()" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    svg {
      width: 100%;
      max-width: 520px;
      touch-action: none;
    }
    .grid {
      stroke: var(--rule);
    }
    .mark {
      font: 10px var(--mono);
      fill: var(--quiet);
    }
    .unit {
      stroke: var(--quiet);
      opacity: 0.7;
    }
    .curve {
      fill: none;
      stroke: var(--azurite);
      stroke-width: 2;
    }
    .knot {
      fill: var(--panel);
      stroke: var(--azurite);
      stroke-width: 2;
      cursor: grab;
    }
    .narrow {
      max-width: 340px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CurveEditor {
  readonly name = input.required<string>();
  readonly unit = input.required<string>();
  readonly curve = input.required<readonly Knot[]>();
  /** Of all units. */
  readonly values = input.required<readonly number[]>();
  readonly curveChange = output<readonly Knot[]>();

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly sheets = SHEETS;
  /** Which knot is held; the frame stays while one is. */
  protected dragged: number | null = null;
  private readonly frame = computed(() => frameOf(this.curve(), this.values(), WIDTH, HEIGHT));
  protected readonly path = computed(() => curvePath(this.frame(), this.curve()));
  protected readonly ends = computed(() => {
    const { low, high } = this.frame();
    return [low, high].map((v) => String(Number(v.toPrecision(3))).replace('-', '−'));
  });
  protected readonly x = (value: number): number => xOf(this.frame(), value);
  protected readonly y = (points: number): number => yOf(this.frame(), points);

  /** What is typed is taken as it is; that knots have to ascend is said of the rules as a whole. */
  protected type(i: number, x: number, points: number): void {
    this.curveChange.emit(this.curve().map((knot, at) => (at === i ? [x, points] : knot)));
  }

  /** What is dragged stops at its neighbours. */
  private put(i: number, x: number, points: number): void {
    this.curveChange.emit(withKnot(this.curve(), i, [x, points]));
  }

  protected remove(i: number): void {
    this.curveChange.emit(this.curve().filter((_, at) => at !== i));
  }

  protected more(): void {
    this.curveChange.emit(withMoreKnots(this.curve()));
  }

  protected grab(event: PointerEvent, i: number): void {
    event.preventDefault();
    this.dragged = i;
    (event.target as Element).closest('svg')?.setPointerCapture(event.pointerId);
  }

  protected drag(event: PointerEvent): void {
    if (this.dragged === null) return;
    const svg = event.currentTarget as SVGSVGElement;
    const box = svg.getBoundingClientRect();
    const scale = (WIDTH + 26) / box.width;
    const [x, points] = knotAt(
      this.frame(),
      (event.clientX - box.left) * scale - 18,
      (event.clientY - box.top) * scale - 8,
    );
    this.put(this.dragged, x, points);
  }

  protected key(event: KeyboardEvent, i: number): void {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!way) return;
    event.preventDefault();
    const [x, points] = this.curve()[i];
    if (way[1] !== 0) this.put(i, x, points - way[1] * 0.1);
    else this.put(i, knotAt(this.frame(), this.x(x) + KEY_PX * way[0], this.y(points))[0], points);
  }
}
