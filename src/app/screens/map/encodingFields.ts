import { encodingSchema, type Encoding } from '../../../core/addressing';

/** A field of an encoding: how it is typed, and what it takes. */
export interface EncodingField {
  readonly key: string;
  readonly label: string;
  readonly takes: 'byte' | 'word' | 'count' | 'figure' | 'bytes' | 'figures' | 'text' | 'byte-or-any';
}

const field = (key: string, label: string, takes: EncodingField['takes']): EncodingField => ({ key, label, takes });

const NUMBER = field('number', 'Control number', 'byte');
const scale = (word: 'byte' | 'word'): EncodingField[] => [
  field('from', 'Value at the low end', word),
  field('to', 'Value at the high end', word),
  field('low', 'Low end shows', 'figure'),
  field('high', 'High end shows', 'figure'),
  field('unit', 'Unit of the figure', 'text'),
];

/** Fields of each kind, in the order in which one would fill them. */
export const ENCODING_FIELDS: { readonly [K in Encoding['kind']]: readonly EncodingField[] } = {
  index: [
    NUMBER,
    field('count', 'Options', 'count'),
    field('base', 'First value', 'byte'),
    field('step', 'Step', 'count'),
  ],
  zones: [NUMBER, field('count', 'Zones', 'count')],
  table: [NUMBER, field('values', 'Values, in order', 'bytes')],
  'set-switch': [
    NUMBER,
    field('on', 'On', 'byte'),
    field('off', 'Off', 'byte'),
    field('onFrom', 'Read as on from', 'byte'),
  ],
  flip: [NUMBER, field('send', 'Sends', 'byte'), field('only', 'Obeys only', 'byte-or-any')],
  momentary: [NUMBER, field('press', 'Pressed', 'byte'), field('release', 'Let go', 'byte')],
  tap: [NUMBER, field('values', 'Value, or two in turn', 'bytes')],
  continuous: [NUMBER, ...scale('byte')],
  'fourteen-bit': [field('number', 'Control number (1-31)', 'byte'), ...scale('word')],
  nrpn: [field('number', 'Parameter number', 'word'), ...scale('word')],
  note: [field('first', 'First note', 'byte'), field('count', 'Notes', 'count'), field('velocity', 'Velocity', 'byte')],
  'note-table': [field('values', 'Notes, in order', 'bytes'), field('velocity', 'Velocity', 'byte')],
  program: [field('first', 'First program (from 0)', 'byte'), field('count', 'Programs', 'count')],
  'program-table': [field('values', 'Programs, in order (from 0)', 'bytes')],
  exclusive: [
    field('template', 'Message, vv for the value', 'text'),
    field('low', 'Lowest value', 'word'),
    field('high', 'Highest value', 'word'),
  ],
};

/** What a field of an encoding holds, as text. */
export function fieldText(encoding: Encoding, { key }: EncodingField): string {
  const value = (encoding as unknown as Record<string, unknown>)[key];
  return Array.isArray(value)
    ? value.join(' ')
    : typeof value === 'number' || typeof value === 'string'
      ? String(value)
      : '';
}

const LIMITS = { byte: [0, 127], word: [0, 16383], count: [1, 128] } as const;

const numbersOf = (text: string): number[] | undefined => {
  const numbers = text
    .split(/[\s,;]+/)
    .filter((t) => t !== '')
    .map(Number);
  return numbers.every((n) => Number.isFinite(n)) ? numbers : undefined;
};

/** A value for a field from what was typed, or what was expected. */
function valueOf(text: string, { takes }: EncodingField): { value: unknown } | { expected: string } {
  const typed = text.trim();
  switch (takes) {
    case 'text':
      return { value: text };
    case 'figure': {
      const value = Number(typed);
      return typed !== '' && Number.isFinite(value) ? { value } : { expected: 'a number' };
    }
    case 'bytes': {
      const value = numbersOf(typed);
      const fits = value && value.length > 0 && value.every((n) => Number.isInteger(n) && n >= 0 && n <= 127);
      return fits ? { value } : { expected: 'whole numbers from 0 to 127, with blanks between' };
    }
    case 'figures': {
      const value = numbersOf(typed);
      return value && value.length > 1 ? { value } : { expected: 'at least two numbers, with blanks between' };
    }
    case 'byte-or-any':
      if (typed === '') return { value: null };
      return valueOf(text, { takes: 'byte', key: '', label: '' });
    default: {
      const [low, high] = LIMITS[takes];
      const value = Number(typed);
      const fits = /^\d+$/.test(typed) && value >= low && value <= high;
      return fits ? { value } : { expected: `a whole number from ${low} to ${high}` };
    }
  }
}

/** The encoding with one field changed, or what was expected there. */
export function withField(
  encoding: Encoding,
  field: EncodingField,
  text: string,
): { readonly encoding: Encoding } | { readonly expected: string } {
  const read = valueOf(text, field);
  if ('expected' in read) return read;
  const parsed = encodingSchema.safeParse({ ...encoding, [field.key]: read.value });
  if (parsed.success) return { encoding: parsed.data };
  const issue = parsed.error.issues[0];
  if (issue?.code === 'too_big') return { expected: `at most ${String(issue.maximum)}` };
  if (issue?.code === 'too_small') return { expected: `at least ${String(issue.minimum)}` };
  return { expected: 'something else' };
}
