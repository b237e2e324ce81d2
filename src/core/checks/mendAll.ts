import { applyEdit, indexShow, type Edit, type Show } from '../show';
import { tonightOf } from '../tonight';
import { checkRig } from './checkRig';
import { checkSong } from './checkSong';
import type { Finding, FindingCode } from './finding';

/** More than this are not mended in one go; what is left is offered again. */
const LIMIT = 500;

/**
 * One edit that mends every finding of a kind, in one song or (null) in the rig and its tones: each
 * fix is made of the show as the one before left it. Null where nothing can be mended. Findings
 * that only a dry run makes are mended one by one, because each changes how the others land.
 */
export function mendAll(show: Show, songId: string | null, code: FindingCode): Edit | null {
  const edits: Edit[] = [];
  let state = show;
  let left = fixable(state, songId, code);
  while (left.length > 0 && edits.length < LIMIT) {
    const edit = left[0]!.fix!;
    state = applyEdit(state, edit);
    edits.push(edit);
    const now = fixable(state, songId, code);
    if (now.length >= left.length) break;
    left = now;
  }
  return edits.length === 0 ? null : { kind: 'group', edits };
}

function fixable(written: Show, songId: string | null, code: FindingCode): readonly Finding[] {
  const show = tonightOf(written);
  const song = songId === null ? undefined : indexShow(show).songs.get(songId);
  const found = songId === null ? checkRig(show) : song ? checkSong(show, song) : [];
  return found.filter((f) => f.code === code && f.fix !== null);
}
