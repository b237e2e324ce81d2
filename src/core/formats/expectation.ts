import type { z } from 'zod';

export type Issue = z.core.$ZodIssue;

/** What a schema expected at a place where something else stood, in words. */
export function expectation(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type':
      return TYPE_WORDS[issue.expected] ?? issue.expected;
    case 'too_small':
      return `${issue.origin === 'string' || issue.origin === 'array' ? 'a length of' : ''} at least ${issue.minimum}`.trim();
    case 'too_big':
      return `${issue.origin === 'string' || issue.origin === 'array' ? 'a length of' : ''} at most ${issue.maximum}`.trim();
    case 'invalid_value':
      return `one of ${issue.values.map((v) => JSON.stringify(v)).join(', ')}`;
    case 'unrecognized_keys':
      return `nothing named ${issue.keys.map((k) => JSON.stringify(k)).join(', ')}`;
    case 'invalid_union':
      return 'one of the kinds that the format knows';
    case 'invalid_format':
      return issue.format === 'regex' ? 'pairs of hexadecimal digits or the like' : issue.format;
    default:
      return 'something else';
  }
}

const TYPE_WORDS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  null: 'null',
};

/** What kind of thing a value is, in words. */
export const typeName = (value: unknown): string =>
  value === null ? 'null' : Array.isArray(value) ? 'a list' : (TYPE_WORDS[typeof value] ?? typeof value);

/** A value as it is quoted in a sentence: sixty letters at the most. */
export function short(value: unknown): string {
  if (value === undefined) return 'nothing';
  const text = JSON.stringify(value);
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
