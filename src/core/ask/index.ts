export { ask } from './ask';
export type { Answer } from './answer';
