import { NumbersOfPicture } from '../numbers-of-picture';
import { RightHead } from '../right-head';
import { Scroll } from '../scroll';
import { formatNumber } from '#core/measure/figure-text';
import { FrontierChart } from '../charts/frontier-chart';
import { Whisker } from '../charts/whisker';
import type { PublishedReview } from './published';

type Axis = readonly [number, number];

type Row = NonNullable<PublishedReview['edition']['ranking']>['rows'][number];

const points = (value: number): string => formatNumber(value, 2);

function StandingRow({ row, own, href, axis }: { row: Row; own: boolean; href: string | null; axis: Axis }) {
  const [from, to] = row.composite90;
  return (
    <tr class={own ? 'own-row' : undefined}>
      <td class="right num">{row.place}</td>
      <th scope="row">{href && !own ? <a href={href}>{row.name}</a> : row.name}</th>
      <td class="right num">{points(row.composite)}</td>
      <td>
        <Whisker
          axis={axis}
          value={row.composite}
          from={from}
          to={to}
          title={`${points(row.composite)}, 90 % between ${points(from)} and ${points(to)}`}
        />
      </td>
      <td class="right num">{row.rank90[0] === row.rank90[1] ? row.rank90[0] : `${row.rank90[0]}–${row.rank90[1]}`}</td>
    </tr>
  );
}

/** Place in the ranking as of the day of the edition, what it is made of, and the price frontier. */
export function Standing({ review }: { review: PublishedReview }) {
  const { ranking, frontier, publishedOn } = review.edition;
  if (!ranking) return null;
  const own = ranking.rows.find((r) => r.unit === ranking.own);
  const axis = [
    Math.floor(Math.min(...ranking.rows.map((r) => r.composite90[0]))),
    Math.ceil(Math.max(...ranking.rows.map((r) => r.composite90[1]))),
  ] as const;
  return (
    <section aria-labelledby="standing">
      <h2 id="standing">Where it stands</h2>
      {own && (
        <p>
          Place <span class="place num">{own.place}</span> of {ranking.of} units of its kind on {publishedOn}, with 90 %
          probability between {own.rank90[0]} and {own.rank90[1]}. A stratum begins where the first unit of the one
          above is better than its own first with a probability of at least{' '}
          {formatNumber(100 * ranking.stratumProbability, 0)} %.
        </p>
      )}
      <details class="printed">
        <summary>
          The ranking
          {ranking.rows.length < ranking.of
            ? `: ${ranking.rows.length} of ${ranking.of} units, its head and what stands around this one`
            : ''}
        </summary>
        <Scroll label="Ranking">
          <table>
            <caption>
              As of {publishedOn}, rules of version {ranking.rulesVersion}. Points of 5; whiskers are intervals of 90 %.
            </caption>
            <thead>
              <tr>
                <RightHead>Place</RightHead>
                <th scope="col">Unit</th>
                <RightHead>Points</RightHead>
                <th scope="col">
                  {axis[0]} to {axis[1]}
                </th>
                <RightHead>Place, 90 %</RightHead>
              </tr>
            </thead>
            <tbody>
              {ranking.rows.flatMap((row, i) => {
                const opens = i === 0 || ranking.rows[i - 1].stratum !== row.stratum;
                const line = (
                  <StandingRow
                    key={row.unit}
                    row={row}
                    axis={axis}
                    own={row.unit === ranking.own}
                    href={review.pageOf(row.unit)}
                  />
                );
                return opens
                  ? [
                      <tr class="stratum" key={`stratum ${row.stratum}`}>
                        <th scope="rowgroup" colSpan={5}>
                          Stratum {row.stratum}
                        </th>
                      </tr>,
                      line,
                    ]
                  : [line];
              })}
            </tbody>
          </table>
        </Scroll>
      </details>
      <h3>What its points are made of</h3>
      <Scroll label="Points by criterion">
        <table class="short">
          <thead>
            <tr>
              <th scope="col">Criterion</th>
              <RightHead>Counts</RightHead>
              <RightHead>Points of 5</RightHead>
              <th scope="col">Why</th>
            </tr>
          </thead>
          <tbody>
            {ranking.criteria.map((c) => (
              <tr key={c.id}>
                <th scope="row">{c.name}</th>
                <td class="right num">{formatNumber(100 * c.share, 0)} %</td>
                <td class="right num">{c.points === null ? 'not known' : formatNumber(c.points, 1)}</td>
                <td>{c.why}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      {frontier && frontier.units.length > 1 && (
        <>
          <h3>Price and points</h3>
          <figure>
            <FrontierChart
              frontier={frontier}
              own={ranking.own}
              width={720}
              height={300}
              title={`Points without the price over the price, ${frontier.units.length} units`}
            />
            <figcaption>The stairs: what no unit for as much or less equals. As of {publishedOn}.</figcaption>
          </figure>
          <NumbersOfPicture label="Price and points as a table">
            <thead>
              <tr>
                <th scope="col">Unit</th>
                <RightHead>Price, {frontier.currency}</RightHead>
                <RightHead>Points without the price</RightHead>
                <th scope="col">On the stairs</th>
              </tr>
            </thead>
            <tbody>
              {frontier.units.map((u) => (
                <tr key={u.unit} class={u.unit === ranking.own ? 'own-row' : undefined}>
                  <th scope="row">{u.name}</th>
                  <td class="right num">{u.price}</td>
                  <td class="right num">{points(u.composite)}</td>
                  <td>{u.isOnFrontier ? 'yes' : 'no'}</td>
                </tr>
              ))}
            </tbody>
          </NumbersOfPicture>
        </>
      )}
    </section>
  );
}
