import { shownName, switchSends, type SwitchWrong } from '../../feet';
import { changeFeet, indexShow, putFootSwitches, type FootSwitch, type Show } from '../../show';
import { finding, type Check, type Finding } from '../finding';
import { inFeet, onFloor, programmed, type Programmed } from './controllers';

/** What switches are asked to do and their controller cannot, or what comes to nothing. */
export const switchesHold: Check = (show) =>
  programmed(show).flatMap((own) => {
    const { controller, pages, feet } = own;
    const everywhere = new Set(feet.everywhere.switches.map((s) => s.id));
    return pages.flatMap((page, nth) =>
      controller.switches.flatMap(({ id }): Finding[] => {
        const { entry, wrong } = switchSends(show, own.unit.id, page.id, id);
        // What stands on every page is told once.
        const shared = everywhere.has(id) && !page.switches.some((s) => s.id === id);
        if (!entry || (shared && nth > 0)) return [];
        return wrong.flatMap((w) => relayed(show, own, shared ? null : page.id, entry, w));
      }),
    );
  });

function relayed(
  show: Show,
  { unit, controller }: Programmed,
  pageId: string | null,
  entry: FootSwitch,
  w: SwitchWrong,
): Finding[] {
  const place = inFeet(unit.id, pageId, entry.id);
  const at = onFloor(show, unit, pageId, entry.id);
  const put = (after: FootSwitch) => putFootSwitches(show, unit.id, pageId, [after]);
  switch (w.what) {
    case 'full':
      return [finding('feet.full', 'error', place, { ...at, kind: w.kind, wants: w.wants, holds: w.holds })];
    case 'trigger': {
      const without = { ...entry, doings: entry.doings.filter((d) => d.on !== w.trigger) };
      return [finding('feet.trigger', 'error', place, { ...at, trigger: w.trigger }, put(without))];
    }
    case 'jump':
      return [finding('feet.jump', 'error', place, { ...at, together: w.together })];
    case 'jump-lost':
      return [finding('feet.jump-lost', 'error', place, at)];
    case 'jump-here': {
      const stays = entry.doings.filter(
        (d) => d.does.kind !== 'page' || typeof d.does.to === 'string' || d.does.to.pageId !== pageId,
      );
      return [finding('feet.jump-here', 'warning', place, at, put({ ...entry, doings: stays }))];
    }
    case 'name-long':
    case 'name-letters': {
      const shown = shownName(w.name, controller.display);
      const fix = put({ ...entry, name: shown });
      return [finding('feet.name', 'note', place, { ...at, name: w.name, shown }, fix)];
    }
    case 'no-call':
      return [finding('feet.no-call', 'warning', place, { ...at, trigger: w.trigger })];
    case 'silent':
      return [finding('feet.silent', 'warning', place, at, put({ ...entry, doings: [], name: '', pinned: false }))];
    case 'unheard': {
      const fix = changeFeet(show, unit.id, (f) => ({ ...f, calls: true }));
      return [finding('feet.unheard', 'warning', place, at, fix)];
    }
    case 'unknown':
      return w.controls.map((key) => {
        const [unitId, controlId] = key.split('/');
        const other = indexShow(show).units.get(unitId!);
        const control = other?.profile.controls.find((c) => c.id === controlId)?.name ?? '';
        return finding('feet.flip-unknown', 'warning', place, { ...at, unit: other?.name ?? '', control });
      });
    // Told by unit, for the whole controller.
    case 'unreached':
      return [];
  }
}
