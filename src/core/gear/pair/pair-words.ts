import { figureText, formatNumber } from '../../measure/figure-text';
import type { Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { removalWords } from '../../measure/removed-by-band';
import { TRANSPARENT_DB, tonalClass, tonalWords } from '../../measure/tonal-change';
import type { PairGroup } from './pair-groups';

/** Coverage of what is said in words: about 95 %. */
const COVERAGE = 2;

type Told = Pick<Measurement, 'quantity' | 'value' | 'uncertainty' | 'bound' | 'settings'>;
/** What words need of a group. */
export interface TellableGroup extends Pick<PairGroup, 'tonal'> {
  readonly figures: readonly Told[];
}

/**
 * What a part does, one sentence to a figure. A word is only said where the figure is surer than the word: what lies
 * within its uncertainty is told as "no change that can be told".
 */
export function pairWords(group: TellableGroup): string[] {
  const of = (id: QuantityId): Told | undefined => group.figures.find((m) => m.quantity === id && m.value !== null);
  return [gainWords(of('gainAdded')), noiseWords(of('noiseChangeA'), of('hiddenLowCut')), ...soundWords(group, of('tonalChange')), lowCutWords(of('hiddenLowCut')), outsideWords(of('outsideLessA'), 'The noise from outside, A-weighted'), outsideWords(of('windLessLow'), 'Wind below 200 Hz'), outsideWords(of('plosivesLess'), 'Puffs of air'), outsideWords(of('knocksLess'), 'Knocks')].filter((text) => text !== ''); // prettier-ignore
}

const isSure = ({ value, uncertainty }: Told): boolean =>
  uncertainty !== null && Math.abs(value ?? 0) > COVERAGE * uncertainty;

const sized = (m: Told): string => {
  const { value, spread, unit } = figureText(m.quantity, { ...m, value: Math.abs(m.value ?? 0) });
  return [value, spread, unit].filter((t) => t !== '').join(' ');
};

function gainWords(m: Told | undefined): string {
  if (!m || m.value === null) return '';
  if (!isSure(m)) return 'No change of gain that can be told.';
  return `${m.value > 0 ? 'Adds' : 'Takes away'} ${sized(m)} of gain.`;
}

/** Less noise behind a low-cut is not a quieter amplifier. */
function noiseWords(m: Told | undefined, lowCut: Told | undefined): string {
  if (!m || m.value === null) return '';
  if (!isSure(m)) return 'Noise re speech, A-weighted, changes by less than can be told.';
  const change = `Noise re speech, A-weighted, ${sized(m)} ${m.value < 0 ? 'lower' : 'higher'}.`;
  return m.value < 0 && lowCut && lowCut.bound === 'exact'
    ? `${change} Part of that is the low-cut: it lowers the measured noise without being a better amplifier.`
    : change;
}

function soundWords({ tonal }: TellableGroup, m: Told | undefined): string[] {
  if (!tonal || !m || m.value === null) return [];
  const largest = { hz: Number(m.settings['hz']), db: m.value, u: m.uncertainty ?? Infinity };
  const name = {
    transparent: `Transparent: no third octave changes by more than ${TRANSPARENT_DB} dB.`,
    coloured: `Coloured: a third octave changes by more than ${TRANSPARENT_DB} dB.`,
    undecided: `Transparent or coloured is not decided: the largest change is ${sized(m)}, the limit ${TRANSPARENT_DB} dB.`,
  }[tonalClass({ largest })];
  return [name, `Of the sound: ${tonalWords(tonal)}.`];
}

function lowCutWords(m: Told | undefined): string {
  if (!m || m.value === null) return '';
  return m.bound === 'exact' ? `Hides a low-cut at ${sized(m)}.` : `No low-cut above ${formatNumber(m.value, 0)} Hz.`;
}

function outsideWords(m: Told | undefined, what: string): string {
  if (!m || m.value === null) return '';
  if (m.uncertainty !== null && !isSure(m)) return `${what}: no change that can be told.`;
  return `${what}: ${m.bound === 'at-least' ? 'at least ' : ''}${removalWords(m.value)}.`;
}
