import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { LIMITS } from '../limits';
import { applyEdit } from '../edits';
import { indexShow } from '../find';
import type { Remark, Show } from '../schema';
import { songTime } from '../songTime';
import { barAt } from '../../time';
import { copySection, insertBars, putMetre, putRemark, removeBars, removeRemark } from './';

const show = demoShow();
const ID = 'slack-tide';
const song = (s: Show) => indexShow(s).songs.get(ID)!;
const tickOf = (s: Show, bar: number): number => barAt(songTime(song(s)).bars, bar).tick;
const remark = (id: string, bar: number, text = id): Remark => ({ id, at: tickOf(show, bar), text, onStage: true });
const withRemarks = [remark('late', 9), remark('early', 5)].reduce((s, r) => applyEdit(s, putRemark(s, ID, r)!), show);
const bars = (s: Show): unknown =>
  song(s).remarks.map((r) => [r.text, Array.from({ length: 200 }, (_, b) => b).find((b) => tickOf(s, b) === r.at)]);

describe('remarks', () => {
  it('stand in the order of the song, without line breaks and blanks around', () => {
    expect(bars(withRemarks)).toEqual([
      ['early', 5],
      ['late', 9],
    ]);
    const after = applyEdit(withRemarks, putRemark(withRemarks, ID, remark('early', 12, '  wait\n for  it '))!);
    expect(bars(after)).toEqual([
      ['late', 9],
      ['wait for it', 12],
    ]);
  });

  it('are refused where they say nothing, change nothing, or stand nowhere', () => {
    expect(putRemark(withRemarks, ID, remark('new', 3, '  '))).toBeNull();
    expect(putRemark(withRemarks, ID, remark('early', 5))).toBeNull();
    expect(putRemark(withRemarks, ID, { ...remark('new', 3), at: Number.NaN })).toBeNull();
    expect(putRemark(withRemarks, ID, { ...remark('new', 3), at: -1 })).toBeNull();
    expect(putRemark(withRemarks, 'no song', remark('new', 3))).toBeNull();
    expect(removeRemark(withRemarks, ID, 'gone')).toBeNull();
  });

  it('are one line, and so many at the most', () => {
    const long = applyEdit(show, putRemark(show, ID, remark('long', 3, 'a'.repeat(5000)))!);
    expect(song(long).remarks[0]!.text).toHaveLength(LIMITS.remark);
    const many = Array.from({ length: LIMITS.remarks }, (_, i) => remark(`r${i}`, 3));
    const full = { ...show, songs: show.songs.map((s) => (s.id === ID ? { ...s, remarks: many } : s)) };
    expect(putRemark(full, ID, remark('one more', 3))).toBeNull();
  });

  it('go with their bars: inserted, taken out, copied, in another metre', () => {
    const by = (edit: ReturnType<typeof insertBars>): unknown => bars(applyEdit(withRemarks, edit!));
    expect(by(insertBars(withRemarks, ID, 6, 3))).toEqual([
      ['early', 5],
      ['late', 12],
    ]);
    expect(by(removeBars(withRemarks, ID, 5, 1))).toEqual([['late', 8]]);
    expect(by(putMetre(withRemarks, ID, 6, 3, 4))).toEqual([
      ['early', 5],
      ['late', 9],
    ]);
    const section = song(show).sections.find((s) => s.bar === 9) ?? song(show).sections[1]!;
    let n = 0;
    const copied = applyEdit(
      withRemarks,
      copySection(withRemarks, ID, section.id, 1, () => `copy-${n++}`)!,
    );
    const ids = song(copied).remarks.map((r) => r.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(song(copied).remarks.filter((r) => r.text === 'late')).toHaveLength(section.bar === 9 ? 2 : 1);
  });

  it('go away, one by one', () => {
    expect(bars(applyEdit(withRemarks, removeRemark(withRemarks, ID, 'early')!))).toEqual([['late', 9]]);
  });
});
