import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { libraryProfile } from '../../library';
import { programChange, toHex } from '../../midi';
import {
  addFootPage,
  applyEdit,
  changeFeet,
  checkShow,
  feetOf,
  invertEdit,
  newFootSwitch,
  newUnit,
  pagesOf,
  putFootSwitches,
  takeKept,
  type Show,
} from '../../show';
import { memoryOf } from '../memory';
import { blankDump, readDump, writeDump } from './';

const demo = demoShow();
const unit = newUnit('four', 'Four Stones', 'FS', libraryProfile('four-switches'));
const form = unit.profile.controller!.memory!;
let made = 0;
const newId = (): string => `new-${made++}`;

/** The demo with four switches beside it: a page whose first switch calls a tone, its second sends bytes. */
function rig(): { readonly show: Show; readonly pageId: string } {
  const bare: Show = { ...demo, units: [...demo.units, unit] };
  const page = addFootPage(bare, 'four', '', newId)!;
  let show = applyEdit(bare, page.edit);
  // Without a call of its own, and with a unit behind it: what it sends is what stands in the memory.
  show = applyEdit(
    show,
    changeFeet(show, 'four', (f) => ({ ...f, calls: false, boat: [{ id: 'tarn', from: 'four' }] }))!,
  );
  const does = [
    newFootSwitch('switch-1', [{ kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 }]),
    newFootSwitch('switch-2', [{ kind: 'message', bytes: 'c105' }]),
  ];
  return { show: applyEdit(show, putFootSwitches(show, 'four', page.pageId, does)!), pageId: page.pageId };
}

describe('pages that a controller keeps', () => {
  const { show, pageId } = rig();
  const dump = writeDump(form, blankDump(form), memoryOf(show, 'four')).value!;

  it('change nothing where they are those of the show', () => {
    const kept = readDump(form, dump).value!;
    expect(kept.pages[0]!.switches.map((s) => s.place)).toEqual([0, 1]);
    expect(takeKept(show, 'four', kept.pages, memoryOf(show, 'four').pages, newId)).toBeNull();
  });

  it('come with what was changed on the floor; what is as it was keeps what it does', () => {
    const before = memoryOf(show, 'four').pages;
    const other = {
      ...before[0]!,
      switches: [
        before[0]!.switches[0]!,
        {
          ...before[0]!.switches[1]!,
          actions: [{ trigger: 'long' as const, messages: [programChange(3, 9)], page: null }],
        },
      ],
    };
    const changed = writeDump(form, dump, { pages: [other, { ...other, place: 4 }] }).value!;
    const kept = readDump(form, changed).value!;
    const edit = takeKept(show, 'four', kept.pages, before, newId)!;
    const after = applyEdit(show, edit);
    expect(checkShow(after)).toEqual([]);
    expect(applyEdit(after, invertEdit(edit))).toEqual(show);
    const page = feetOf(after, 'four').pages.find((p) => p.id === pageId)!;
    expect(page.switches[0]!.doings[0]!.does).toMatchObject({ kind: 'control', controlId: 'mix' });
    expect(page.switches[1]!.doings).toEqual([
      { on: 'long', does: { kind: 'message', bytes: toHex(programChange(3, 9)) } },
    ]);
    expect(pagesOf(after, 'four')).toHaveLength(2);
    // What was taken comes to the same dump again.
    expect(writeDump(form, changed, memoryOf(after, 'four')).value).toEqual(changed);
  });

  it('are nothing to a unit that is no controller', () => {
    expect(takeKept(show, 'tarn', [], [], newId)).toBeNull();
  });
});
