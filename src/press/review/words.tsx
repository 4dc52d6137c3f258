import type { PublishedReview } from './published';

/** How the unit is described: by listeners, by its figures, by its maker, kept apart. */
export function Words({ review }: { review: PublishedReview }) {
  const { heard, measured, maker, contradictions } = review.edition.words;
  if (heard.length + measured.length + maker.length === 0) return null;
  return (
    <section aria-labelledby="words">
      <h2 id="words">How it is described</h2>
      <ul class="lines plain">
        {heard.length > 0 && (
          <li>
            <strong>By listeners: </strong>
            {heard.map(({ word, count }) => (count > 1 ? `${word} (${count} times)` : word)).join(', ')}
          </li>
        )}
        {measured.map(({ word, why }) => (
          <li key={word + why}>
            <strong>By its figures: </strong>
            {word} ({why})
          </li>
        ))}
        {maker.length > 0 && (
          <li>
            <strong>By its maker: </strong>
            {maker.join(', ')}
          </li>
        )}
      </ul>
      {contradictions.map((c) => (
        <p key={c} class="small">
          They disagree: {c}.
        </p>
      ))}
    </section>
  );
}
