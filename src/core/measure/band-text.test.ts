import { expect, it } from 'vitest';
import { bandText } from './band-text';

it('says how far a band reaches, in kilohertz, without an empty decimal', () => {
  expect([20_000, 4000, 3906.25, 10_500].map(bandText)).toEqual(['20 Hz–20 kHz', '20 Hz–4 kHz', '20 Hz–3.9 kHz', '20 Hz–10.5 kHz']); // prettier-ignore
});
