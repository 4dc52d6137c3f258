import { RightHead } from '../right-head';
import { Scroll } from '../scroll';
import { formatNumber } from '#core/measure/figure-text';
import { FrontierChart } from '../charts/frontier-chart';
import { Whisker } from '../charts/whisker';
import { kindPath, packKeyPath, packPath, pagesOf, reviewPath, type SiteContent, type SiteKind, type SitePack, type SiteRankRow, type SiteReview } from './site-content'; // prettier-ignore
import { sitePage, way, type SiteFrame } from './site-page';

/** So many of the latest stand on the front page; all of them on a page of their own. */
const LATEST = 24;

function Card({ review, from }: { review: SiteReview; from: string }) {
  const { unit, text, publishedOn, number } = review.edition;
  const n = review.since.length;
  return (
    <li>
      <h3>
        <a href={way(from, reviewPath(review.slug))}>
          {unit.maker} {unit.model} {unit.label}
        </a>
      </h3>
      <p>{text.headline}</p>
      <p class="quiet small">
        {unit.kind} · {publishedOn}
        {number > 1 && `, edition ${number}`}
        {n > 0 && ` · since then: ${n === 1 ? review.since[0].text : `${n} changes`}`}
      </p>
    </li>
  );
}

/** The front page: what is new, and the kinds. */
export function frontPage(content: SiteContent, frame: SiteFrame): string {
  const path = 'index.html';
  return sitePage({
    frame,
    path,
    title: content.desk || 'Reviews',
    description: `${content.reviews.length} reviews, measured by one protocol and ranked against each other`,
    body: (
      <>
        <header class="top">
          <h1>{content.desk || 'Reviews'}</h1>
        </header>
        <main>
          {content.kinds.length > 0 && (
            <section aria-labelledby="kinds">
              <h2 id="kinds">Rankings</h2>
              <ul class="cards">
                {content.kinds.map((kind) => (
                  <li key={kind.id}>
                    <h3>
                      <a href={way(path, kindPath(kind.id))}>{kind.name}</a>
                    </h3>
                    <ol class="top3">
                      {kind.ranking.slice(0, 3).map((row) => (
                        <li key={row.unit}>{row.name}</li>
                      ))}
                    </ol>
                    <p class="quiet small">{kind.ranking.length} ranked</p>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section aria-labelledby="latest">
            <h2 id="latest">Latest reviews</h2>
            {content.reviews.length === 0 ? (
              <p>Nothing is published yet.</p>
            ) : (
              <ul class="cards">
                {content.reviews.slice(0, LATEST).map((review) => (
                  <Card key={review.id} review={review} from={path} />
                ))}
              </ul>
            )}
            {content.reviews.length > LATEST && (
              <p>
                <a href={way(path, 'all.html')}>All {content.reviews.length} reviews</a>
              </p>
            )}
          </section>
        </main>
        <footer class="end">
          <p>As of {content.day}.</p>
        </footer>
      </>
    ),
  });
}

/** Every review in one table, which a script can narrow; without it the whole table is read. */
export function allPage(content: SiteContent, frame: SiteFrame): string {
  const path = 'all.html';
  return sitePage({
    frame,
    path,
    title: `All reviews${content.desk === '' ? '' : ` · ${content.desk}`}`,
    description: `All ${content.reviews.length} reviews`,
    scripts: ['search'],
    body: (
      <main>
        <h1>All reviews</h1>
        <p data-search hidden>
          <label for="search">Search</label> <input id="search" type="search" autocomplete="off" />{' '}
          <span role="status" data-found />
        </p>
        <Scroll label="All reviews">
          <table>
            <thead>
              <tr>
                <th scope="col">Unit</th>
                <th scope="col">Kind</th>
                <th scope="col">Headline</th>
                <th scope="col">Published</th>
              </tr>
            </thead>
            <tbody data-rows>
              {content.reviews.map(({ id, slug, edition }) => (
                <tr key={id}>
                  <th scope="row">
                    <a href={way(path, reviewPath(slug))}>
                      {edition.unit.maker} {edition.unit.model} {edition.unit.label}
                    </a>
                  </th>
                  <td>{edition.unit.kind}</td>
                  <td>{edition.text.headline}</td>
                  <td class="num">{edition.publishedOn}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroll>
      </main>
    ),
  });
}

/** Blind tests to play: every review that has clips beside each other. */
export function blindPage(content: SiteContent, frame: SiteFrame): string {
  const path = 'blind.html';
  const playable = content.reviews.filter((r) => r.edition.decks.some((d) => d.lanes.length > 1));
  return sitePage({
    frame,
    path,
    title: `Blind tests${content.desk === '' ? '' : ` · ${content.desk}`}`,
    description: 'Clips at equal loudness, names hidden until you have guessed',
    body: (
      <main>
        <h1>Blind tests</h1>
        {content.packs.length > 0 && <Packs packs={content.packs} from={path} />}
        {content.packs.length > 0 && <h2>Guess and see at once</h2>}
        <p>Clips of one step, equally loud. Names are hidden until you have guessed.</p>
        {playable.length === 0 ? (
          <p>None yet.</p>
        ) : (
          <ul class="cards">
            {playable.map(({ id, slug, edition }) => (
              <li key={id}>
                <h2>
                  <a href={`${way(path, reviewPath(slug))}#listen`}>
                    Which one is the {edition.unit.maker} {edition.unit.model} {edition.unit.label}?
                  </a>
                </h2>
                <p class="quiet small">
                  {edition.decks
                    .map((d) => `${d.title}, ${d.lanes.length} ${d.lanes.length === 1 ? 'clip' : 'clips'}`)
                    .join('; ')}
                </p>
              </li>
            ))}
          </ul>
        )}
      </main>
    ),
  });
}

/** Packs whose key was sealed before anybody heard them. */
function Packs({ packs, from }: { packs: readonly SitePack[]; from: string }) {
  return (
    <section aria-labelledby="sealed">
      <h2 id="sealed">With a sealed key</h2>
      <ul class="cards">
        {packs.map((pack) => (
          <li key={pack.tag}>
            <h3>{pack.isPlayable ? <a href={way(from, packPath(pack.tag))}>{pack.title}</a> : pack.title}</h3>
            {!pack.isPlayable && <p class="small">It cannot be heard any more: a clip of it was deleted.</p>}
            <p>{pack.question}</p>
            {pack.opened === null ? (
              <p class="quiet small">
                Sealed on {pack.sealedOn}, to be opened on {pack.revealOn}. SHA-256 of the key:{' '}
                <span class="num code">{pack.keySha256}</span>
              </p>
            ) : (
              <>
                <p class="small">
                  Opened with <span class="num code">{pack.opened.code}</span>
                  {pack.isPlayable ? ': enter it on the page of the test, or read ' : '. Read '}
                  <a href={way(from, packKeyPath(pack.tag))}>the key</a> (SHA-256{' '}
                  <span class="num code">{pack.keySha256}</span>).
                </p>
                <ul class="lines plain small">
                  {pack.opened.sentences.map((words) => (
                    <li key={words}>{words}</li>
                  ))}
                </ul>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Ranking({
  rows,
  hrefOf,
  caption,
}: {
  rows: readonly SiteRankRow[];
  hrefOf: (unit: string) => string | null;
  caption: string;
}) {
  const axis = [
    Math.floor(Math.min(...rows.map((r) => r.composite90[0]))),
    Math.ceil(Math.max(...rows.map((r) => r.composite90[1]))),
  ] as const;
  return (
    <Scroll label={caption}>
      <table>
        <caption>{caption}</caption>
        <thead>
          <tr>
            <RightHead>Place</RightHead>
            <th scope="col">Unit</th>
            <RightHead>Points of 5</RightHead>
            <th scope="col">
              90 %, {axis[0]} to {axis[1]}
            </th>
            <RightHead>Stratum</RightHead>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const href = hrefOf(row.unit);
            const [from, to] = row.composite90;
            return (
              <tr key={row.unit}>
                <td class="right num">{row.place}</td>
                <th scope="row">{href ? <a href={href}>{row.name}</a> : row.name}</th>
                <td class="right num">{formatNumber(row.composite, 2)}</td>
                <td>
                  <Whisker
                    axis={axis}
                    value={row.composite}
                    from={from}
                    to={to}
                    title={`90 % between ${formatNumber(from, 2)} and ${formatNumber(to, 2)}`}
                  />
                </td>
                <td class="right num">{row.stratum}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Scroll>
  );
}

/** A kind: its ranking as it is today, by use, the price frontier, records. */
export function kindPage(kind: SiteKind, content: SiteContent, frame: SiteFrame): string {
  const path = kindPath(kind.id);
  const pages = pagesOf(content.reviews);
  const hrefOf = (unit: string): string | null => {
    const slug = pages.get(unit);
    return slug === undefined ? null : way(path, reviewPath(slug));
  };
  return sitePage({
    frame,
    path,
    title: `${kind.name}: ranking${content.desk === '' ? '' : ` · ${content.desk}`}`,
    description: `${kind.ranking.length} units of one kind, ranked by one set of rules`,
    body: (
      <main>
        <h1>{kind.name}</h1>
        <section aria-labelledby="ranking">
          <h2 id="ranking">Ranking</h2>
          {kind.ranking.length === 0 ? (
            <p>Nothing is ranked yet.</p>
          ) : (
            <Ranking
              rows={kind.ranking}
              hrefOf={hrefOf}
              caption={`As of ${content.day}, rules of version ${kind.rulesVersion}. A stratum begins where the first unit of the one above is better than its own first with a probability of at least ${formatNumber(100 * kind.stratumProbability, 0)} %.`}
            />
          )}
        </section>
        {kind.uses.map((use) => (
          <section key={use.name}>
            <h2>{use.name}</h2>
            <Ranking
              rows={use.rows}
              hrefOf={hrefOf}
              caption={`${use.name}: the first ${use.rows.length} by the weights for this use, as of ${content.day}`}
            />
          </section>
        ))}
        {kind.frontier && kind.frontier.units.length > 1 && (
          <section aria-labelledby="frontier">
            <h2 id="frontier">Price and points</h2>
            <figure>
              <FrontierChart
                frontier={kind.frontier}
                own={null}
                width={720}
                height={300}
                title="Points without the price over the price"
              />
              <figcaption>The stairs: what no unit for as much or less equals.</figcaption>
            </figure>
            <ul class="lines plain">
              {kind.frontier.units
                .filter((u) => u.isOnFrontier)
                .map((u) => {
                  const href = hrefOf(u.unit);
                  return (
                    <li key={u.unit}>
                      <span class="num">
                        {u.price} {kind.frontier?.currency}
                      </span>
                      : {href ? <a href={href}>{u.name}</a> : u.name}, {formatNumber(u.composite, 2)} points
                    </li>
                  );
                })}
            </ul>
          </section>
        )}
        {kind.records.length > 0 && (
          <section aria-labelledby="records">
            <h2 id="records">Records</h2>
            <Scroll label="Records">
              <table>
                <thead>
                  <tr>
                    <th scope="col">Figure</th>
                    <RightHead>Best</RightHead>
                    <th scope="col">Unit</th>
                    <th scope="col">Since</th>
                  </tr>
                </thead>
                <tbody>
                  {kind.records.map((r) => {
                    const href = hrefOf(r.holder);
                    return (
                      <tr key={r.name}>
                        <th scope="row">{r.name}</th>
                        <td class="right num">{r.value}</td>
                        <td>{href ? <a href={href}>{r.unit}</a> : r.unit}</td>
                        <td class="num">{r.since}</td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </Scroll>
          </section>
        )}
      </main>
    ),
  });
}
