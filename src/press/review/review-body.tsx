import { Behind } from './behind';
import { disclosureText } from './disclosure';
import { Figures } from './figures';
import { Listen } from './listen';
import type { PublishedReview } from './published';
import { Standing } from './standing';
import { Verdict } from './verdict';
import { Words } from './words';

/** A whole review, in the order in which a reader asks. */
export function ReviewBody({ review }: { review: PublishedReview }) {
  const { edition, since, seenOn } = review;
  const { unit, text, price, photographs, publishedOn, number, desk } = edition;
  return (
    <>
      <header class="top">
        <p class="quiet small">
          {desk !== '' && `${desk} · `}
          {unit.kind} · edition {number}, {publishedOn}
        </p>
        <h1>
          {unit.maker} {unit.model} <span class="quiet">{unit.label}</span>
        </h1>
        <p class="lead">{text.headline}</p>
        <p class="small">
          {disclosureText(text)}
          {price && ` ${price.amount} ${price.currency} (${price.kind}, ${price.date}).`}
        </p>
      </header>
      <main>
        {since !== null && (
          <aside class="panel since" aria-label="Since then">
            <strong>
              Published {publishedOn}, edition {number}.
            </strong>{' '}
            {since.length === 0 ? (
              <>Nothing that counts has changed by {seenOn}.</>
            ) : (
              <>
                Since then, as of {seenOn}:
                <ul class="lines plain">
                  {since.map((c) => (
                    <li key={c.text}>{c.text}</li>
                  ))}
                </ul>
              </>
            )}
          </aside>
        )}
        <Verdict review={review} />
        {photographs.map((photo) => {
          const href = review.pictureOf(photo.sha256, photo.format);
          return href ? (
            <figure key={photo.sha256}>
              <img
                src={href}
                alt={photo.caption || `${unit.maker} ${unit.model}`}
                width={photo.widthPx}
                height={photo.heightPx}
                loading="lazy"
              />
              {photo.caption !== '' && <figcaption>{photo.caption}</figcaption>}
            </figure>
          ) : null;
        })}
        <Listen review={review} />
        <Words review={review} />
        <Standing review={review} />
        <Figures review={review} />
        <Behind review={review} />
      </main>
    </>
  );
}
