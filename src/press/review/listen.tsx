import type { FrozenDeck } from '#contracts/edition';
import { formatNumber } from '#core/measure/figure-text';
import type { ClipPlace, PublishedReview } from './published';

/** JSON inside a page: no end of a script can stand in it. */
export const pageJson = (value: unknown): string => JSON.stringify(value).replaceAll('<', '\\u003c');

/** Clips to be heard beside each other: names are hidden until the reader has guessed. */
export function Listen({ review }: { review: PublishedReview }) {
  const { decks, clipLicence } = review.edition;
  return decks.length === 0 ? null : (
    <section aria-labelledby="listen" class="no-print">
      <h2 id="listen">Listen</h2>
      <p>
        All clips of a step are equally loud; which is which is hidden until you have guessed. Switching goes on at the
        same word, without a gap.
      </p>
      {decks.map((deck, i) => (
        <Deck key={deck.step} deck={deck} review={review} number={i} />
      ))}
      {clipLicence !== '' && <p class="small quiet">Clips: {clipLicence}</p>}
    </section>
  );
}

/** Where the reader's script finds a clip. */
function sourceOf(place: ClipPlace) {
  if (place.kind === 'inside') return { inside: place.id };
  if (place.kind === 'file') return { file: place.href };
  return place.kind === 'script' ? { script: place.href } : null;
}

function Deck({ deck, review, number }: { deck: FrozenDeck; review: PublishedReview; number: number }) {
  const there = deck.lanes.map((lane) => ({ lane, place: review.clipOf(lane) }));
  const gone = there.filter((t) => t.place.kind === 'gone');
  const playable = there.filter((t) => t.place.kind !== 'gone');
  const isLoud = deck.lanes.some((l) => l.isLoud);
  const data = {
    lanes: playable.map(({ lane, place }) => ({
      name: lane.name,
      words: lane.words,
      date: lane.date,
      role: lane.role,
      map: lane.map,
      source: sourceOf(place),
    })),
  };
  return (
    <div class="panel deck" data-deck={number} role="group" aria-label={deck.title}>
      <h3>{deck.title}</h3>
      {isLoud && (
        <p class="small">
          <strong>Loud clip.</strong> Start with the volume low: full-gain and clipping takes can be dangerously loud in
          headphones.
        </p>
      )}
      <noscript>
        <p>Switching between clips needs JavaScript.</p>
      </noscript>
      <div data-player hidden />
      <details>
        <summary>What is heard here, and how it was made equally loud</summary>
        <ul class="lines plain">
          {[...deck.lanes]
            .sort((a, b) => a.name.localeCompare(b.name))
            .map((lane) => (
              <li key={`${lane.sha256} ${lane.name}`}>
                {lane.name}
                {lane.words !== '' && `, ${lane.words}`}, {lane.date}: {lane.appliedDb > 0 ? '+' : ''}
                {formatNumber(lane.appliedDb, 1)} dB{lane.role === 'another unit' ? '' : ` (${lane.role})`}
              </li>
            ))}
        </ul>
      </details>
      {gone.map(({ lane, place }) => (
        <p class="small quiet" key={lane.sha256}>
          {lane.name}: {place.kind === 'gone' ? place.why : ''}
        </p>
      ))}
      <script type="application/json" data-lanes dangerouslySetInnerHTML={{ __html: pageJson(data) }} />
    </div>
  );
}
