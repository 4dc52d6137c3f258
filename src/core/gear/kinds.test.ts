import { describe, expect, it } from 'vitest';
import { isQuantity, quantity } from '../measure/registry';
import { CLAIMED_QUANTITIES, SHIPPED_KIND_IDS, gearKind, STEP_ROLE_IDS, stepRole } from './kinds';

describe('kinds of gear', () => {
  it.each(SHIPPED_KIND_IDS)('%s: its figures and claims are figures of the registry, its roles are known', (id) => {
    const kind = gearKind(id);
    expect(kind.id).toBe(id);
    expect(kind.name).not.toBe('');
    for (const figure of [...kind.keyFigures, ...Object.keys(kind.claims)])
      expect(isQuantity(figure), figure).toBe(true);
    for (const role of kind.roles) expect(stepRole(role.id)).toMatchObject({ id: role.id, plays: role.plays });
    // A key figure comes from steps that a protocol of the kind can have.
    const roles = new Set<string>(kind.roles.map((r) => r.id));
    for (const figure of kind.keyFigures)
      for (const step of quantity(figure).steps) expect(roles.has(step), step).toBe(true);
    expect(new Set(roles).size).toBe(kind.roles.length);
  });

  it('that have no sound of their own are heard through another: boosters and accessories', () => {
    expect(SHIPPED_KIND_IDS.filter((id) => gearKind(id).isHeardThroughAnother)).toEqual(['booster', 'accessory']);
  });

  it('share what they share: one role or claim is the same for every kind that has it', () => {
    expect(new Set(STEP_ROLE_IDS).size).toBe(STEP_ROLE_IDS.length);
    expect(new Set(CLAIMED_QUANTITIES).size).toBe(CLAIMED_QUANTITIES.length);
    for (const id of SHIPPED_KIND_IDS)
      for (const role of gearKind(id).roles) expect(role.answersSweep).toBe(stepRole(role.id)?.answersSweep);
    expect(stepRole('no role of ours')).toBeUndefined();
  });
});
