import { ACCESSORY } from './accessory/accessory';
import { BOOSTER } from './booster/booster';
import { FIELD_MICROPHONE } from './field-microphone/field-microphone';
import { HEADPHONES } from './headphones/headphones';
import { INTERFACE } from './interface/interface';
import { MICROPHONE } from './microphone/microphone';

/** All kinds of gear, in the order in which they are offered. A new one is a folder beside these, and a line here. */
export const SHIPPED_KINDS = [MICROPHONE, FIELD_MICROPHONE, INTERFACE, BOOSTER, ACCESSORY, HEADPHONES] as const;

/** A kind that ships. */
export type ShippedKindId = (typeof SHIPPED_KINDS)[number]['id'];
