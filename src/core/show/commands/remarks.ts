import { LIMITS } from '../limits';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import type { Remark, Show } from '../schema';

const setRemarks = (
  show: Show,
  songId: string,
  after: (before: readonly Remark[]) => readonly Remark[],
): Edit | null => {
  const before = indexShow(show).songs.get(songId)?.remarks;
  if (!before) return null;
  const remarks = after(before).toSorted((a, b) => a.at - b.at);
  if (remarks.length > LIMITS.remarks || JSON.stringify(remarks) === JSON.stringify(before)) return null;
  return { kind: 'set', path: ['songs', { id: songId }, 'remarks'], before, after: remarks };
};

/** Adds a remark, or puts it in the place of the one with its id. Null for an empty one, where nothing would change, or past the most. */
export function putRemark(show: Show, songId: string, remark: Remark): Edit | null {
  const text = remark.text.replaceAll(/\s+/g, ' ').trim().slice(0, LIMITS.remark).trim();
  if (text === '' || !(remark.at >= 0 && remark.at <= LIMITS.ticks)) return null;
  const own = { ...remark, text };
  return setRemarks(show, songId, (all) =>
    all.some((r) => r.id === remark.id) ? all.map((r) => (r.id === remark.id ? own : r)) : [...all, own],
  );
}

/** Removes a remark from its bar. Null where it is not there. */
export const removeRemark = (show: Show, songId: string, id: string): Edit | null =>
  setRemarks(show, songId, (all) => all.filter((r) => r.id !== id));
