import type { z } from 'zod';

type Issue = z.core.$ZodIssue;

/** The messages of the schema library itself speak of types and patterns; those of the contracts speak of the remedy. */
const ITS_OWN = /^(Invalid |Too |Unrecognized |Expected )/;

/**
 * What is wrong with a field, and what would be accepted, in words.
 *
 * @param issue - of a schema
 */
export function issueText(issue: Issue): string {
  if (!ITS_OWN.test(issue.message)) return issue.message;
  switch (issue.code) {
    case 'invalid_type':
      if (issue.expected === 'undefined') return 'nothing is taken here';
      return `must be ${nounOf(issue.expected)}${issue.message.endsWith('undefined') ? '; it is missing' : ''}`;
    case 'too_small':
      return tooSmall(issue);
    case 'too_big':
      return tooBig(issue);
    case 'invalid_value':
      return `must be ${issue.values.length === 1 ? '' : 'one of: '}${issue.values.map((v) => String(v)).join(', ')}`;
    case 'unrecognized_keys':
      return `holds ${issue.keys.length === 1 ? 'a field that is not known' : 'fields that are not known'}: ${issue.keys.join(', ')}`;
    case 'invalid_format':
      return `is not written as it has to be${issue.format === 'regex' ? '' : `: ${issue.format}`}`;
    default:
      return issue.message;
  }
}

/** Where it is, as people read it: units[2].maker. */
export function fieldText(path: readonly PropertyKey[]): string | null {
  const text = path.reduce<string>(
    (before, key) => before + (typeof key === 'number' ? `[${key}]` : before === '' ? String(key) : `.${String(key)}`),
    '',
  );
  return text === '' ? null : text;
}

const NOUNS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'yes or no',
  array: 'a list',
  object: 'a set of fields',
  record: 'a set of fields',
};
const nounOf = (type: string): string => NOUNS[type] ?? `a ${type}`;

function tooSmall(issue: Extract<Issue, { code: 'too_small' }>): string {
  const { minimum, origin, inclusive } = issue;
  if (origin === 'string')
    return Number(minimum) <= 1 ? 'must not be empty' : `must have at least ${minimum} characters`;
  if (origin === 'array' || origin === 'set') return `must hold at least ${minimum}`;
  return inclusive === false ? `must be more than ${minimum}` : `must be at least ${minimum}`;
}

function tooBig(issue: Extract<Issue, { code: 'too_big' }>): string {
  const { maximum, origin, inclusive } = issue;
  if (origin === 'string') return `must have at most ${maximum} characters`;
  if (origin === 'array' || origin === 'set') return `must hold at most ${maximum}`;
  return inclusive === false ? `must be less than ${maximum}` : `must be at most ${maximum}`;
}
