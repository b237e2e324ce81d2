import { hasTwoStates, isContinuous, isTap, valueRange } from './encodings/registry';
import type { Control } from './profile';

/** A figure with as many digits as help, and its unit. */
export const figureText = (value: number, unit: string): string => {
  const digits = Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2;
  const text = String(Number(value.toFixed(digits)));
  return unit === '' ? text : `${text} ${unit}`;
};

/** A control's value as the unit would write it: "on", "fifth", "25 %". */
export function valueText(control: Pick<Control, 'encoding' | 'options'>, value: number): string {
  const { encoding, options } = control;
  if (isTap(encoding)) return 'tap';
  if (hasTwoStates(encoding)) return value === 1 ? 'on' : 'off';
  if (isContinuous(encoding) && 'unit' in encoding) return figureText(value, encoding.unit);
  return options[value - valueRange(encoding).low] || String(value);
}
