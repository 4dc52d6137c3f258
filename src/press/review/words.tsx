import { describedBy } from '../described-by';
import type { PublishedReview } from './published';

/** How the unit is described: by listeners, by its figures, by its maker, kept apart. */
export function Words({ review }: { review: PublishedReview }) {
  const { words } = review.edition;
  const lines = describedBy(words);
  return lines.length === 0 ? null : (
    <section aria-labelledby="words">
      <h2 id="words">How it is described</h2>
      <ul class="lines plain">
        {lines.map(({ by, text }) => (
          <li key={by + text}>
            <strong>{by}: </strong>
            {text}
          </li>
        ))}
      </ul>
      {words.contradictions.map((c) => (
        <p key={c} class="small">
          They disagree: {c}.
        </p>
      ))}
    </section>
  );
}
