import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import {
  addFootPage,
  applyEdit,
  changeFeet,
  deleteSong,
  feetOf,
  indexShow,
  nameSlot,
  newFeet,
  newFootSwitch,
  orderFootPages,
  pageTitle,
  pagesOf,
  putFootPedal,
  putFootSwitches,
  removeFootPage,
  removeMove,
  removeToneEverywhere,
  removeUnit,
  changeProfile,
  type FootPedal,
  type Show,
} from '../';
import { doingTo } from '../../testing/doing';

const show = demoShow();
const pages = pagesOf(show, 'treadle');
const slack = pages[1]!;

const done = doingTo(show);

const page = (s: Show, id: string) => feetOf(s, 'treadle').pages.find((p) => p.id === id);

describe('a switch of a page', () => {
  it('is put, replaced and taken away; one that does nothing leaves no trace', () => {
    const stop = newFootSwitch('switch-5', [{ kind: 'session', act: 'stop' }]);
    const put = done(putFootSwitches(show, 'treadle', slack.id, [stop]));
    expect(page(put, slack.id)!.switches).toContainEqual(stop);
    expect(putFootSwitches(put, 'treadle', slack.id, [stop])).toBeNull();
    const gone = done(putFootSwitches(put, 'treadle', slack.id, [newFootSwitch('switch-5', [])]), put);
    expect(page(gone, slack.id)!.switches.map((s) => s.id)).not.toContain('switch-5');
    expect(putFootSwitches(show, 'nobody', null, [stop])).toBeNull();
    const all = done(putFootSwitches(show, 'treadle', null, [stop]));
    expect(feetOf(all, 'treadle').everywhere.switches).toContainEqual(stop);
  });

  it('of a controller that nothing was programmed into makes it one', () => {
    const bare = { ...show, feet: [] };
    expect(feetOf(bare, 'treadle')).toEqual(newFeet('treadle'));
    const put = done(putFootSwitches(bare, 'treadle', null, [newFootSwitch('switch-1', [], { name: 'Here' })]), bare);
    expect(put.feet).toHaveLength(1);
  });

  it('goes with the tone, the move, the song, the unit or the control that it was for', () => {
    const doing = (s: Show) => JSON.stringify(s.feet);
    expect(doing(done(removeToneEverywhere(show, 'fog-lead')))).not.toContain('"fog-lead"');
    expect(doing(done(removeMove(show, 'tuner-on')))).not.toContain('tuner-on');
    const songs = done(deleteSong(show, 'slack-tide'));
    expect(page(songs, slack.id)!.songId).toBeNull();
    const bare = done(removeUnit(show, 'thistle'));
    expect(doing(bare)).not.toContain('thistle');
    expect(doing(done(removeUnit(show, 'treadle')))).not.toContain('treadle');
    const { profile } = indexShow(show).units.get('thistle')!;
    const lesser = changeProfile(show, 'thistle', {
      ...profile,
      controls: profile.controls.filter((c) => c.id !== 'feedback'),
    });
    expect(lesser.ok && lesser.dropped).toContainEqual({
      where: 'song',
      id: '',
      name: 'Treadle Ten',
      what: 'feedback',
    });
    expect(feetOf(done(lesser.ok ? lesser.edit : null), 'treadle').everywhere.pedals).toEqual([]);
  });
});

describe('a pedal', () => {
  const wah: FootPedal = {
    id: 'pedal-2',
    does: { kind: 'number', channel: 1, number: 4, from: 0, to: 127 },
    bend: 'slow',
  };

  it('is set on one page or on all, and taken off again', () => {
    const one = done(putFootPedal(show, 'treadle', slack.id, 'pedal-2', wah));
    expect(page(one, slack.id)!.pedals).toEqual([wah]);
    const none = done(putFootPedal(one, 'treadle', slack.id, 'pedal-2', null), one);
    expect(page(none, slack.id)!.pedals).toEqual([]);
    expect(putFootPedal(show, 'treadle', slack.id, 'pedal-2', null)).toBeNull();
  });
});

describe('pages', () => {
  it('are presets of their controller: added at its first free place, named as any', () => {
    const added = addFootPage(show, 'treadle', 'Encore', () => 'encore')!;
    const after = done(added.edit);
    expect(added.pageId).toBe('encore');
    expect(pageTitle(after, 'treadle', 'encore')).toBe('page 10 Encore');
    expect(pagesOf(after, 'treadle')).toHaveLength(pages.length + 1);
    // A page cannot be lost by emptying its name.
    const unnamed = applyEdit(after, nameSlot(after, 'treadle', 9, '', 'x')!);
    expect(pageTitle(unnamed, 'treadle', 'encore')).toBe('page 10');
  });

  it('take up a preset of that name that is no page yet', () => {
    const named = applyEdit(show, nameSlot(show, 'treadle', 20, 'Encore', 'late')!);
    expect(addFootPage(named, 'treadle', 'Encore', () => 'other')!.pageId).toBe('late');
  });

  it('end where the controller does', () => {
    let full = show;
    for (let n = pages.length; n < 32; n++)
      full = applyEdit(full, addFootPage(full, 'treadle', `P${n}`, () => `p${n}`)!.edit);
    expect(addFootPage(full, 'treadle', 'One more', () => 'more')).toBeNull();
    expect(addFootPage(show, 'nobody', 'One more', () => 'more')).toBeNull();
  });

  it('are taken away with the switches that lead there, and with their preset where no tone calls it', () => {
    const after = done(removeFootPage(show, 'treadle', slack.id));
    expect(page(after, slack.id)).toBeUndefined();
    expect(pages[0]!.switches.some((s) => s.id === 'switch-8')).toBe(true);
    expect(pagesOf(after, 'treadle')[0]!.switches.some((s) => s.id === 'switch-8')).toBe(false);
    expect(removeFootPage(show, 'treadle', 'none')).toBeNull();
  });

  it('are put in another order among the places that they have', () => {
    const order = pages.map((p) => p.id).toReversed();
    const after = done(orderFootPages(show, 'treadle', order));
    expect(pagesOf(after, 'treadle').map((p) => p.id)).toEqual(order);
    expect(pageTitle(after, 'treadle', order[0]!)).toBe('page 01 Last Boat');
    expect(orderFootPages(show, 'treadle', order.toReversed())).toBeNull();
    expect(orderFootPages(show, 'treadle', ['none'])).toBeNull();
  });

  it('change in one edit whatever is changed of them', () => {
    const after = done(changeFeet(show, 'treadle', (f) => ({ ...f, calls: false })));
    expect(feetOf(after, 'treadle').calls).toBe(false);
    expect(changeFeet(show, 'treadle', (f) => f)).toBeNull();
  });
});
