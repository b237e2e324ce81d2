import { each } from './each';
import type { Migration } from './migration';

/**
 * A 5-pin socket takes one cable: where several are drawn, a splitter has to be there. In shows
 * from before nobody could say so, so none is assumed. What an accepted finding said is kept as `says`.
 */
export const splitters: Migration = {
  from: 4,
  name: 'splitters',
  up: (show) => ({
    ...show,
    ports: each(show.ports, (p) => ({ ...p, splitter: false })),
    units: each(show.units, (u) => ({ ...u, splitter: false })),
    accepted: each(show.accepted, ({ print, ...rest }) => ({ ...rest, says: print })),
  }),
};
