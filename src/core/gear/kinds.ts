import type { ClaimRule, GearKind } from './gear-kind';
import { ACCESSORY } from './accessory/accessory';
import { BOOSTER } from './booster/booster';
import { FIELD_MICROPHONE } from './field-microphone/field-microphone';
import { INSTRUMENT_SOURCE } from './instrument-source/instrument-source';
import { INTERFACE } from './interface/interface';
import { MICROPHONE } from './microphone/microphone';
import type { StepRoleDefinition } from './step-role';

/** All kinds of gear, in the order in which they are offered. A new one is a folder beside these, and a line here. */
const ALL = [MICROPHONE, FIELD_MICROPHONE, INTERFACE, BOOSTER, ACCESSORY, INSTRUMENT_SOURCE] as const;

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

/** Figures of data sheets that can stand beside measured ones. */
export const CLAIMED_QUANTITIES = [...CLAIMS.keys()] as readonly ClaimedQuantity[];
/** How claims of a figure are read; undefined for a figure that nobody claims. */
export const claimRule = (quantity: string): ClaimRule | undefined => CLAIMS.get(quantity);
