import { dumpFormSchema, type DumpForm } from '../../addressing';
import { formProblems } from '../../feet';
import { NOWHERE, problem, type Read } from '../../problems';
import { parseJson } from '../show-file';

const DUMP_FORM = 'hollow-lantern-dump-form';
const VERSION = 1;

/** How a controller keeps its pages, as the text of a file that can be handed on. `name` is the controller's kind. */
export const writeDumpForm = (name: string, form: DumpForm): string =>
  `${JSON.stringify({ format: DUMP_FORM, version: VERSION, name, form }, null, 1)}\n`;

/** Reads how a controller keeps its pages. Anything wrong refuses it whole, with the place in it. */
export function readDumpForm(text: string): Read<DumpForm> {
  const json = parseJson(text);
  if (json.value === undefined) return { value: undefined, problems: json.problems };
  const data = json.value.data as { format?: unknown; version?: unknown; form?: unknown } | null;
  const refuse = (expected: string, found: string): Read<DumpForm> => ({
    value: undefined,
    problems: [problem('dump.form', 'error', NOWHERE, { expected, found })],
  });
  if (data?.format !== DUMP_FORM) {
    const found = typeof data?.format === 'string' ? `"${data.format.slice(0, 60)}"` : 'none';
    return refuse(`the format "${DUMP_FORM}"`, found);
  }
  if (data.version !== VERSION) return refuse(`version ${VERSION}`, JSON.stringify(data.version ?? null).slice(0, 40));
  const parsed = dumpFormSchema.safeParse(data.form);
  if (!parsed.success) {
    const { path, message } = parsed.error.issues[0]!;
    const place = { in: 'show', path: ['form', ...path.map((p) => (typeof p === 'number' ? p : String(p)))] } as const;
    const found = message.replace(/^Invalid input: /, '').slice(0, 120);
    return {
      value: undefined,
      problems: [problem('dump.form', 'error', place, { expected: 'what the form needs', found })],
    };
  }
  const problems = formProblems(parsed.data).map((p) =>
    p.place.in === 'show' ? { ...p, place: { in: 'show' as const, path: ['form', ...p.place.path] } } : p,
  );
  return problems.length > 0 ? { value: undefined, problems } : { value: parsed.data, problems: [] };
}
