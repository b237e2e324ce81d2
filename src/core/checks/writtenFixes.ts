import { applyEdit, readPath, type Edit, type Path, type Show } from '../show';
import { tonightOf, writtenOf, type ShowTonight } from '../tonight';
import type { Finding } from './finding';

/**
 * Findings of the show as the night has it, with the fixes that can be made in the show as it is written. A fix that
 * would change what only tonight has (the channel of a spare, a list that lacks a unit that is off) is left out.
 */
export function writtenFixes(tonight: ShowTonight, findings: readonly Finding[]): Finding[] {
  const written = writtenOf(tonight);
  if (written === tonight) return [...findings];
  return findings.map((f): Finding => (f.fix && !isWritten(written, tonight, f.fix) ? { ...f, fix: null } : f));
}

/** Whether an edit of tonight's show finds the same in the written one, and does the same there. */
export function isWritten(written: Show, tonight: ShowTonight, edit: Edit): boolean {
  const paths = pathsOf(edit);
  try {
    if (!paths.every((path) => same(readPath(written, path), readPath(tonight, path)))) return false;
    const after = tonightOf(applyEdit(written, edit));
    const wanted = applyEdit<Show>(tonight, edit);
    return paths.every((path) => same(readPath(after, path), readPath(wanted, path)));
  } catch {
    // It leads to what only tonight has.
    return false;
  }
}

const pathsOf = (edit: Edit): readonly Path[] =>
  edit.kind === 'group' ? edit.edits.flatMap((e) => pathsOf(e)) : [edit.path];

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
