import { z } from 'zod';
import { readShowData } from '../../core/formats/show-file';
import { librarySchema, type LibraryEntry } from '../../core/library';
import type { Show } from '../../core/show';
import { problemLine } from '../../wording';

const errorSchema = z.object({ error: z.object({ code: z.string(), sentence: z.string() }) });

/** Data from the server. Throws an Error with a sentence for people. */
async function getJson(path: string): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(path);
  } catch {
    throw new Error('The server does not answer. Is it still running?');
  }
  const body: unknown = await response.json().catch(() => undefined);
  if (response.ok) return body;
  const told = errorSchema.safeParse(body);
  throw new Error(told.success ? told.data.error.sentence : `The server answered ${response.status}.`);
}

export async function fetchDemo(path: string): Promise<Show> {
  const { value, problems } = readShowData(await getJson(path));
  if (!value) throw new Error(`The demo show that came is not valid. ${problems.map(problemLine)[0] ?? ''}`);
  return value;
}

export async function fetchLibrary(path: string): Promise<readonly LibraryEntry[]> {
  const parsed = librarySchema.safeParse(await getJson(path));
  if (!parsed.success) throw new Error('The unit library that came is not valid.');
  return parsed.data;
}
