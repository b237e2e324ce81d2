import type { Controller } from '../../addressing';
import { feetOf, indexShow, pageTitle, pagesOf, type Feet, type FootPage, type Show, type Unit } from '../../show';
import type { FindingPlace } from '../finding';

/** A foot controller into which something is programmed. */
export interface Programmed {
  readonly unit: Unit;
  readonly controller: Controller;
  readonly feet: Feet;
  readonly pages: readonly FootPage[];
}

/** All foot controllers of a show that have something programmed, in the order of the show. */
export const programmed = (show: Show): readonly Programmed[] =>
  show.feet.flatMap(({ id }) => {
    const unit = indexShow(show).units.get(id);
    const controller = unit?.profile.controller;
    return unit && controller ? [{ unit, controller, feet: feetOf(show, id), pages: pagesOf(show, id) }] : [];
  });

/** Where on a controller something is, in words: which, which page, which switch or pedal. */
export interface OnFloor {
  readonly controller: string;
  readonly page: string;
  readonly switch: string;
}

/** The place of a switch or pedal in words, as findings name it. `pageId` is null for what is on every page. */
export const onFloor = (show: Show, { profile, id, name }: Unit, pageId: string | null, senderId: string): OnFloor => ({
  controller: name,
  page: pageId === null ? 'every page' : pageTitle(show, id, pageId),
  switch: profile.senders.find((s) => s.id === senderId)?.name ?? senderId,
});

/** The place of a finding in the view of foot controllers; without `senderId` the whole page. */
export const inFeet = (unitId: string, pageId: string | null, senderId?: string): FindingPlace => ({
  in: 'feet',
  unitId,
  pageId,
  ...(senderId === undefined ? {} : { senderId }),
});
