import type { Lantern } from '../../core/simulate';

/** What the lantern of a set says. */
export const SET_WORDS: Readonly<Record<Lantern, string>> = {
  hollow: 'not proven yet',
  lit: 'lands on time',
  cracked: 'does not land on time',
};
