/** The views of a show, in the order of the work, with the digit that leads there. A show opens on the first. */
export const VIEWS = [
  { path: 'set', name: 'Set', key: '1' },
  { path: 'rig', name: 'Rig', key: '2' },
  { path: 'map', name: 'Map', key: '3' },
  { path: 'tones', name: 'Tones', key: '4' },
  { path: 'chart', name: 'Chart', key: '5' },
  { path: 'dry-run', name: 'Dry run', key: '6' },
  { path: 'feet', name: 'Feet', key: '7' },
  { path: 'stage', name: 'Stage', key: '8' },
  { path: 'files', name: 'Files', key: '9' },
] as const;

/** Where a view is. */
export const pathOf = (base: string, path: string): string => `${base}/${path}`;
