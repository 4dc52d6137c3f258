import type { ReviewLine } from '#contracts/review';
import { markdownHtml } from '../markdown';
import { quotedFrom } from '../review-text';
import type { PublishedReview } from './published';

/** Lines under a heading; nothing where there are none. */
export function Lines({
  title,
  lines,
  kind,
}: {
  title: string;
  lines: readonly ReviewLine[];
  kind: 'pros' | 'cons' | 'plain';
}) {
  return lines.length === 0 ? null : (
    <section>
      <h3>{title}</h3>
      <ul class={`lines ${kind}`}>
        {lines.map((line) => (
          <li key={line.text}>{line.text}</li>
        ))}
      </ul>
    </section>
  );
}

/** Markdown of a person, as HTML that holds nothing but what Markdown can say. */
export function Markdown({ text }: { text: string }) {
  return text.trim() === '' ? null : <div dangerouslySetInnerHTML={{ __html: markdownHtml(text) }} />;
}

/** What a person says of the unit. */
export function Verdict({ review }: { review: PublishedReview }) {
  const { text } = review.edition;
  const uses = (suits: 'for' | 'not for') =>
    text.uses.filter((u) => u.suits === suits).map((u) => ({ ...u, text: `${u.use}: ${u.text}` }));
  return (
    <section aria-labelledby="verdict">
      <h2 id="verdict">Verdict</h2>
      <Markdown text={text.summary} />
      <div class="two">
        <Lines title="For it" lines={text.pros} kind="pros" />
        <Lines title="Against it" lines={text.cons} kind="cons" />
        <Lines title="For whom" lines={uses('for')} kind="pros" />
        <Lines title="Not for whom" lines={uses('not for')} kind="cons" />
      </div>
      {text.alternatives.length > 0 && (
        <>
          <h3>Better alternatives</h3>
          <ul class="lines plain">
            {text.alternatives.map((a) => {
              const href = a.unit === null ? null : review.pageOf(a.unit);
              return (
                <li key={a.name}>
                  {href ? <a href={href}>{a.name}</a> : <strong>{a.name}</strong>}: {a.text}
                </li>
              );
            })}
          </ul>
        </>
      )}
      {text.turningPrice && (
        <p>
          <strong>Price that turns the verdict: </strong>
          {text.turningPrice.text}
        </p>
      )}
      {text.quotations.length > 0 && (
        <>
          <h3>Said by others</h3>
          {text.quotations.map((q) => (
            <figure key={q.words}>
              <blockquote>{q.words}</blockquote>
              <figcaption>{quotedFrom(q)}</figcaption>
            </figure>
          ))}
        </>
      )}
      <Lines title="Worked out" lines={text.sums} kind="plain" />
      <Lines title="Not tested" lines={text.notTested} kind="plain" />
    </section>
  );
}
