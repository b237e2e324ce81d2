import { smfToShow } from '../../core/formats/smf';
import type { Problem } from '../../core/problems';
import { LIMITS, type Show } from '../../core/show';

/** A MIDI file that was read: a show of plain units with its song, or what is wrong with it. */
export interface MidiOpened {
  readonly name: string;
  readonly plain: Show | undefined;
  readonly problems: readonly Problem[];
}

export async function openMidi(file: File): Promise<MidiOpened> {
  const title = file.name.replace(/\.[^.]*$/, '') || 'Imported';
  const { value, problems } = smfToShow(new Uint8Array(await file.arrayBuffer()), title.slice(0, LIMITS.title));
  return { name: file.name, plain: value, problems };
}
