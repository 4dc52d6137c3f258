/**
 * How often each sound occurs in running English speech, in per cent: D. B. Fry, "The frequency of occurrence of speech
 * sounds in Southern English", Archives néerlandaises de phonétique expérimentale 20 (1947), as reprinted in Gimson's
 * "An Introduction to the Pronunciation of English". Written from memory; the published totals (vowels 39.21 %,
 * consonants 60.78 %) are checked in the tests. The vowels of "lot" and "father" are put together (1.37 + 0.79), since
 * the dictionary that texts are looked up in does not part them. Names are ARPAbet where it has one.
 */
export const PHONEME_FREQUENCIES: Readonly<Record<string, number>> = {
  ə: 10.74,
  IH: 8.33,
  EH: 2.97,
  AY: 1.83,
  AH: 1.75,
  EY: 1.71,
  IY: 1.65,
  OW: 1.51,
  AE: 1.45,
  AA: 2.16,
  AO: 1.24,
  UW: 1.13,
  UH: 0.86,
  AW: 0.61,
  ER: 0.52,
  EHR: 0.34,
  IHR: 0.21,
  OY: 0.14,
  UHR: 0.06,
  N: 7.58,
  T: 6.42,
  D: 5.14,
  S: 4.81,
  L: 3.66,
  DH: 3.56,
  R: 3.51,
  M: 3.22,
  K: 3.09,
  W: 2.81,
  Z: 2.46,
  V: 2.0,
  B: 1.97,
  F: 1.79,
  P: 1.78,
  HH: 1.46,
  NG: 1.15,
  G: 1.05,
  SH: 0.96,
  Y: 0.88,
  JH: 0.6,
  CH: 0.41,
  TH: 0.37,
  ZH: 0.1,
};

/** Sounds of the table that are vowels. */
export const VOWELS: readonly string[] = Object.keys(PHONEME_FREQUENCIES).slice(0, 19);
