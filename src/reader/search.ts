import { hasEveryWord } from '#core/text/every-word';

// Narrows the table of all reviews to the rows that hold every word that is typed.
const place = document.querySelector<HTMLElement>('[data-search]');
const field = place?.querySelector('input');
const found = place?.querySelector('[data-found]');
const rows = [...document.querySelectorAll<HTMLTableRowElement>('[data-rows] tr')];

if (place && field && found) {
  const texts = rows.map((row) => row.textContent);
  place.hidden = false;
  field.addEventListener('input', () => {
    let count = 0;
    rows.forEach((row, i) => {
      row.hidden = !hasEveryWord(texts[i], field.value);
      if (!row.hidden) count++;
    });
    found.textContent = field.value.trim() === '' ? '' : count === 1 ? '1 review' : `${count} reviews`;
  });
}
