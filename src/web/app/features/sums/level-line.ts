import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { formatNumber } from '../../ui/format';
import type { LevelMark } from './sum';

const [WIDTH, MARGIN] = [720, 60];
/** Labels that lie nearer to each other stand on lines of their own. */
const LEAST_APART = 110;

/** Levels on one line, each with its name and its number. */
@Component({
  selector: 'sd-level-line',
  template: `
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height()" role="img" [attr.aria-label]="spoken()">
      <line [attr.x1]="margin" [attr.x2]="width - margin" y1="16" y2="16" class="axis" />
      @for (m of placed(); track m.label) {
        <line [attr.x1]="m.x" [attr.x2]="m.x" y1="8" [attr.y2]="m.y - 26" class="mark" />
        <text [attr.x]="m.x" [attr.y]="m.y - 14" text-anchor="middle">{{ m.label }}</text>
        <text [attr.x]="m.x" [attr.y]="m.y" text-anchor="middle" class="number">{{ m.number }}</text>
      }
    </svg>
  `,
  styles: `
    svg {
      width: 100%;
      max-width: 760px;
    }
    .axis {
      stroke: var(--rule);
    }
    .mark {
      stroke: var(--realgar);
      stroke-width: 2;
    }
    text {
      font-size: 12px;
      fill: var(--ink);
    }
    .number {
      fill: var(--quiet);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LevelLine {
  readonly marks = input.required<readonly LevelMark[]>();
  readonly unit = input.required<string>();
  readonly title = input.required<string>();

  protected readonly width = WIDTH;
  protected readonly margin = MARGIN;
  protected readonly placed = computed(() => placedMarks(this.marks(), this.unit()));
  protected readonly height = computed(() => Math.max(...this.placed().map((m) => m.y)) + 8);
  protected readonly spoken = computed(
    () => `${this.title()} ${this.placed().map((m) => `${m.label} ${m.number}`).join(', ')}`, // prettier-ignore
  );
}

interface PlacedMark {
  readonly label: string;
  readonly number: string;
  readonly x: number;
  /** Of the number, under the label. */
  readonly y: number;
}

/** Marks from left to right by their value; those whose names would meet hang lower. */
export function placedMarks(marks: readonly LevelMark[], unit: string): PlacedMark[] {
  const values = marks.map((m) => m.value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const x = (value: number): number =>
    high === low ? WIDTH / 2 : MARGIN + ((value - low) / (high - low)) * (WIDTH - 2 * MARGIN);
  const ends: number[] = [];
  return [...marks]
    .sort((a, b) => a.value - b.value)
    .map(({ label, value }) => {
      const at = x(value);
      const row = ends.findIndex((end) => at - end >= LEAST_APART);
      const level = row === -1 ? ends.length : row;
      ends[level] = at;
      return { label, number: `${formatNumber(value, 0)} ${unit}`, x: at, y: 54 + 34 * level };
    });
}
