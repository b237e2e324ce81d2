import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import type { SheetTable } from '../sheets';
import { paperOf } from '../testing/sheets';
import { applyEdit, indexShow, setTonight, setUnitField, type Show, type Tonight } from '../show';
import { tonightOf } from '../tonight';
import { checkRig } from './checkRig';

const demo = demoShow();
const units = indexShow(demo).units;

const as = (how: Tonight, show: Show = demo): Show => applyEdit(show, setTonight(show, how.unitId, how)!);

/** Another unit on the port of one, or undefined. */
const neighbourOf = (unitId: string) => {
  const { input } = units.get(unitId)!;
  return demo.units.find(
    (u) => u.id !== unitId && input?.from === 'port' && u.input?.from === 'port' && u.input.portId === input.portId,
  );
};

const [unit, neighbour] = demo.units.flatMap((u) => {
  const other = neighbourOf(u.id);
  return other ? [[u, other] as const] : [];
})[0]!;

const cables = (show: Show): readonly (readonly string[])[] =>
  paperOf(show, 'patch')[0]!.parts.filter((p): p is SheetTable => p.kind === 'table')[0]!.rows;

describe('a spare on the channel of its neighbour', () => {
  const show = as({ how: 'spare', unitId: unit.id, channel: neighbour.channel, firmware: '' });

  it('is found', () => {
    expect(checkRig(tonightOf(demo))).toEqual([]);
    const found = checkRig(tonightOf(show)).find((f) => f.code === 'rig.channel-shared');
    expect([found?.data]).toEqual([expect.objectContaining({ channel: neighbour.channel })]);
  });

  it('stands on the patch sheet with the channel that it has tonight', () => {
    const channelOf = (of: Show): string | undefined => cables(of).find((row) => row[3] === unit.name)?.[5];
    expect(channelOf(demo)).toBe(String(unit.channel));
    expect(channelOf(show)).toBe(String(neighbour.channel));
    expect(paperOf(show, 'patch')[0]!.about).toContain(
      `Replaced by a spare tonight: ${unit.name} (channel ${neighbour.channel}).`,
    );
  });
});

describe('a unit that is off', () => {
  const show = as({ how: 'off', unitId: unit.id });

  it('is not said to have no cable, and stands on the patch sheet as off', () => {
    expect(checkRig(tonightOf(show)).filter((f) => f.code === 'rig.no-port')).toEqual([]);
    expect(cables(show).some((row) => row[3] === unit.name)).toBe(false);
    expect(paperOf(show, 'patch')[0]!.about).toContain(`Off tonight: ${unit.name}.`);
  });
});

describe('a fix on a night on which units differ', () => {
  // Its map is on another channel than it is sent to: a fault of the show as it is written.
  const odd = (id: string): Show => {
    const { channel } = units.get(id)!;
    return applyEdit(demo, setUnitField(demo, id, 'listens', channel === 16 ? 15 : ((channel + 8) % 16) + 1)!);
  };

  it('is offered where it mends the show as it is written', () => {
    const show = as({ how: 'off', unitId: neighbour.id }, odd(unit.id));
    const found = checkRig(tonightOf(show)).find((f) => f.code === 'rig.channel-differs')!;
    expect(found.fix).not.toBeNull();
    const mended = applyEdit(show, found.fix!);
    expect(checkRig(tonightOf(mended)).some((f) => f.code === 'rig.channel-differs')).toBe(false);
  });

  it('is not offered where it would change what the unit’s own part of the show says, and not the night', () => {
    // Tonight’s spare is on the right channel: there is nothing to mend, though the written unit is wrong.
    const show = as({ how: 'spare', unitId: unit.id, channel: 9, firmware: '' }, odd(unit.id));
    expect(checkRig(tonightOf(show)).filter((f) => f.code === 'rig.channel-differs')).toEqual([]);
  });

  it('never loses what belongs to a unit that is off', () => {
    for (const off of demo.units) {
      const show = as({ how: 'off', unitId: off.id });
      for (const { fix } of checkRig(tonightOf(show))) {
        if (!fix) continue;
        const after = applyEdit(show, fix);
        const kept = (s: Show): number => s.tones.flatMap((t) => t.parts).filter((p) => p.unitId === off.id).length;
        expect(kept(after)).toBe(kept(show));
      }
    }
  });
});
