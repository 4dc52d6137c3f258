import { issueText } from '#contracts/issue-text';
import { houseSchema, type House, type HouseUse, type ProposalRule } from '#contracts/review';

type Want = HouseUse['wants'][number];

/** A limit as a form shows it: which way, and how much. */
export const directionOf = ({ atLeast }: Want): 'at least' | 'at most' => (atLeast === null ? 'at most' : 'at least');
export const limitOf = ({ atLeast, atMost }: Want): number | null => atLeast ?? atMost;

/** A want with another direction or limit; an empty limit stays empty, and is refused when it is saved. */
export function withLimit(want: Want, direction: 'at least' | 'at most', limit: number | null): Want {
  return direction === 'at least'
    ? { ...want, atLeast: limit, atMost: null }
    : { ...want, atLeast: null, atMost: limit };
}

/** The house with a rule on or off. */
export const withRule = (house: House, rule: ProposalRule, isOn: boolean): House => ({
  ...house,
  rulesOff: isOn ? house.rulesOff.filter((r) => r !== rule) : [...house.rulesOff.filter((r) => r !== rule), rule],
});

/** Why it cannot be saved as it is; empty where it can. */
export function houseProblems(house: House): string[] {
  const names = house.uses.map((u) => u.name.trim().toLowerCase());
  const twice = house.uses.filter((u, i) => names.indexOf(u.name.trim().toLowerCase()) !== i && u.name.trim() !== '');
  const parsed = houseSchema.safeParse(house);
  return [
    ...twice.map((u) => `two uses are called "${u.name.trim()}"`),
    ...(parsed.success ? [] : parsed.error.issues.map((issue) => issueText(issue))),
  ];
}
