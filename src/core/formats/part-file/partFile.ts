import { z } from 'zod';
import { NOWHERE, problem, type Read } from '../../problems';
import { SHOW_FORMAT, SHOW_VERSION } from '../../show';
import { parseJson, readShowData } from '../show-file';
import { PART_FORMAT, type Part } from './format';

const fileSchema = z.looseObject({
  kind: z.enum(['songs', 'set', 'pages', 'kit']),
  version: z.unknown(),
  show: z.looseObject({}),
  pageSongs: z.record(z.string(), z.string()).default({}),
});

/** A part of a show as the text of a file: what it is, and the show around it, in the shape of a show file. */
export const writePart = ({ kind, show, pageSongs }: Part): string =>
  `${JSON.stringify({ format: PART_FORMAT, version: SHOW_VERSION, kind, show, pageSongs }, null, 1)}\n`;

/** Whether a text of JSON says that it is a part. */
export const isPart = (data: unknown): boolean => (data as { format?: unknown } | null)?.format === PART_FORMAT;

/** Reads a part from the text of a file. Anything wrong refuses it whole, with the place in it. */
export function readPart(text: string): Read<Part> {
  const json = parseJson(text);
  if (json.value === undefined) return { value: undefined, problems: json.problems };
  const { data } = json.value;
  const parsed = isPart(data) ? fileSchema.safeParse(data) : undefined;
  if (!parsed?.success) {
    const format = (data as { format?: unknown } | null)?.format;
    const found = parsed ? 'a part of no known kind' : typeof format === 'string' ? `"${format.slice(0, 60)}"` : 'none';
    return { value: undefined, problems: [problem('part.not-a-part', 'error', NOWHERE, { found })] };
  }
  const { kind, version, show, pageSongs } = parsed.data;
  // A part is read as the show in it, so that older ones are brought up to date the same way.
  const read = readShowData({ ...show, format: SHOW_FORMAT, version });
  const problems = read.problems.map((p) =>
    p.place.in === 'show' ? { ...p, place: { in: 'show' as const, path: ['show', ...p.place.path] } } : p,
  );
  return { value: read.value && { kind, show: read.value, pageSongs }, problems };
}
