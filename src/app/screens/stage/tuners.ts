import { isOnOff, type Control } from '../../../core/addressing';
import type { Show, Unit } from '../../../core/show';

export interface Tuner {
  readonly unit: Unit;
  readonly control: Control;
}

/** Tuners of a player's units, or of all: each unit's first control that is on or off and has "tuner" in its name. */
export const tunersOf = (show: Show, playerId: string | null): readonly Tuner[] =>
  show.units
    .filter((u) => playerId === null || u.playerId === playerId)
    .flatMap((unit) => {
      const control = unit.profile.controls.find((c) => /\btuner\b/i.test(c.name) && isOnOff(c.encoding));
      return control ? [{ unit, control }] : [];
    });
