import { expose } from 'comlink';
import { peaksOf } from '../core/sound';
import type { PeaksWorker } from './protocol';

const worker: PeaksWorker = { peaks: (channels, rate, onProgress) => peaksOf(channels, rate, onProgress) };
expose(worker);
