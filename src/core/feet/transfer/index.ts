export { footBytes, isFootBytes, readFootBytes } from './blocks';
export { memoryBytes, readMemoryBytes } from './memoryBytes';
export { newReceiver, receive, type FootReceiver } from './receiver';
export {
  beginTransfer,
  progressOf,
  stepTransfer,
  transferTime,
  type Errand,
  type Transfer,
  type TransferEnd,
} from './sender';
