import { boatShow, pageReactions, switchSends } from '../../feet';
import { routeTo } from '../../meaning';
import { applyEdit, changeFeet, indexShow, setPortField, type Edit, type Show } from '../../show';
import { tonightOf } from '../../tonight';
import { channelShared } from '../channelShared';
import { channelDiffers } from '../channelDiffers';
import { finding, type Check, type Finding } from '../finding';
import { inFeet, programmed, type Programmed } from './controllers';

/** A unit that pages call and that no cable of the emergency wiring leads to. */
export const boatUnreached: Check = (show) =>
  programmed(show).flatMap((own) => {
    const { unit, controller, pages } = own;
    const missing = new Set<string>();
    for (const page of pages) {
      for (const { id } of controller.switches) {
        for (const w of switchSends(show, unit.id, page.id, id).wrong) {
          if (w.what === 'unreached') for (const one of w.units) missing.add(one);
        }
      }
    }
    return [...missing].map((id) => {
      const data = { controller: unit.name, unit: indexShow(show).units.get(id)?.name ?? id };
      return finding('feet.boat-unreached', 'warning', inFeet(unit.id, null), data, plugIn(show, own, id));
    });
  });

/** Plugs a unit in behind the last one of the chain; null where that does not reach it either. */
function plugIn(show: Show, { unit, feet }: Programmed, id: string): Edit | null {
  const last = feet.boat.at(-1)?.id ?? unit.id;
  const fix = changeFeet(show, unit.id, (f) => ({
    ...f,
    boat: [...f.boat.filter((b) => b.id !== id), { id, from: last }],
  }));
  const boat = fix && boatShow(applyEdit(show, fix), unit.id);
  const plugged = boat && indexShow(boat).units.get(id);
  return boat && plugged && routeTo(boat, plugged) ? fix : null;
}

/** Units that share a cable only when the computer is gone, and receive each other's messages then. */
export const boatShared: Check = (show) =>
  programmed(show).flatMap(({ unit, feet }): Finding[] => {
    if (feet.boat.length === 0) return [];
    const now = new Set([...channelShared(show), ...channelDiffers(show)].map((f) => JSON.stringify(f.data)));
    return channelShared(tonightOf(boatShow(show, unit.id))).flatMap((f) => {
      if (f.code !== 'rig.channel-shared' || now.has(JSON.stringify(f.data))) return [];
      return [finding('feet.boat-shared', 'warning', inFeet(unit.id, null), { controller: unit.name, ...f.data })];
    });
  });

/** A port that passes on what a controller sends, whose switches the computer hears as well: all is done twice. */
export const boatPassedOn: Check = (show) =>
  programmed(show).flatMap(({ unit, feet }) => {
    const port = unit.returns && indexShow(show).ports.get(unit.returns.portId);
    const heard = pageReactions(show).some((r) => r.hears.portId === port?.id);
    if (!port?.softThru || !heard || feet.boat.length === 0) return [];
    const fix = setPortField(show, port.id, 'softThru', false);
    return [
      finding('feet.passed-on', 'warning', inFeet(unit.id, null), { controller: unit.name, port: port.name }, fix),
    ];
  });
