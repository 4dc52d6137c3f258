import type { StepRoleDefinition } from '../step-role';

/** Steps of protocols for interfaces and preamps, whose takes are fed by cables. */
export const LINE_ROLES = [
  { id: 'level-tone', name: 'tone of known level', plays: 'tone', levelIn: 'dBu' },
  { id: 'terminated', name: 'input terminated with 150 Ω', plays: 'silence' },
  { id: 'sweep', name: 'sweep', plays: 'sweep', answersSweep: true },
  { id: 'sweep-full', name: 'sweep at full gain', plays: 'sweep', answersSweep: true },
  { id: 'faint-tone', name: 'tone at −60 dBFS', plays: 'tone', holdsTones: true },
  { id: 'full-tone', name: 'tone near full scale', plays: 'tone', holdsTones: true },
  { id: 'two-tones', name: '60 Hz and 7 kHz', plays: 'tone', holdsTones: true },
  { id: 'twin-tones', name: 'two high tones', plays: 'tone', holdsTones: true },
  { id: 'most-input', name: 'highest level at the input', plays: 'tone', levelIn: 'dBu', holdsTones: true },
  { id: 'one-channel', name: 'tone in one channel', plays: 'tone', holdsTones: true },
  { id: 'both-channels', name: 'tone in both channels', plays: 'tone', holdsTones: true },
  { id: 'latency', name: 'latency', plays: 'table' },
  { id: 'latency-output', name: 'latency of the output', plays: 'table' },
  { id: 'latency-direct', name: 'latency of the direct monitor', plays: 'table' },
  { id: 'dial', name: 'gain by dial', plays: 'table' },
  { id: 'input-impedance', name: 'input impedance', plays: 'table' },
  { id: 'direct-monitor', name: 'direct monitor', plays: 'table' },
  { id: 'headphones', name: 'headphone output', plays: 'table' },
  { id: 'headphone-noise', name: 'noise of the headphone output', plays: 'table' },
  { id: 'other', name: 'other', plays: null },
] as const satisfies readonly StepRoleDefinition[];
