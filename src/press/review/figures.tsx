import { NumbersOfPicture } from '../numbers-of-picture';
import { RightHead } from '../right-head';
import { Scroll } from '../scroll';
import { formatNumber } from '#core/measure/figure-text';
import { figureWords } from '#domain/review/review-facts';
import { QUANTITY_GROUPS, type QuantityGroup } from '#core/measure/quantities/quantity-definition';
import { isQuantity, quantity } from '#core/measure/registry';
import { ResponseChart } from '../charts/response-chart';
import type { PublishedReview } from './published';

const GROUPS = Object.keys(QUANTITY_GROUPS) as QuantityGroup[];

/** Every figure with its spread, condition, day and protocol; the response and its numbers; figures by condition; claims. */
export function Figures({ review }: { review: PublishedReview }) {
  const { figures, claims, response } = review.edition;
  const groups = GROUPS.map((group) => ({
    group,
    rows: figures.filter((f) => f.group === group && group !== 'recording'),
  }));
  return (
    <section aria-labelledby="figures">
      <h2 id="figures">Measured</h2>
      <p class="quiet small">± is one standard deviation of this reading. A figure counts under its condition only.</p>
      <Scroll label="Measured figures">
        <table>
          <thead>
            <tr>
              <th scope="col">Figure</th>
              <RightHead>Value</RightHead>
              <th scope="col">Condition</th>
              <th scope="col">Read</th>
            </tr>
          </thead>
          <tbody>
            {groups.flatMap(({ group, rows }) =>
              rows.length === 0
                ? []
                : [
                    <tr class="stratum" key={group}>
                      <th scope="rowgroup" colSpan={4}>
                        {QUANTITY_GROUPS[group]}
                      </th>
                    </tr>,
                    ...rows.map((f) => (
                      <tr key={f.quantity}>
                        <th scope="row">{f.name}</th>
                        <td class="right num">{f.text}</td>
                        <td>{f.value === null ? (f.notMeasured ?? f.condition) : f.condition}</td>
                        <td class="small">
                          {f.day}, {f.protocol}
                        </td>
                      </tr>
                    )),
                  ],
            )}
          </tbody>
        </table>
      </Scroll>
      {response && (
        <>
          <h3>Frequency response</h3>
          <figure>
            <ResponseChart
              response={response}
              width={720}
              height={280}
              title="Frequency response, 20 Hz to 20 kHz, in decibels re 1 kHz"
            />
            {response.lowestValidHz > 20 && (
              <figcaption>Below {formatNumber(response.lowestValidHz, 0)} Hz (shaded) the room decides.</figcaption>
            )}
          </figure>
          <NumbersOfPicture label="Frequency response as a table">
            <thead>
              <tr>
                <RightHead>Hz</RightHead>
                <RightHead>dB re 1 kHz</RightHead>
              </tr>
            </thead>
            <tbody>
              {thinned(response.points).map((p) => (
                <tr key={p.hz}>
                  <th class="right num" scope="row">
                    {formatNumber(p.hz, p.hz < 100 ? 1 : 0)}
                  </th>
                  <td class="right num">{formatNumber(p.db, 1)}</td>
                </tr>
              ))}
            </tbody>
          </NumbersOfPicture>
        </>
      )}
      <Conditions review={review} />
      {claims.length > 0 && (
        <>
          <h3>Claimed and measured</h3>
          <Scroll label="Claimed and measured">
            <table>
              <thead>
                <tr>
                  <th scope="col">Figure</th>
                  <th scope="col">Claimed</th>
                  <th scope="col">Measured</th>
                </tr>
              </thead>
              <tbody>
                {claims.map((c) => (
                  <tr key={c.name}>
                    <th scope="row">{c.name}</th>
                    <td class="num">{c.claimed}</td>
                    <td>
                      <span class="num">{c.measured}</span>
                      {c.remark !== '' && <span class="quiet"> ({c.remark})</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Scroll>
        </>
      )}
    </section>
  );
}

/** Figures by voice, place and mount: one number does not hold for all of them. */
function Conditions({ review }: { review: PublishedReview }) {
  const { grid } = review.edition;
  if (!grid || grid.conditions.length < 2) return null;
  const name = (c: (typeof grid.conditions)[number]): string =>
    [c.voice, c.place, c.mount].filter((part) => part !== null).join(', ') || 'nothing noted';
  return (
    <>
      <h3>By condition</h3>
      <Scroll label="Figures by condition">
        <table>
          <caption>The first is the one that counts. Bold: the best, where the best two are told apart.</caption>
          <thead>
            <tr>
              <th scope="col">Figure</th>
              {grid.conditions.map((c) => (
                <th class="right" scope="col" key={name(c)}>
                  {name(c)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {grid.rows.map((row) => (
              <tr key={row.quantity}>
                <th scope="row">{isQuantity(row.quantity) ? quantity(row.quantity).name : row.quantity}</th>
                {row.cells.map((cell, i) => (
                  <td class="right num" key={name(grid.conditions[i])}>
                    {cell === null ? (
                      'not measured'
                    ) : row.best === i ? (
                      <strong>{cellText(row.quantity, cell)}</strong>
                    ) : (
                      cellText(row.quantity, cell)
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </>
  );
}

function cellText(id: string, cell: { readonly value: number; readonly uncertainty: number | null }): string {
  return isQuantity(id) ? figureWords(id, cell) : String(cell.value);
}

/** About so many rows of a curve are a table that somebody reads. */
const ROWS = 40;
const thinned = <T,>(points: readonly T[]): T[] => {
  const step = Math.max(1, Math.ceil(points.length / ROWS));
  return points.filter((_, i) => i % step === 0);
};
