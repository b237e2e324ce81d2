import type { Problem } from '../../core/problems';
import type { Show } from '../../core/show';
import { bytesOf } from '../adapters/readFile';
import { readerInWorker } from '../adapters/workers';

/** A MIDI file that was read: a show of plain units with its song, or what is wrong with it. */
export interface MidiOpened {
  readonly name: string;
  readonly plain: Show | undefined;
  readonly problems: readonly Problem[];
}

export async function openMidi(file: File): Promise<MidiOpened> {
  const { value, problems } = await readerInWorker(await bytesOf(file), (w, bytes) => w.midi(bytes, file.name));
  return { name: file.name, plain: value, problems };
}
