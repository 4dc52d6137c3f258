import type { Edition } from '#contracts/edition';
import type { EditionChange } from '#contracts/review';
import type { UnitEvent } from '#contracts/session-plan';
import { factChanges, type EditionFacts } from './edition-changes';

/**
 * What has happened to a unit since an edition of its review: what its facts say otherwise, and what was noted later.
 *
 * @param edition - as it was published
 * @param today - the same facts as they are now
 * @param events - of the unit, any order
 */
export function sinceEdition(
  edition: Pick<Edition, 'publishedOn'> & EditionFacts,
  today: EditionFacts,
  events: readonly Pick<UnitEvent, 'kind' | 'day' | 'note'>[],
): EditionChange[] {
  const later = events.filter((e) => e.day > edition.publishedOn && (e.kind === 'firmware' || e.kind === 'repair'));
  return [
    ...factChanges(edition, today),
    ...later.map((e): EditionChange => ({
      what: 'event',
      text: `${e.kind === 'firmware' ? 'Firmware' : 'Repair'} of ${e.day}${e.note === '' ? '' : `: ${e.note}`}`,
    })),
  ];
}
