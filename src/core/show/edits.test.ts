import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { applyEdit, invertEdit, readPath, type Edit, type Path } from './edits';
import { MIGRATIONS, migrate, type Migration } from './migrations';
import { SHOW_VERSION, type Show } from './schema';
import { runs } from '../testing/runs';

const show = demoShow();

/** Lists of the demo show that edits can reach. */
const LISTS: readonly Path[] = [
  ['units'],
  ['tones'],
  ['songs'],
  ['sets', { id: 'residency' }, 'entries'],
  ['units', { id: 'quillback' }, 'slots'],
  ['tones', { id: 'fog-lead' }, 'parts'],
  ['songs', { id: 'fog-bell' }, 'cues'],
];
const VALUES: readonly Path[] = [
  ['title'],
  ['units', { id: 'marram' }, 'channel'],
  ['tones', { id: 'undertow' }, 'name'],
  ['songs', { id: 'rope-ledger' }, 'cues', { id: 'rope-ledger-cue-2' }, 'at'],
];

const edit: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .record({ path: fc.constantFrom(...VALUES), after: fc.oneof(fc.string(), fc.integer()) })
    .map(({ path, after }): Edit => ({ kind: 'set', path, before: readPath(show, path), after })),
  fc.record({ path: fc.constantFrom(...LISTS), place: fc.nat(), id: fc.uuid() }).map(({ path, place, id }): Edit => {
    const { length } = readPath(show, path) as unknown[];
    return { kind: 'insert', path, index: place % (length + 1), value: { id } };
  }),
  fc.record({ path: fc.constantFrom(...LISTS), place: fc.nat() }).map(({ path, place }): Edit => {
    const list = readPath(show, path) as unknown[];
    const index = place % list.length;
    return { kind: 'remove', path, index, value: list[index] };
  }),
  fc.record({ path: fc.constantFrom(...LISTS), from: fc.nat(), to: fc.nat() }).map(({ path, from, to }): Edit => {
    const { length } = readPath(show, path) as unknown[];
    return { kind: 'move', path, from: from % length, to: to % length };
  }),
);

describe('edits', () => {
  it('apply, then invert, gives back the original', () => {
    fc.assert(
      fc.property(edit, (e) => {
        const after = applyEdit(show, e);
        expect(applyEdit(after, invertEdit(e))).toEqual(show);
      }),
      runs(41, 400),
    );
  });

  it('groups undo from the last to the first', () => {
    const group: Edit = {
      kind: 'group',
      edits: [
        { kind: 'insert', path: ['tones'], index: 0, value: { id: 'new', name: 'a' } },
        { kind: 'set', path: ['tones', { id: 'new' }, 'name'], before: 'a', after: 'b' },
      ],
    };
    const after = applyEdit(show, group);
    expect(after.tones[0]).toEqual({ id: 'new', name: 'b' });
    expect(applyEdit(after, invertEdit(group))).toEqual(show);
  });

  it('leaves alone what it does not touch', () => {
    const after = applyEdit<Show>(show, {
      kind: 'set',
      path: ['tones', { id: 'undertow' }, 'name'],
      before: 'Undertow',
      after: 'Rip',
    });
    expect(after.songs).toBe(show.songs);
    expect(after.units).toBe(show.units);
    expect(after.tones[0]).toBe(show.tones[0]);
    expect(after.tones).not.toBe(show.tones);
  });

  it('throws where a path leads nowhere', () => {
    expect(() =>
      applyEdit(show, { kind: 'set', path: ['tones', { id: 'none' }, 'name'], before: 1, after: 2 }),
    ).toThrow('tones/#none/name');
    expect(() => applyEdit(show, { kind: 'set', path: ['nothing'], before: 1, after: 2 })).toThrow('nothing');
    expect(() => applyEdit(show, { kind: 'remove', path: ['title'], index: 0, value: 2 })).toThrow('title');
  });
});

describe('migrations', () => {
  const steps: readonly Migration[] = [
    { from: 1, name: 'title to name', up: ({ title, ...rest }) => ({ ...rest, name: title }) },
    { from: 2, name: 'name to list', up: ({ name, ...rest }) => ({ ...rest, names: [name] }) },
  ];

  it('run in order, each on the answer of the one before', () => {
    expect(migrate({ version: 1, title: 'x' }, steps, 3)).toEqual({ ok: true, data: { version: 3, names: ['x'] } });
    expect(migrate({ version: 3, names: [] }, steps, 3)).toEqual({ ok: true, data: { version: 3, names: [] } });
  });

  it('refuse a newer show by name, and a version that is none', () => {
    expect(migrate({ version: 4 }, steps, 3)).toMatchObject({
      ok: false,
      problem: { code: 'show.newer', data: { version: 4, known: 3 } },
    });
    for (const version of [undefined, '1', 0, 1.5, null]) {
      expect(migrate({ version }, steps, 3)).toMatchObject({ ok: false, problem: { code: 'show.version' } });
    }
  });

  it('throw when one is missing', () => {
    expect(() => migrate({ version: 1 }, steps.slice(1), 3)).toThrow('version 1');
  });

  it('lead from version 1 to the present one without gaps', () => {
    expect(MIGRATIONS.map((m) => m.from)).toEqual(Array.from({ length: SHOW_VERSION - 1 }, (_, i) => i + 1));
  });
});
