import { figureText, hasTwoStates, isContinuous, type Sender } from '../core/addressing';

export { figureText as figureWords, valueText as valueWords } from '../core/addressing';

/** What a switch, pad or pedal of a controller did. */
export function senderWords({ encoding }: Pick<Sender, 'encoding'>, value: number): string {
  if (hasTwoStates(encoding)) return value === 1 ? 'pressed' : 'let go';
  return isContinuous(encoding) && 'unit' in encoding ? figureText(value, encoding.unit) : 'pressed';
}
