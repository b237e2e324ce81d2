import { each, isData, type Data } from './each';
import type { Migration } from './migration';

/** A control of version 1 has no names for its options and no shared control number; its scale has no table. */
const encoding = (e: unknown): unknown => (isData(e) && e.kind === 'continuous' ? { ...e, points: [] } : e);

const profile = (p: Data): Data => ({
  ...p,
  variants: isData(p.variants) ? { ...p.variants, encoding: encoding(p.variants.encoding) } : p.variants,
  controls: each(p.controls, (c) => ({ ...c, encoding: encoding(c.encoding), options: [], houseId: null })),
  effects: [],
  engage: null,
  panel: [],
  senders: [],
});

const unit = (u: Data): Data => ({
  ...u,
  returns: null,
  spare: '',
  profile: isData(u.profile) ? profile(u.profile) : u.profile,
  versions: [],
  slots: each(u.slots, (s) => ({ ...s, startControls: [], panel: [] })),
  lostSlots: [],
});

/** Room for the whole number map: every encoding, effects, stored states, both ends of cables, shared control numbers. */
export const wholeMap: Migration = {
  from: 1,
  name: 'the whole number map',
  up: (show) => ({
    ...show,
    ports: each(show.ports, (p) => ({ ...p, softThru: false, spare: '' })),
    units: each(show.units, unit),
    house: [],
    tones: each(show.tones, (t) => ({ ...t, parts: each(t.parts, (p) => ({ ...p, effects: [] })) })),
  }),
};
