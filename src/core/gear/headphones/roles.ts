import type { StepRoleDefinition } from '../step-role';

/** Steps of protocols for headphones, which sit on an artificial ear. */
export const HEADPHONES_ROLES = [
  { id: 'sweep', name: 'sweep', plays: 'sweep', answersSweep: true },
  { id: 'sweep-right', name: 'sweep of the right side', plays: 'sweep', answersSweep: true },
  { id: 'impedance', name: 'impedance', plays: 'table' },
  { id: 'ear-level', name: 'level at the ear', plays: 'table' },
  { id: 'other', name: 'other', plays: null },
] as const satisfies readonly StepRoleDefinition[];
