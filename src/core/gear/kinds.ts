import type { ClaimRule, GearKind } from './gear-kind';
import { ACCESSORY } from './accessory/accessory';
import { BOOSTER } from './booster/booster';
import { FIELD_MICROPHONE } from './field-microphone/field-microphone';
import { HEADPHONES } from './headphones/headphones';
import { INTERFACE } from './interface/interface';
import { MICROPHONE } from './microphone/microphone';
import type { SheetField } from './sheet/sheet-field';
import type { StepRoleDefinition } from './step-role';

/** All kinds of gear, in the order in which they are offered. A new one is a folder beside these, and a line here. */
const ALL = [MICROPHONE, FIELD_MICROPHONE, INTERFACE, BOOSTER, ACCESSORY, HEADPHONES] as const;

export type GearKindId = (typeof ALL)[number]['id'];
export type StepRoleId = (typeof ALL)[number]['roles'][number]['id'];
export type ClaimedQuantity = { [K in (typeof ALL)[number]['id']]: keyof Extract<(typeof ALL)[number], { id: K }>['claims'] }[GearKindId]; // prettier-ignore

export const GEAR_KIND_IDS: readonly GearKindId[] = ALL.map((kind) => kind.id);
const KINDS: ReadonlyMap<string, GearKind> = new Map(ALL.map((kind) => [kind.id, kind]));
const ROLES = new Map<string, StepRoleDefinition>(ALL.flatMap((kind) => kind.roles.map((role) => [role.id, role])));
const CLAIMS = new Map<string, ClaimRule>(ALL.flatMap((kind) => Object.entries(kind.claims)));

/** What is particular to a kind of gear. */
export const gearKind = (id: GearKindId): GearKind => KINDS.get(id) as GearKind;

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
