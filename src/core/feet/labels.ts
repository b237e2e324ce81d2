import { feetOf, indexShow, type Show } from '../show';
import { entryOn, shownName, switchTitle } from './switchSends';

/** What stands at one switch of a page. */
export interface SwitchLabel {
  readonly switchId: string;
  readonly row: number;
  readonly column: number;
  /** As it was named, and as the display shows it. */
  readonly name: string;
  readonly shown: string;
  /** Another switch of the page shows the same for something else. */
  readonly clash: boolean;
}

/** The labels of a page's switches, in reading order. Empty where the unit is no foot controller. */
export function labelsOf(show: Show, unitId: string, pageId: string): readonly SwitchLabel[] {
  const controller = indexShow(show).units.get(unitId)?.profile.controller;
  if (!controller) return [];
  const feet = feetOf(show, unitId);
  const page = feet.pages.find((p) => p.id === pageId) ?? null;
  const labels = controller.switches
    .toSorted((a, b) => a.row - b.row || a.column - b.column)
    .map(({ id, row, column }) => {
      const entry = entryOn(feet, page, id);
      const name = entry ? switchTitle(show, entry) : '';
      return { switchId: id, row, column, name, shown: shownName(name, controller.display) };
    });
  return labels.map((label) => ({
    ...label,
    clash: label.shown !== '' && labels.some((l) => l !== label && l.shown === label.shown && l.name !== label.name),
  }));
}
