import type { ClaimRule, GearKind } from './gear-kind';
import { kindOf, type KindDocument } from './kind-document';
import { SHIPPED_KINDS, type ShippedKindId } from './shipped-kinds';
import type { SheetField } from './sheet/sheet-field';
import type { StepRoleDefinition } from './step-role';

export type { ShippedKindId };
/** A kind that ships, or one that a person has added: a name of lower-case letters, digits and hyphens. */
export type GearKindId = string;
export type StepRoleId = (typeof SHIPPED_KINDS)[number]['roles'][number]['id'];
export type ClaimedQuantity = { [K in (typeof SHIPPED_KINDS)[number]['id']]: keyof Extract<(typeof SHIPPED_KINDS)[number], { id: K }>['claims'] }[ShippedKindId]; // prettier-ignore

export const SHIPPED_KIND_IDS: readonly ShippedKindId[] = SHIPPED_KINDS.map((kind) => kind.id);
const SHIPPED: ReadonlyMap<string, GearKind> = new Map(SHIPPED_KINDS.map((kind) => [kind.id, kind]));
/** Of a role that several kinds know, the first one says how its files are told apart. */
const ROLES = new Map<string, StepRoleDefinition>(
  SHIPPED_KINDS.flatMap((kind) => kind.roles.map((role) => [role.id, role] as const)).reverse(),
);
const CLAIMS = new Map<string, ClaimRule>(SHIPPED_KINDS.flatMap((kind) => Object.entries(kind.claims)));

/** The kinds that are known: those that ship, and what a person has made of them. */
let known: ReadonlyMap<string, GearKind> = SHIPPED;

/**
 * Makes a person’s kinds known, and their own fields of the kinds that ship. It is called where a process, a page or a
 * worker starts and where one of them is saved, with all of them; what was made known before and is not among them is
 * forgotten. Everything else asks {@link gearKind}, and need not know that there are any.
 *
 * @param documents - the newest version of each, any order
 */
export function registerKinds(documents: readonly KindDocument[]): void {
  const own = new Map(documents.map((d) => [d.id, d]));
  const shipped = SHIPPED_KINDS.map((kind): GearKind => kindOf(own.get(kind.id), kind));
  const added = documents
    .filter((d) => !SHIPPED.has(d.id))
    .map((d) => kindOf(d, SHIPPED.get(d.like) as GearKind))
    .sort((x, y) => x.name.localeCompare(y.name));
  known = new Map([...shipped, ...added].map((kind) => [kind.id, kind]));
}

/** All kinds, in the order in which they are offered: those that ship first. */
export const gearKindIds = (): readonly GearKindId[] => [...known.keys()];
/** Whether this archive has a kind under that name, shipped or a person's own. */
export const isGearKind = (id: string): boolean => known.has(id);
/** A kind as it ships, whatever a person has added to it. */
export const shippedKind = (id: ShippedKindId): GearKind => SHIPPED.get(id) as GearKind;
/** Whether a kind ships, and is not a person's own. */
export const isShippedKind = (id: string): id is ShippedKindId => SHIPPED.has(id);

/**
 * What is particular to a kind of gear.
 *
 * @throws RangeError for a kind that is not known
 */
export function gearKind(id: GearKindId): GearKind {
  const kind = known.get(id);
  if (!kind) throw new RangeError(`there is no kind of gear "${id}"`);
  return kind;
}

/** Roles that steps of any kind can have; one that several kinds know is one role. */
export const STEP_ROLE_IDS = [...ROLES.keys()] as readonly StepRoleId[];
/** What a step of a role is; undefined for a name that is no role. */
export const stepRole = (id: string): StepRoleDefinition | undefined => ROLES.get(id);

/** A kind that was one once is another now: what was recorded of an instrument's sound is a microphone's. */
const RETIRED: Readonly<Record<string, GearKindId>> = { 'instrument-source': 'microphone' };
/** A name of a kind as it is called now; what is no kind stays as it is. */
export const currentKind = (id: unknown): unknown =>
  typeof id === 'string' && Object.hasOwn(RETIRED, id) ? RETIRED[id] : id;

/** A field of a kind's data sheet. */
export const sheetField = (kind: GearKindId, id: string): SheetField | undefined =>
  gearKind(kind).sheet.find((f) => f.id === id);

/** Figures of data sheets that can stand beside measured ones. */
export const CLAIMED_QUANTITIES = [...CLAIMS.keys()] as readonly ClaimedQuantity[];
/** How claims of a figure are read; undefined for a figure that nobody claims. */
export const claimRule = (quantity: string): ClaimRule | undefined => CLAIMS.get(quantity);
