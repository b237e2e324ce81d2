import { NOWHERE, problem, type Problem } from '../../problems';
import { SHOW_VERSION } from '../schema';
import { feet } from './feet';
import { margins } from './margins';
import type { Migration } from './migration';
import { movesAndSweeps } from './movesAndSweeps';
import { remarks } from './remarks';
import { sets } from './sets';
import { soundAndClock } from './soundAndClock';
import { splitters } from './splitters';
import { theNight } from './theNight';
import { timeCode } from './timeCode';
import { wholeMap } from './wholeMap';

/** In order and without gaps; each has a saved file before and after it in `fixtures/`. */
export const MIGRATIONS: readonly Migration[] = [
  wholeMap,
  movesAndSweeps,
  soundAndClock,
  splitters,
  sets,
  theNight,
  feet,
  remarks,
  margins,
  timeCode,
];

export type { Migration };

export type Migrated =
  { readonly ok: true; readonly data: Record<string, unknown> } | { readonly ok: false; readonly problem: Problem };

/** Brings data up to the version that this program knows; a newer one is refused by name. */
export function migrate(
  data: Record<string, unknown>,
  migrations: readonly Migration[] = MIGRATIONS,
  known: number = SHOW_VERSION,
): Migrated {
  const { version } = data;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    const found = version === undefined ? 'nothing' : JSON.stringify(version).slice(0, 40);
    return { ok: false, problem: problem('show.version', 'error', { in: 'show', path: ['version'] }, { found }) };
  }
  if (version > known) {
    return { ok: false, problem: problem('show.newer', 'error', NOWHERE, { version, known }) };
  }
  let current = data;
  for (let at = version; at < known; at++) {
    const step = migrations.find((m) => m.from === at);
    if (!step) throw new Error(`no migration leads from version ${at} of the show to ${at + 1}`);
    current = { ...step.up(current), version: at + 1 };
  }
  return { ok: true, data: current };
}
