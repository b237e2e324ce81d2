import { isContinuous, keepsOf, valueRange, type Control } from '../../addressing';
import type { Unit } from '../../show';

const isSwitch = ({ encoding }: Control): boolean =>
  encoding.kind === 'set-switch' || encoding.kind === 'momentary' || keepsOf(encoding) === 'flip';

/** A control's value in a cell: on, off, the name of an option, or the figure. */
export function valueCell(control: Control, value: number): string {
  if (isSwitch(control)) return value === 1 ? 'on' : 'off';
  const name = isContinuous(control.encoding) ? '' : optionName(control, value);
  return name === '' ? String(value) : name;
}

/** An option's name, where it has one that no other has and that is no figure. */
function optionName(control: Control, value: number): string {
  const name = control.options[value - valueRange(control.encoding).low] ?? '';
  return control.options.filter((o) => same(o, name)).length > 1 || isFigure(name) ? '' : name;
}

const isFigure = (name: string): boolean => /^-?[\d.,]+$/.test(name);

/** The names of options that a cell may have. */
export const optionNames = ({ options }: Control): readonly string[] => options.filter((o) => !isFigure(o));

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The value that a cell says; undefined where it says none that the control has. */
export function valueOfCell(control: Control, text: string): number | undefined {
  const word = text.trim().toLowerCase();
  if (isSwitch(control) && (word === 'on' || word === 'off')) return word === 'on' ? 1 : 0;
  const { low, high } = valueRange(control.encoding);
  const option = control.options.findIndex((o) => o !== '' && same(o, text));
  if (!isContinuous(control.encoding) && option >= 0) return option + low;
  if (!/^[-+]?\d+([.,]\d+)?(e[-+]?\d+)?$/.test(word)) return undefined;
  const value = Number(word.replace(',', '.'));
  const whole = isContinuous(control.encoding) || Number.isInteger(value);
  return whole && value >= Math.min(low, high) && value <= Math.max(low, high) ? value : undefined;
}

/** A variant in a cell: its name, or the unit's word and its number as one counts on the panel. */
export function variantCell({ profile }: Unit, variant: number | null): string {
  if (variant === null || !profile.variants) return '';
  const { word, names } = profile.variants;
  const name = names[variant] ?? '';
  const alone = name !== '' && names.filter((n) => same(n, name)).length === 1 && !NUMBERED.test(name);
  return alone ? name : `${word} ${variant + 1}`;
}

const NUMBERED = /(?:^|\s)(\d+)$/;

/**
 * The variant that a cell names, from 0: by its name, or by the unit's word and a number from 1. Undefined where it
 * names none, or more than one.
 */
export function variantOfCell({ profile }: Unit, text: string): number | undefined {
  if (!profile.variants) return undefined;
  const { word, names } = profile.variants;
  const numbered = NUMBERED.exec(text);
  if (numbered && same(text.slice(0, numbered.index), word)) {
    const index = Number(numbered[1]) - 1;
    return index >= 0 && index < names.length ? index : undefined;
  }
  const found = names.flatMap((n, i) => (same(n, text) ? [i] : []));
  return found.length === 1 ? found[0] : undefined;
}

/** Bytes apart, so that no spreadsheet takes "903e40" for a figure. */
export const spaced = (hex: string): string => hex.replaceAll(/(..)(?=.)/g, '$1 ');
