import type { StepRoleDefinition } from '../step-role';

/** Steps of protocols for interfaces and preamps, whose takes are fed by cables. */
export const LINE_ROLES = [
  { id: 'level-tone', name: 'tone of known level', plays: 'tone', levelIn: 'dBu' },
  { id: 'terminated', name: 'input terminated with 150 Ω', plays: 'silence' },
  { id: 'sweep', name: 'sweep', plays: 'sweep', answersSweep: true },
  { id: 'other', name: 'other', plays: null },
] as const satisfies readonly StepRoleDefinition[];
