import { expect } from 'vitest';
import { applyEdit, checkShow, invertEdit, type Edit, type Show } from '../show';

/** Does edits to a show, or to another one: each is there, leaves the show valid, and can be taken back. */
export const doingTo =
  (show: Show) =>
  (edit: Edit | null, from: Show = show): Show => {
    expect(edit).not.toBeNull();
    const after = applyEdit(from, edit!);
    expect(checkShow(after)).toEqual([]);
    expect(applyEdit(after, invertEdit(edit!))).toEqual(from);
    return after;
  };
