import { unitName } from '#contracts/unit-name';
import type { SpecimenRow } from '#contracts/specimen';
import { PLAIN_PATHS } from '#contracts/http';

/** Something the palette can do: a page to go to, or a file to fetch. */
export interface PaletteAction {
  readonly label: string;
  readonly hint: string;
  readonly to: { readonly page: string } | { readonly file: string };
}

/** What can be done whatever is open, in the words for it. */
const GENERAL: readonly PaletteAction[] = [
  { label: 'New run: bring in takes', hint: 'Files, a folder, a run.json', to: { page: '/new-run' } },
  { label: 'Plan a session', hint: 'Units, order, control unit', to: { page: '/sessions/new' } },
  { label: 'Write a protocol', hint: 'Steps, gains, figures', to: { page: '/protocols/new' } },
  { label: 'Note a rig or a calibration', hint: 'The chain and what it was held against', to: { page: '/rigs' } },
  { label: 'Set up a blind test', hint: 'Heats, pairs, one person or many', to: { page: '/listening/new' } },
  { label: 'How this desk reviews', hint: 'Its name, its uses, its rules', to: { page: '/reviews/house' } },
  { label: 'Back up the archive', hint: 'Which folder, and when', to: { page: '/archive' } },
  { label: 'Check the archive', hint: 'Read every clip', to: { page: '/archive' } },
];

/** What can be done with a unit; each action goes to where it is done. */
const OF_UNIT: readonly ((row: SpecimenRow, name: string) => PaletteAction | null)[] = [
  ({ id }, name) => ({ label: `Note a price: ${name}`, hint: 'Price', to: { page: `/gear/${id}#prices` } }),
  ({ id, hasRules }, name) =>
    hasRules ? { label: `Give points: ${name}`, hint: 'Points', to: { page: `/gear/${id}#points` } } : null,
  ({ id }, name) => ({ label: `Place by ear: ${name}`, hint: 'A few questions', to: { page: `/scale/place/${id}` } }),
  ({ id }, name) => ({
    label: `Test again: ${name}`,
    hint: 'Plan a session',
    to: { page: `/sessions/new?unit=${id}` },
  }),
  ({ id }, name) => ({ label: `Review ${name}`, hint: 'Begin to write', to: { page: `/reviews?unit=${id}` } }),
  ({ id }, name) => ({ label: `New run of ${name}`, hint: 'Bring in takes', to: { page: `/new-run?unit=${id}` } }),
  ({ id, takes }, name) =>
    takes === 0
      ? null
      : {
          label: `Export ${name}`,
          hint: 'All measurements, CSV',
          to: { file: PLAIN_PATHS.unitCsv.replace(':id', id) },
        },
  ({ id }, name) => ({ label: `Rename or correct ${name}`, hint: 'Its page', to: { page: `/gear/${id}` } }),
];

/** Everything the palette can do, the general things first. */
export function paletteActions(rows: readonly SpecimenRow[]): PaletteAction[] {
  const ofUnits = rows.flatMap((row) => OF_UNIT.map((action) => action(row, unitName(row))));
  return [...GENERAL, ...ofUnits.filter((action) => action !== null)];
}
