import type { UnitAnswer } from '#contracts/unit-answer';

/** An answer in words: of a pair who was preferred, of an order who stood where. */
export function answerWords({ names, outcome, isLeftOut }: UnitAnswer): string {
  const out = isLeftOut ? ' — left out' : '';
  if (outcome === null) return `${names.join(', then ')}${out}`;
  const [first, second] = outcome >= 0.5 ? names : [...names].reverse();
  return outcome === 0.5 ? `${first} and ${second} alike${out}` : `${first} before ${second}${out}`;
}

/** Where an answer comes from: the test or the placing, whose it is, what about. */
export function sourceWords({ source, test, listener, attribute, sighted }: UnitAnswer): string {
  const where = { test: test === null ? 'a test' : `test “${test}”`, placing: 'placing', import: 'from a file' }[
    source
  ];
  return [where, listener ?? 'nobody named', attribute, ...(sighted ? ['with names in sight'] : [])].join(' · ');
}
