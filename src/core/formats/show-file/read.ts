import { NOWHERE, hasErrors, problem, type Place, type Problem, type Read } from '../../problems';
import { expectation, short, typeName, type Issue } from '../expectation';
import { LIMITS, SHOW_FORMAT, checkShow, migrate, showSchema, type Show } from '../../show';

/** Problems that one answer lists; a file with more is not mended line by line. */
const PROBLEM_LIMIT = 20;

/** Data from the text of a JSON file, or the place where it stops being JSON. */
export function parseJson(text: string): Read<{ readonly data: unknown }> {
  const deep = firstTooDeep(text);
  if (deep) return { value: undefined, problems: [deep] };
  try {
    return { value: { data: JSON.parse(text) }, problems: [] };
  } catch (error) {
    return { value: undefined, problems: [syntaxProblem(text, error)] };
  }
}

/** Reads a show from the text of a file. Anything wrong refuses it whole, with the place in the show. */
export function readShowFile(text: string): Read<Show> {
  const { value, problems } = parseJson(text);
  return value ? readShowData(value.data) : { value: undefined, problems };
}

/** Reads a show from data that was JSON or comes out of the database. */
export function readShowData(data: unknown): Read<Show> {
  if (typeof data !== 'object' || data === null || Array.isArray(data)) {
    return refused(problem('show.not-a-show', 'error', NOWHERE, { found: typeName(data) }));
  }
  const record = data as Record<string, unknown>;
  if (record.format !== SHOW_FORMAT) {
    const found = record.format === undefined ? 'no format' : `format ${short(record.format)}`;
    return refused(problem('show.not-a-show', 'error', { in: 'show', path: ['format'] }, { found }));
  }
  const migrated = migrate(record);
  if (!migrated.ok) return refused(migrated.problem);
  const parsed = showSchema.safeParse(migrated.data);
  if (!parsed.success) {
    const problems = parsed.error.issues.slice(0, PROBLEM_LIMIT).map((i) => shapeProblem(i, migrated.data));
    return { value: undefined, problems };
  }
  const problems = checkShow(parsed.data);
  if (hasErrors(problems)) return { value: undefined, problems: problems.slice(0, PROBLEM_LIMIT) };
  return { value: parsed.data, problems };
}

const refused = (p: Problem): Read<Show> => ({ value: undefined, problems: [p] });

const [QUOTE, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [34, 92, 91, 93, 123, 125];

/** Where a text nests deeper than any show does: what goes through it afterwards would run out of stack. */
function firstTooDeep(text: string): Problem | undefined {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (quoted) {
      if (code === BACKSLASH) i += 1;
      else if (code === QUOTE) quoted = false;
    } else if (code === QUOTE) quoted = true;
    else if (code === CLOSE_LIST || code === CLOSE_OBJECT) depth -= 1;
    else if ((code === OPEN_LIST || code === OPEN_OBJECT) && ++depth > LIMITS.jsonDepth) {
      return problem('json.too-deep', 'error', textPlace(text, i), { limit: LIMITS.jsonDepth });
    }
  }
  return undefined;
}

function textPlace(text: string, offset: number): Place {
  const before = text.slice(0, offset).split('\n');
  return { in: 'text', row: before.length, column: before.at(-1)!.length + 1 };
}

/** Where the text stops being JSON, as far as the engine says it. */
function syntaxProblem(text: string, error: unknown): Problem {
  const detail = error instanceof Error ? error.message : String(error);
  const position = /position (\d+)/.exec(detail)?.[1];
  const offset = position === undefined ? text.length : Number(position);
  const place = textPlace(text, offset);
  const token = offset < text.length ? short(text[offset]) : 'the end of the file';
  return problem('json.syntax', 'error', place, { detail: token });
}

function shapeProblem(issue: Issue, data: unknown): Problem {
  const path = issue.path.map((step) => (typeof step === 'number' ? step : String(step)));
  const found = path.reduce<unknown>((value, step) => (value as Record<string, unknown> | undefined)?.[step], data);
  return problem('show.shape', 'error', { in: 'show', path }, { expected: expectation(issue), found: short(found) });
}
