import type { StepSheet } from '../rules/step-sheet';

/** A step that says nothing but what it is: a spoken passage from 15 cm. */
export const plainStep = (change: Partial<StepSheet> = {}): StepSheet => ({
  id: 'speech',
  role: 'speech',
  title: 'Spoken passage',
  purpose: '',
  instruction: 'Read it.',
  play: null,
  distanceM: 0.15,
  angleDeg: 0,
  heightM: null,
  address: null,
  levelDbSpl: null,
  levelDbu: null,
  gain: null,
  lengthS: null,
  repeats: 1,
  voices: [],
  accessories: [],
  pair: null,
  checks: [],
  measures: [],
  table: null,
  comparable: null,
  ...change,
});
