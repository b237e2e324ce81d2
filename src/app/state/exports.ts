import type { ExportWish, ExportedFile } from '../../core/formats/exportFile';
import { fileName } from '../../core/formats/fileName';
import type { Problem } from '../../core/problems';
import type { Show } from '../../core/show';
import { sentence, said, unprintableSentence } from '../../wording';
import type { PaperWish } from '../../workers/protocol';
import { download } from '../adapters/download';
import { shelf } from '../persistence/db';
import { loadSound } from '../persistence/sounds';
import { askFiles, makeFile } from './desk';
import { noteExport } from './exported';

/** Says that the songs of the set are wanted, and no single one. */
export const SET = 'set';

/** What became of an export: the file, and what it could not carry. */
export interface Exported {
  readonly name: string;
  readonly problems: readonly Problem[];
}

/** Hands a file to the user. It is made beside the page, which may be sending to ports meanwhile. */
export async function exportToFile(wish: ExportWish): Promise<Exported> {
  const made = await makeFile(wish);
  download(made.name, made.data, made.type);
  return { name: nameOf(made), problems: made.problems };
}

const nameOf = ({ name, inside }: ExportedFile): string =>
  inside.length === 0 ? name : `${name} (${inside.join(', ')})`;

/** What there is to say of an export, in one line. */
export const exportedWords = ({ name, problems }: Exported): string =>
  [`Exported ${name}.`, ...problems.map(sentence)].join(' ');

/** Makes and hands over a file, and gives what there is to say of it, also where it was not to be made. */
export const exportAndSay = (wish: ExportWish): Promise<string> =>
  exportToFile(wish).then(exportedWords, (error: unknown) => said.notExported(error));

/** Exports the open show: a zip file with its recordings where it has any, else its JSON. Gives what there is to say. */
export async function exportShow({ id: showId, audio }: Show, withSounds: boolean): Promise<string> {
  void noteExport(showId, Date.now());
  const sounds = await soundsOf(showId, withSounds ? audio : []);
  const made = await exportToFile({ kind: 'show', sounds: sounds.size > 0 ? sounds : null });
  const lacking = audio.filter((a) => !sounds.has(a.id)).map((a) => a.name);
  if (audio.length === 0) return said.exported(made.name);
  if (!withSounds) return said.exportedWithout(lacking);
  return said.exportedWith(made.name, sounds.size, lacking);
}

/** The recordings of a show that are there, by id. */
async function soundsOf(showId: string, audio: Show['audio']): Promise<ReadonlyMap<string, Uint8Array>> {
  const sounds = new Map<string, Uint8Array>();
  for (const { id } of audio) {
    const row = await loadSound(shelf, showId, id);
    if (row) sounds.set(id, new Uint8Array(row.bytes));
  }
  return sounds;
}

/** Hands over everything of the open show that one takes along, as a zip. Gives what there is to say of it. */
export async function exportPack({ id, title, audio }: Show, paper: PaperWish): Promise<string> {
  void noteExport(id, Date.now());
  const sounds = await soundsOf(id, audio);
  const { bytes, files, odd } = await askFiles((w) => w.pack(paper, sounds.size > 0 ? sounds : null));
  const name = fileName(`${title} for the road`, 'zip');
  download(name, bytes, 'application/zip');
  return [`${name}, with ${files} files.`, ...(odd.length > 0 ? [unprintableSentence(odd)] : [])].join(' ');
}
