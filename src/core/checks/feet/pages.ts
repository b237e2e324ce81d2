import { slotCount } from '../../addressing';
import { labelsOf, pedalOn, storedPedal } from '../../feet';
import { indexShow, pageTitle, putFootPedal, type FootPedal, type Reaction, type Show } from '../../show';
import { finding, type Check, type Finding } from '../finding';
import { inFeet, onFloor, programmed } from './controllers';

/** Pages that their controller has no place for. */
export const pagesFit: Check = (show) =>
  programmed(show).flatMap(({ unit, pages }) => {
    const slots = indexShow(show).slots(unit.id);
    const room = slotCount(unit.profile.plan);
    return pages
      .filter((p) => (slots.get(p.id)?.index ?? room) >= room)
      .map((p) =>
        finding('feet.page-lost', 'error', inFeet(unit.id, p.id), {
          controller: unit.name,
          page: pageTitle(show, unit.id, p.id) || p.id,
          pages: room,
        }),
      );
  });

/** Two switches of a page whose displays show the same for different things. */
export const labelsDiffer: Check = (show) =>
  programmed(show).flatMap(({ unit, pages }) =>
    pages.flatMap((page) => {
      const clashes = labelsOf(show, unit.id, page.id).filter((l) => l.clash);
      const shown = new Set(clashes.map((l) => l.shown));
      return [...shown].map((text) => {
        const own = clashes.filter((l) => l.shown === text);
        const data = { ...onFloor(show, unit, page.id, own[0]!.switchId), shown: text, names: own.map((l) => l.name) };
        return finding('feet.label-clash', 'note', inFeet(unit.id, page.id, own[0]!.switchId), data);
      });
    }),
  );

const moves = (r: Reaction, channel: number, number: number, portId: string): boolean =>
  r.on &&
  r.hears.kind === 'control' &&
  (r.hears.portId === null || r.hears.portId === portId) &&
  (r.hears.channel === null || r.hears.channel === channel) &&
  (r.hears.number === null || r.hears.number === number);

/** Whether a reaction moves just the control that a pedal moves. */
const sameTarget = ({ does }: Reaction, pedal: FootPedal): boolean =>
  pedal.does.kind === 'control' &&
  'unitId' in does &&
  does.unitId === pedal.does.unitId &&
  does.controlId === pedal.does.controlId;

/** Expression inputs that mean two things at once: two that send the same, or one that a reaction makes something else of. */
export const pedalsMeanOne: Check = (show) =>
  programmed(show).flatMap(({ unit, controller, feet, pages }) => {
    const found = new Map<string, Finding>();
    for (const page of pages) {
      const sent = new Map<string, string>();
      for (const id of controller.pedals) {
        const pedal = pedalOn(feet, page, id);
        const stored = storedPedal(show, pedal);
        const own = page.pedals.some((p) => p.id === id);
        const place = inFeet(unit.id, own ? page.id : null, id);
        const at = onFloor(show, unit, own ? page.id : null, id);
        if (pedal && !stored) {
          const fix = putFootPedal(show, unit.id, own ? page.id : null, id, null);
          found.set(`${at.page}/${id}`, finding('feet.pedal-control', 'error', place, at, fix));
        }
        if (!pedal || !stored) continue;
        const key = `${stored.channel}/${stored.number}`;
        const other = sent.get(key);
        if (other !== undefined) {
          const data = { ...at, other: senderName(show, unit.id, other), number: stored.number };
          found.set(`${at.page}/${id}`, finding('feet.pedal-twice', 'warning', place, data));
        } else sent.set(key, id);
        const at2 = unit.returns?.portId;
        const reaction = show.reactions.findIndex(
          (r) => at2 !== undefined && moves(r, stored.channel, stored.number, at2) && !sameTarget(r, pedal),
        );
        if (reaction >= 0) {
          const data = { ...at, reaction: reaction + 1 };
          found.set(`${at.page}/${id}`, finding('feet.pedal-reacted', 'warning', place, data));
        }
      }
    }
    return [...found.values()];
  });

const senderName = (show: Show, unitId: string, id: string): string =>
  indexShow(show)
    .units.get(unitId)
    ?.profile.senders.find((s) => s.id === id)?.name ?? id;
