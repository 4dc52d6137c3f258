import { linear } from './scale';

/** Highest total. */
const MOST_POINTS = 5;

interface Props {
  readonly value: number;
  readonly from: number;
  readonly to: number;
  readonly title: string;
}

/** A total with its interval on an axis from 0 to 5. */
export function Whisker({ value, from, to, title }: Props) {
  const [width, height] = [150, 16];
  const x = linear(0, MOST_POINTS, 4, width - 4);
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} role="img" aria-label={title}>
      <line class="grid" x1={x(0)} x2={x(MOST_POINTS)} y1={height / 2} y2={height / 2} />
      <line class="whisker" x1={x(from)} x2={x(to)} y1={height / 2} y2={height / 2} />
      <circle class="whisker-dot" cx={x(value)} cy={height / 2} r="3.5" />
    </svg>
  );
}
