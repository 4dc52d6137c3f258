import type { Relation, RelationKind } from '#contracts/relation';

/** How a relation reads from the unit that it is noted with, and from the other one. */
const WORDS: Readonly<Record<RelationKind, readonly [own: string, other: string]>> = {
  needs: ['needs', 'is needed by'],
  replaces: ['replaces', 'is replaced by'],
  'cheaper-sibling': ['is the cheaper sibling of', 'has a cheaper sibling:'],
  'same-capsule': ['has the same capsule as', 'has the same capsule as'],
};

export const RELATION_CHOICES = (Object.keys(WORDS) as RelationKind[]).map((value) => ({
  label: `it ${WORDS[value][0]}`,
  value,
}));

/** A relation in words, without the other unit's name. */
export const relationWords = ({ kind, isOwn }: Pick<Relation, 'kind' | 'isOwn'>): string => WORDS[kind][isOwn ? 0 : 1];

/** What a part is needed for. */
export const usesWords = ({ kind, uses }: Pick<Relation, 'kind' | 'uses'>): string =>
  kind !== 'needs' ? '' : uses.length === 0 ? 'for every use' : `for: ${uses.join(', ')}`;
