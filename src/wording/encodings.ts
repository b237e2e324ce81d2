import { encodingClaims, type Encoding } from '../core/addressing';

const KINDS: Readonly<Record<Encoding['kind'], string>> = {
  index: 'list of values',
  zones: 'equal zones',
  table: 'table of values',
  'set-switch': 'switch, on and off values',
  flip: 'flips at every message',
  momentary: 'while held',
  tap: 'tap',
  continuous: 'continuous',
  'fourteen-bit': 'continuous, 14 bits',
  nrpn: 'continuous, NRPN',
  note: 'notes in sequence',
  'note-table': 'table of notes',
  program: 'program changes in sequence',
  'program-table': 'table of program changes',
  exclusive: 'system exclusive',
};

export const encodingKindWords = (kind: Encoding['kind']): string => KINDS[kind];

/** What an encoding listens on, in a few words: "control 52", "notes 60-65", "NRPN 1025". */
export function claimWords(encoding: Encoding): string {
  const claims = encodingClaims(encoding);
  const [first] = claims;
  if (!first) return 'system exclusive';
  const word = first.on === 'nrpn' ? 'NRPN' : first.on;
  if (claims.length === 1) return `${word} ${first.number}`;
  const last = claims.at(-1)!;
  const run = last.number - first.number === claims.length - 1;
  return run ? `${word}s ${first.number}-${last.number}` : `${word}s ${claims.map((c) => c.number).join(' and ')}`;
}
