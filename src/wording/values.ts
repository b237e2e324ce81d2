import { isContinuous, keepsOf, valueRange, type Control, type Sender } from '../core/addressing';

const twoStates = (encoding: Control['encoding']): boolean =>
  encoding.kind === 'set-switch' || encoding.kind === 'momentary' || keepsOf(encoding) === 'flip';

/** A figure with as many digits as help, and its unit. */
export const figureWords = (value: number, unit: string): string => {
  const digits = Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2;
  const text = String(Number(value.toFixed(digits)));
  return unit === '' ? text : `${text} ${unit}`;
};

/** A control's value as the unit would say it: "on", "fifth", "25 %". */
export function valueWords(control: Pick<Control, 'encoding' | 'options'>, value: number): string {
  const { encoding, options } = control;
  if (keepsOf(encoding) === 'nothing') return 'tap';
  if (twoStates(encoding)) return value === 1 ? 'on' : 'off';
  if (isContinuous(encoding) && 'unit' in encoding) return figureWords(value, encoding.unit);
  return options[value - valueRange(encoding).low] || String(value);
}

/** What a switch, pad or pedal of a controller did. */
export function senderWords({ encoding }: Pick<Sender, 'encoding'>, value: number): string {
  if (twoStates(encoding)) return value === 1 ? 'pressed' : 'let go';
  return isContinuous(encoding) && 'unit' in encoding ? figureWords(value, encoding.unit) : 'pressed';
}
