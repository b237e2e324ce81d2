import { expose, transfer } from 'comlink';
import { writeSheetsPdf } from '../core/formats/pdf';
import type { PaperWorker } from './protocol';

const worker: PaperWorker = {
  pdf: async (sheets, wish) => {
    const bytes = new Uint8Array(await writeSheetsPdf(sheets, wish));
    return transfer(bytes, [bytes.buffer]);
  },
};
expose(worker);
