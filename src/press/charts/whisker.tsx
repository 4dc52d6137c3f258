import { linear } from './scale';

interface Props {
  /** Where it begins and ends. */
  readonly axis: readonly [number, number];
  readonly value: number;
  readonly from: number;
  readonly to: number;
  readonly title: string;
}

/** A total with its interval on an axis that all rows share. */
export function Whisker({ axis, value, from, to, title }: Props) {
  const [width, height] = [150, 16];
  const x = linear(axis[0], axis[1], 4, width - 4);
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} role="img" aria-label={title}>
      <line class="grid" x1={x(axis[0])} x2={x(axis[1])} y1={height / 2} y2={height / 2} />
      <line class="whisker" x1={x(from)} x2={x(to)} y1={height / 2} y2={height / 2} />
      <circle class="whisker-dot" cx={x(value)} cy={height / 2} r="3.5" />
    </svg>
  );
}
