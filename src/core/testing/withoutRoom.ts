import { exactly, type Profile, type Time } from '../addressing';
import type { Show } from '../show';

const fixed = ({ typical }: Time): Time => exactly(typical);

const steady = (profile: Profile): Profile => {
  const { recall, settle, variant, control, thru } = profile.times;
  const times = {
    recall: fixed(recall),
    settle: fixed(settle),
    variant: fixed(variant),
    control: fixed(control),
    thru: fixed(thru),
  };
  return { ...profile, times };
};

/** A show in which every time is what it typically is, of every preset, and nothing is kept free around changes. */
export const withoutRoom = (show: Show): Show => ({
  ...show,
  margin: 0,
  guard: 0,
  ports: show.ports.map((port) => ({ ...port, delay: fixed(port.delay) })),
  units: show.units.map((unit) => ({
    ...unit,
    margin: null,
    guard: null,
    profile: steady(unit.profile),
    slots: unit.slots.map((slot) => ({ ...slot, recall: null })),
  })),
});
