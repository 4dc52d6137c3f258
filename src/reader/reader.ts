import { Deck, type DeckLane } from './deck';

// Without this script everything can be read; with it, clips can be heard beside each other.
for (const place of document.querySelectorAll<HTMLElement>('[data-deck]')) {
  const host = place.querySelector<HTMLElement>('[data-player]');
  const data = place.querySelector('[data-lanes]')?.textContent;
  // The page was written by the same program: its shape is known.
  if (host && data) new Deck(host, (JSON.parse(data) as { lanes: DeckLane[] }).lanes);
}
