export { footBytes, isFootBytes, readFootBytes, type FootMessage, type Refusal } from './blocks';
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
  type TransferInput,
} from './sender';
