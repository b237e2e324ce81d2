import { describe, expect, it } from 'vitest';
import { finding, type Finding, type FindingPlace } from '../../core/checks/finding';
import { demoShow } from '../../core/demo';
import { groupsOf, mendKey, placePath, songOfGroup } from './findingGroups';

const show = demoShow();
const inSong = (at: number, cueId?: string): FindingPlace => ({
  in: 'song',
  songId: 'fog-bell',
  at,
  ...(cueId === undefined ? {} : { cueId }),
});
const never = (at: number, unit = 'Tarn', songId = 'fog-bell'): Finding =>
  finding('song.never', 'error', { ...inSong(at), songId } as FindingPlace, {
    song: 'Fog Bell',
    at: `${at}|1`,
    unit,
    why: 'settling',
  });

describe('findings of one kind', () => {
  it('are one entry in a song, in their order', () => {
    const list = [never(1), never(5), never(9, 'Harrow'), never(13)];
    expect(groupsOf(list).map((g) => g.map((f) => ('at' in f.data ? f.data.at : '')))).toEqual([
      ['1|1', '5|1', '9|1', '13|1'],
    ]);
  });

  it('are apart for each song, and for the rig', () => {
    const rig = finding('rig.no-port', 'error', { in: 'unit', unitId: 'tarn' }, { unit: 'Tarn' });
    const groups = groupsOf([never(1), never(1, 'Tarn', 'slack-tide'), rig]);
    expect(groups).toHaveLength(3);
    expect(groups.map(songOfGroup)).toEqual(['fog-bell', 'slack-tide', null]);
  });
});

describe('what mends several at one place', () => {
  it('is known by its place and its words', () => {
    const late = (unit: string, millis: number): Finding =>
      finding('song.late', 'error', inSong(9, 'c'), {
        song: 'Fog Bell',
        at: '9|1',
        unit,
        millis,
        cause: { kind: 'unknown' },
        fix: { how: 'shift', millis: 212, name: '' },
      });
    expect(mendKey(late('Tarn', 20))).toBe(mendKey(late('Harrow', 150)));
    expect(mendKey(late('Tarn', 20))).not.toBe(mendKey(never(9)));
  });
});

describe('the address of a place', () => {
  it.each<[FindingPlace, string]>([
    [inSong(3360), '/chart/fog-bell?at=3360'],
    [inSong(3360, 'c1'), '/chart/fog-bell?at=3360&cue=c1'],
    [{ in: 'song', songId: 'fog-bell', at: 0, sweepId: 's1' }, '/chart/fog-bell?at=0&sweep=s1'],
    [{ in: 'tone', toneId: 'fog-lead', unitId: 'tarn' }, '/tones/fog-lead'],
    [{ in: 'port', portId: 'rack' }, '/rig?port=rack'],
    [{ in: 'unit', unitId: 'tarn' }, '/rig?unit=tarn'],
    [{ in: 'unit', unitId: 'tarn', controlId: 'mix' }, '/map/tarn/controls'],
    [{ in: 'unit', unitId: 'tarn', slotId: 's' }, '/map/tarn'],
  ])('%j', (place, path) => {
    expect(placePath(show, place)).toBe(`/show/${show.id}${path}`);
  });
});
