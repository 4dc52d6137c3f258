import { Drawing } from './drawing';
import { formatNumber } from '#core/measure/figure-text';
import type { Edition } from '#contracts/edition';
import { HZ_TICKS, MARGIN, hzLabel, linear, logarithmic, path } from './scale';

/** Grid of a response: every so many decibels. */
const GRID_DB = 5;
const LEAST_DB = 20;

interface Props {
  readonly response: NonNullable<Edition['response']>;
  readonly width: number;
  readonly height: number;
  readonly title: string;
}

/** Frequency response, 20 Hz to 20 kHz, 1 kHz at zero; what the room decides is shaded. */
export function ResponseChart({ response, width, height, title }: Props) {
  const shown = response.points.filter((p) => p.hz >= 20 && p.hz <= 20_000);
  const levels = shown.map((p) => p.db);
  const middle = (Math.max(...levels, 0) + Math.min(...levels, 0)) / 2;
  const half = Math.max(LEAST_DB, Math.max(...levels, 0) - Math.min(...levels, 0) + GRID_DB) / 2;
  const top = GRID_DB * Math.ceil((middle + half) / GRID_DB);
  const bottom = GRID_DB * Math.floor((middle - half) / GRID_DB);
  const x = logarithmic(20, 20_000, MARGIN.left, width - MARGIN.right);
  const y = linear(bottom, top, height - MARGIN.bottom, MARGIN.top);
  const lines = Array.from({ length: (top - bottom) / GRID_DB + 1 }, (_, i) => bottom + i * GRID_DB);
  const roomTo = x(Math.min(20_000, Math.max(20, response.lowestValidHz)));
  return (
    <Drawing width={width} height={height} title={title}>
      {response.lowestValidHz > 20 && (
        <rect
          class="doubt"
          x={MARGIN.left}
          y={MARGIN.top}
          width={Math.max(0, roomTo - MARGIN.left)}
          height={height - MARGIN.top - MARGIN.bottom}
        />
      )}
      {lines.map((db) => (
        <g key={db}>
          <line class="grid" x1={MARGIN.left} x2={width - MARGIN.right} y1={y(db)} y2={y(db)} />
          <text class="axis" x={MARGIN.left - 6} y={y(db) + 4} text-anchor="end">
            {formatNumber(db, 0)}
          </text>
        </g>
      ))}
      {HZ_TICKS.map((hz) => (
        <g key={hz}>
          <line class="grid" x1={x(hz)} x2={x(hz)} y1={MARGIN.top} y2={height - MARGIN.bottom} />
          <text class="axis" x={x(hz)} y={height - MARGIN.bottom + 16} text-anchor="middle">
            {hzLabel(hz)}
          </text>
        </g>
      ))}
      <path class="own" d={path(shown.map((p) => [x(p.hz), y(p.db)] as const))} />
      <text class="axis" x={width - MARGIN.right} y={height - 2} text-anchor="end">
        Hz · dB re 1 kHz
      </text>
    </Drawing>
  );
}
