import { Drawing } from './drawing';
import { formatNumber } from '#core/measure/figure-text';
import type { Edition } from '#contracts/edition';
import { MARGIN, linear, path, ticks } from './scale';

interface Props {
  readonly frontier: NonNullable<Edition['frontier']>;
  /** The unit that is marked; null for none. */
  readonly own: string | null;
  readonly width: number;
  readonly height: number;
  readonly title: string;
}

/** Points without the price over the price; the stairs are what no cheaper unit equals. */
export function FrontierChart({ frontier, own, width, height, title }: Props) {
  const { units, currency } = frontier;
  const dearest = Math.max(...units.map((u) => u.price), 1);
  const points = units.map((u) => u.composite);
  const [low, high] = [Math.floor(Math.min(...points)), Math.ceil(Math.max(...points))];
  const x = linear(0, dearest * 1.05, MARGIN.left, width - MARGIN.right);
  const y = linear(low, Math.max(low + 1, high), height - MARGIN.bottom, MARGIN.top);
  const on = units.filter((u) => u.isOnFrontier).sort((a, b) => a.price - b.price);
  const stairs = on.flatMap((u, i): (readonly [number, number])[] => {
    const before = i === 0 ? [] : [[x(u.price), y(on[i - 1].composite)] as const];
    return [...before, [x(u.price), y(u.composite)] as const];
  });
  const last = on.at(-1);
  if (last) stairs.push([width - MARGIN.right, y(last.composite)]);
  return (
    <Drawing width={width} height={height} title={title}>
      {ticks(low, Math.max(low + 1, high), 4).map((p) => (
        <g key={p}>
          <line class="grid" x1={MARGIN.left} x2={width - MARGIN.right} y1={y(p)} y2={y(p)} />
          <text class="axis" x={MARGIN.left - 6} y={y(p) + 4} text-anchor="end">
            {formatNumber(p, Number.isInteger(p) ? 0 : 1)}
          </text>
        </g>
      ))}
      {ticks(0, dearest, 5).map((p) => (
        <text key={p} class="axis" x={x(p)} y={height - MARGIN.bottom + 16} text-anchor="middle">
          {formatNumber(p, 0)}
        </text>
      ))}
      {stairs.length > 0 && <path class="stairs" d={path(stairs)} />}
      {units.map((u) => (
        <circle
          key={u.unit}
          class={u.unit === own ? 'own-dot' : 'other-dot'}
          cx={x(u.price)}
          cy={y(u.composite)}
          r={u.unit === own ? 6 : 4}
        >
          <title>{`${u.name}: ${u.price} ${currency}, ${formatNumber(u.composite, 2)} points`}</title>
        </circle>
      ))}
      {units
        .filter((u) => u.unit === own)
        .map((u) => {
          const isRight = x(u.price) > width / 2;
          return (
            <text
              key={u.unit}
              class="own-label"
              x={x(u.price) + (isRight ? -10 : 10)}
              y={y(u.composite) - 9}
              text-anchor={isRight ? 'end' : 'start'}
            >
              {u.name}
            </text>
          );
        })}
      <text class="axis" x={width - MARGIN.right} y={height - 2} text-anchor="end">
        {`${currency} · points without the price`}
      </text>
    </Drawing>
  );
}
