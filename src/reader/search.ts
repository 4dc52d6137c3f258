// Narrows the table of all reviews to the rows that hold every word that is typed.
const place = document.querySelector<HTMLElement>('[data-search]');
const field = place?.querySelector('input');
const found = place?.querySelector('[data-found]');
const rows = [...document.querySelectorAll<HTMLTableRowElement>('[data-rows] tr')];

if (place && field && found) {
  const texts = rows.map((row) => row.textContent.toLowerCase());
  place.hidden = false;
  field.addEventListener('input', () => {
    const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
    let count = 0;
    rows.forEach((row, i) => {
      row.hidden = !words.every((word) => texts[i].includes(word));
      if (!row.hidden) count++;
    });
    found.textContent = words.length === 0 ? '' : count === 1 ? '1 review' : `${count} reviews`;
  });
}
