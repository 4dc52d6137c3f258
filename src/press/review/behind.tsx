import { Markdown } from './verdict';
import type { PublishedReview } from './published';

/** How it was made: conditions, settings, runs, versions, what an edition changed. */
export function Behind({ review }: { review: PublishedReview }) {
  const { edition, sha256 } = review;
  const { text, settings, runs, made, changes, number, prices } = edition;
  return (
    <section aria-labelledby="behind">
      <h2 id="behind">How it was made</h2>
      <Markdown text={text.conditions} />
      {text.appliedBoosts !== '' && <p>Applied to what is heard in a film: {text.appliedBoosts}</p>}
      <dl class="facts">
        {runs.map((run) => (
          <>
            <dt>{run.date}</dt>
            <dd>
              {run.protocol} {run.version}
              {run.rig && `, ${run.rig}`}
            </dd>
          </>
        ))}
        {prices.slice(0, 6).map((p) => (
          <>
            <dt>{p.date}</dt>
            <dd>
              {p.amount} {p.currency}, {p.kind}
              {p.shop ? `, ${p.shop}` : ''}
            </dd>
          </>
        ))}
      </dl>
      {settings.length > 0 && (
        <details class="printed">
          <summary>Settings of every take</summary>
          <dl class="facts">
            {settings.map((s) => (
              <>
                <dt>{s.step}</dt>
                <dd>{s.text}</dd>
              </>
            ))}
          </dl>
        </details>
      )}
      {text.links.length > 0 && (
        <ul class="lines plain">
          {text.links.map((l) => (
            <li key={l.address}>
              <a href={l.address} rel="noopener nofollow">
                {l.label}
              </a>
            </li>
          ))}
        </ul>
      )}
      {changes.length > 0 && (
        <>
          <h3>Changed in edition {number}</h3>
          <ul class="lines plain">
            {changes.map((c) => (
              <li key={c.text}>{c.text}</li>
            ))}
          </ul>
        </>
      )}
      {review.editions.length > 1 && (
        <p>
          Editions:{' '}
          {review.editions.map((e, i) => (
            <>
              {i > 0 && ', '}
              {e.number === number ? (
                `${e.number} of ${e.publishedOn}`
              ) : (
                <a href={e.href}>{`${e.number} of ${e.publishedOn}`}</a>
              )}
            </>
          ))}
        </p>
      )}
      <p class="small quiet">
        Edition {number}, frozen {edition.publishedOn}. Measured by version {made.algorithm}.{made.runFigures}, Sediment{' '}
        {made.software}. SHA-256 of the document: <span class="num">{`${sha256.slice(0, 16)}…`}</span>
      </p>
    </section>
  );
}
