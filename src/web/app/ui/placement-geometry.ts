/** Where things stand in a plan-view sketch, in its own units. */
export interface PlacementSketch {
  readonly source: { readonly x: number; readonly y: number };
  /** Circles of distance, with their label. */
  readonly rings: readonly { readonly r: number; readonly label: string }[];
  readonly distanceText: string;
  readonly angleText: string;
  /** Arc from the axis to the source; empty on axis. */
  readonly arc: string;
}

const RADIUS = 84;
const NEAR_M = 0.02;
const RING_M = [0.1, 0.3, 1, 3];

/**
 * Plan view from above: the capsule in the middle with its front upwards, the source where the step puts it. Distances
 * are drawn logarithmically, so that 3 cm and 3 m both have room.
 *
 * @param distanceM - source to capsule
 * @param angleDeg - incidence, 0 = in front, clockwise
 */
export function placementSketch(distanceM: number, angleDeg: number): PlacementSketch {
  const far = Math.max(3, distanceM);
  const radius = (m: number): number => (RADIUS * Math.log(Math.max(m, NEAR_M) / NEAR_M)) / Math.log(far / NEAR_M);
  const turn = (angleDeg * Math.PI) / 180;
  const r = Math.max(18, radius(distanceM));
  const at = (angle: number, length: number) => ({ x: length * Math.sin(angle), y: -length * Math.cos(angle) });
  const start = at(0, 26);
  const end = at(turn, 26);
  const isLarge = Math.abs(angleDeg) % 360 > 180 ? 1 : 0;
  return {
    source: at(turn, r),
    rings: RING_M.filter((m) => m <= far).map((m) => ({ r: radius(m), label: distanceText(m) })),
    distanceText: distanceText(distanceM),
    angleText: `${angleDeg}°`.replace('-', '−'),
    arc:
      angleDeg % 360 === 0
        ? ''
        : `M ${start.x} ${start.y} A 26 26 0 ${isLarge} ${angleDeg > 0 ? 1 : 0} ${end.x} ${end.y}`,
  };
}

/** Centimetres up to a metre, metres beyond. */
export const distanceText = (m: number): string =>
  m < 1 ? `${Number((100 * m).toFixed(1))} cm` : `${Number(m.toFixed(2))} m`;
