import { keyForm, PackForm, type PackData } from './pack-form';

// Without this script the page says what it is; with it, clips can be heard, and an answer becomes a code.
const text = document.getElementById('pack-data')?.textContent;
const player = document.querySelector<HTMLElement>('[data-pack] [data-player]');
const key = document.querySelector<HTMLElement>('[data-key]');
if (text && player && key) {
  // The page was written by the same program: its shape is known.
  const data = JSON.parse(text) as PackData;
  new PackForm(player, data);
  keyForm(key, data);
}
