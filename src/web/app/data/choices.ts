import { gearKindIds } from '#core/gear/kinds';
import type { Category } from '#contracts/common';
import { servesKind, type Protocol } from '#contracts/protocol';
import type { Rig } from '#contracts/rig';
import type { PlannedUnit } from '#contracts/session-plan';
import type { Choice } from '../ui/field/choice-field';
import { kindName } from '../ui/format';
import type { HeardStep } from './listening';

/** Kinds of gear to choose from, in their order. */
export const kindChoices = (kinds: readonly Category[] = gearKindIds()): Choice<Category>[] =>
  kinds.map((value) => ({ label: kindName(value), value }));

/** A version of a protocol as the value of a choice. */
export const protocolKey = ({ id, version }: Pick<Protocol, 'id' | 'version'>): string => `${id}/${version}`;

/** The parts of {@link protocolKey}, as plans and drafts name them. */
export function fromProtocolKey(key: string): { protocol: string; protocolVersion: number } {
  const [protocol, version] = key.split('/');
  return { protocol, protocolVersion: Number(version) };
}

/** Protocol versions of a category to choose from, newest first. */
export const protocolChoices = (protocols: readonly Protocol[], category: Category | undefined): Choice<string>[] =>
  protocols
    .filter((p) => category !== undefined && servesKind(p, category))
    .map((p) => ({ label: `${p.name}, version ${p.version}`, value: protocolKey(p) }))
    .reverse();

/** Rigs by name to choose from; none is a choice, too. */
export const rigChoices = (rigs: readonly Rig[]): Choice<string | null>[] => [
  { label: 'none noted', value: null },
  ...[...new Set(rigs.map((r) => r.document.name))].map((value) => ({ label: value, value })),
];

/** How a unit came to the desk. */
export const SOURCE_CHOICES: readonly Choice<PlannedUnit['source']>[] = [
  { label: 'Own', value: 'own' },
  { label: 'Bought', value: 'bought' },
  { label: 'Lent', value: 'lent' },
  { label: 'Sent by the maker', value: 'sent' },
];

/** Steps that something was recorded of. */
export const stepChoices = (steps: readonly HeardStep[]): Choice<HeardStep>[] =>
  steps.map((value) => ({
    label: value.title,
    value,
    note: `${kindName(value.category).toLowerCase()}, ${value.units} ${value.units === 1 ? 'unit' : 'units'}`,
  }));

/** Words that units of a kind have, with how many have them; none is any. */
export const wordChoices = (
  name: string,
  words: readonly { readonly word: string; readonly units: number }[],
): Choice<string | null>[] => [
  { label: `${name}: any`, value: null },
  ...words.map((w) => ({ label: w.word, value: w.word, note: `${w.units}` })),
];
