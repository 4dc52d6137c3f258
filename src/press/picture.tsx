import type { ComponentChildren } from 'preact';
import { renderToStaticMarkup } from 'preact-render-to-string';
import { formatNumber } from '#core/measure/figure-text';
import { PICTURES, PICTURE_SIZES, type PictureKind, type PictureSize, type PictureTheme } from '#contracts/picture';
import type { Edition } from '#contracts/edition';
import { FrontierChart } from './charts/frontier-chart';
import { ResponseChart } from './charts/response-chart';
import { linear } from './charts/scale';
import { pictureStyle } from './style';

/** Rows of a table that are read in the time that a film shows them (common practice, no source). */
const MOST_ROWS = 9;

interface Frame {
  readonly width: number;
  readonly height: number;
}

/** What is drawn between the heading and the mark, in its own measures. */
function content(kind: PictureKind, edition: Edition, { width, height }: Frame): ComponentChildren | null {
  const { response, frontier, ranking, figures, unit } = edition;
  switch (kind) {
    case 'response':
      return (
        response && (
          <Scaled>
            <ResponseChart
              response={response}
              width={width / SCALE}
              height={height / SCALE}
              title="Frequency response"
            />
          </Scaled>
        )
      );
    case 'frontier':
      return frontier && frontier.units.length > 1 ? (
        <Scaled>
          <FrontierChart
            frontier={frontier}
            own={unit.id}
            width={width / SCALE}
            height={height / SCALE}
            title="Price and points"
          />
        </Scaled>
      ) : null;
    case 'ranking':
      return ranking && <Standing ranking={ranking} frame={{ width, height }} />;
    case 'figures': {
      const rows = figures.filter((f) => f.group !== 'recording' && f.value !== null).slice(0, MOST_ROWS);
      return rows.length === 0 ? null : <Rows rows={rows.map((f) => [f.name, f.text])} frame={{ width, height }} />;
    }
    case 'lower-third':
      return null;
  }
}

/** Charts of pages are drawn for a reader at a desk; a film is looked at from farther away. */
const SCALE = 1.8;
const Scaled = ({ children }: { children: ComponentChildren }) => <g transform={`scale(${SCALE})`}>{children}</g>;

function Rows({ rows, frame }: { rows: readonly (readonly [string, string])[]; frame: Frame }) {
  const step = Math.min(56, frame.height / rows.length);
  return (
    <g>
      {rows.map(([name, value], i) => (
        <g key={name}>
          <text class="ink" font-size="24" x="0" y={step * (i + 0.65)}>
            {name}
          </text>
          <text class="ink" font-size="24" font-weight="600" x={frame.width} y={step * (i + 0.65)} text-anchor="end">
            {value}
          </text>
          <line class="grid" x1="0" x2={frame.width} y1={step * (i + 1)} y2={step * (i + 1)} />
        </g>
      ))}
    </g>
  );
}

/** The unit with those that stand around it, each with its interval. */
function Standing({ ranking, frame }: { ranking: NonNullable<Edition['ranking']>; frame: Frame }) {
  const at = ranking.rows.findIndex((r) => r.unit === ranking.own);
  const first = Math.max(0, Math.min(at - Math.floor(MOST_ROWS / 2), ranking.rows.length - MOST_ROWS));
  const rows = ranking.rows.slice(first, first + MOST_ROWS);
  const x = linear(
    Math.floor(Math.min(...rows.map((r) => r.composite90[0]))),
    Math.ceil(Math.max(...rows.map((r) => r.composite90[1]))),
    frame.width * 0.6,
    frame.width - 70,
  );
  const step = Math.min(56, frame.height / rows.length);
  return (
    <g>
      {rows.map((r, i) => {
        const y = step * (i + 0.5);
        return (
          <g key={r.unit} class={r.unit === ranking.own ? 'own-row' : undefined}>
            <text class="quiet" font-size="22" x="34" y={y + 8} text-anchor="end">
              {r.place}
            </text>
            <text class="ink" font-size="24" font-weight={r.unit === ranking.own ? 700 : 400} x="50" y={y + 8}>
              {r.name}
            </text>
            <line class="whisker" x1={x(r.composite90[0])} x2={x(r.composite90[1])} y1={y} y2={y} stroke-width="3" />
            <circle class="whisker-dot" cx={x(r.composite)} cy={y} r="7" />
            <text class="ink" font-size="22" x={frame.width} y={y + 8} text-anchor="end">
              {formatNumber(r.composite, 2)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** What the picture shows and under which conditions, in one line. */
function condition(kind: PictureKind, edition: Edition): string {
  const [run] = edition.runs;
  const measured = (run as typeof run | undefined)
    ? `${run.protocol} ${run.version}, ${run.date}`
    : edition.publishedOn;
  switch (kind) {
    case 'response':
      return `Frequency response, dB re 1 kHz; below ${formatNumber(edition.response?.lowestValidHz ?? 0, 0)} Hz the room decides. ${measured}`;
    case 'frontier':
      return `Points without the price over the price, ${edition.frontier?.currency ?? ''}, as of ${edition.publishedOn}`;
    case 'ranking':
      return `Points of 5 with intervals of 90 %, of ${edition.ranking?.of ?? 0} units, as of ${edition.publishedOn}`;
    case 'figures':
      return `± is one standard deviation. ${measured}`;
    case 'lower-third':
      return edition.text.headline;
  }
}

/** Words that fit into a width, of letters about half as wide as high. */
const fitted = (text: string, size: number, width: number): number => Math.min(size, (1.8 * width) / Math.max(1, text.length)); // prettier-ignore

/**
 * A picture for a film: a chart or a table of an edition with the name of the unit, the condition and the desk's mark.
 *
 * @returns SVG; null where the edition has nothing of that kind
 */
export function editionPicture(
  edition: Edition,
  kind: PictureKind,
  size: PictureSize,
  theme: PictureTheme,
): string | null {
  const { px, layout } = PICTURE_SIZES[size];
  const { width, height } = layout;
  const margin = 56;
  const name = `${edition.unit.maker} ${edition.unit.model} ${edition.unit.label}`;
  const words = condition(kind, edition);
  const inner = { width: width - 2 * margin, height: height - 250 };
  const drawn = content(kind, edition, inner);
  if (drawn === null && kind !== 'lower-third') return null;
  const isStrip = kind === 'lower-third';
  const top = isStrip ? height - 190 : 0;
  return renderToStaticMarkup(
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${width} ${height}`}
      width={px.width}
      height={px.height}
      role="img"
      aria-label={`${PICTURES[kind]}: ${name}`}
    >
      <style dangerouslySetInnerHTML={{ __html: pictureStyle(theme) }} />
      <rect class="ground" x="0" y={top} width={width} height={height - top} />
      <rect class="own-dot" x="0" y={top} width="12" height={isStrip ? height - top : 150} />
      <text class="ink" font-size={fitted(name, 44, inner.width)} font-weight="700" x={margin} y={top + 74}>
        {name}
      </text>
      <text class="quiet" font-size={fitted(words, 24, inner.width)} x={margin} y={top + 118}>
        {words}
      </text>
      {drawn !== null && <g transform={`translate(${margin} 160)`}>{drawn}</g>}
      <text class="quiet" font-size="22" x={width - margin} y={height - 30} text-anchor="end">
        {edition.desk}
      </text>
    </svg>,
  );
}

/** The picture that goes with a link to an edition: where it stands, else what was measured, else its name alone. */
export const sharedPicture = (edition: Edition): string =>
  editionPicture(edition, 'ranking', '1280x720', 'chalk') ??
  editionPicture(edition, 'figures', '1280x720', 'chalk') ??
  editionPicture(edition, 'lower-third', '1280x720', 'chalk') ??
  '';
