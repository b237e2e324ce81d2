/** An action of a view, by the name of the button that does it there. */
export interface ViewAction {
  /** As the button is called; it is that button that is pressed, so that what may be done is decided in one place. */
  readonly name: string;
  readonly view: string;
  /** Address of the view, below that of the show. */
  readonly path: string;
  /** Other words under which one would look for it. */
  readonly also?: string;
}

const of = (
  view: string,
  path: string,
  names: readonly (string | readonly [name: string, also: string])[],
): ViewAction[] =>
  names.map((n) => (typeof n === 'string' ? { name: n, view, path } : { name: n[0], view, path, also: n[1] }));

/** What can be done in each view that does not hang on what is chosen there. Buttons of the view in sight are found besides. */
export const VIEW_ACTIONS: readonly ViewAction[] = [
  ...of('Set', 'set', [
    ['Add a song', 'new song'],
    ['Song from a MIDI file', 'import midi'],
    ['Break', 'pause interval'],
    ['Note', 'remark between songs'],
  ]),
  ...of('Show', 'set/show', [['Export show', 'save file json zip backup']]),
  ...of('Rig', 'rig', [
    ['Add a unit', 'new unit modeler effect amplifier lights'],
    ['Add a port', 'new cable'],
  ]),
  ...of('Reactions', 'rig/reactions', [['Add a reaction', 'trigger learn pedal key']]),
  ...of('Patch sheet', 'rig/patch', [['Print the patch sheet', 'wiring paper']]),
  ...of('Map', 'map', [
    ['Import list', 'preset names paste csv reorder'],
    ['Fill a run', 'names series'],
    ['Walk', 'audition one after the other'],
  ]),
  ...of('Controls', 'map/-/controls', [
    ['Add a control', 'number switch expression tap'],
    ['Learn', 'listen controller midi'],
    ['Teach', 'send repeatedly'],
  ]),
  ...of('Shared control numbers', 'map/house', [['Add a shared control number', 'same control number everywhere']]),
  ...of('Tones', 'tones', [
    ['New tone', 'sound add'],
    ['Capture the rig', 'tone from what is on'],
    ['Tones of a unit …', 'one tone for each preset'],
  ]),
  ...of('Moves', 'tones/moves', [['New move', 'tuner looper taps add']]),
  ...of('Chart', 'chart', [['Sweep …', 'curve pedal line wave']]),
  ...of('Proposal', 'feet/-/proposal', [['Use these pages', 'foot controller: propose pages']]),
  ...of('Labels', 'feet/-/labels', [['Print the strips', 'switch labels tape paper']]),
  ...of('Mix', 'set/mix', [['Print the mix sheet', 'ears outputs paper']]),
  ...of('Screens', 'set/screens', [
    ['Share the stage', 'tablet phone other screens'],
    ['Open for a stand-in player', 'lock stage only'],
  ]),
  ...of('Paper', 'files', [
    ['PDF', 'cue sheet number chart set list fall-back songs by foot paper'],
    ['Print', 'cue sheet number chart set list paper'],
    ['Table (CSV)', 'spreadsheet export sheet'],
  ]),
  ...of('Export', 'files/export', [
    ['Export MIDI file', 'smf sequencer'],
    ['Export table', 'csv spreadsheet cues tones'],
    ['Export name document', 'midnam patch names'],
  ]),
  ...of('Import', 'files/import', [['Choose a file', 'open part show midi csv table']]),
  ...of('Versions and storage', 'files/versions', [['Save a version', 'version state snapshot backup']]),
];

/** Parts of views that have an address of their own, besides the views themselves. */
export const PLACES: readonly (readonly [name: string, path: string, also?: string])[] = [
  ['Rig: Ports', 'rig/ports', 'midi interface real'],
  ['Rig: Reactions', 'rig/reactions', 'trigger'],
  ['Rig: Patch sheet', 'rig/patch', 'wiring cables'],
  ['Rig: Players', 'rig/players', 'musicians'],
  ['Rig: Monitor', 'rig/monitor', 'messages bytes'],
  ['Map: Controls', 'map/-/controls', 'numbers encodings'],
  ['Map: Address plan', 'map/-/plan', 'labels banks programs'],
  ['Map: Timing and behaviour', 'map/-/unit', 'recall settle firmware'],
  ['Map: Relay rules', 'map/-/relays', 'stored states'],
  ['Map: Shared control numbers', 'map/house'],
  ['Tones: Moves', 'tones/moves'],
  ['Set: Show', 'set/show', 'title players who plays what'],
  ['Set: Mix', 'set/mix', 'levels outputs ears'],
  ['Set: Tonight', 'set/tonight', 'missing spare off'],
  ['Set: Screens', 'set/screens', 'share tablet stand-in'],
  ['Feet: Proposal', 'feet/-/proposal'],
  ['Feet: Without computer', 'feet/-/without', 'emergency wiring without computer'],
  ['Feet: Transfer', 'feet/-/transfer', 'dump exclusive'],
  ['Feet: Labels', 'feet/-/labels', 'strips'],
  ['Feet: Controller', 'feet/-/controller'],
  ['Files: Export', 'files/export'],
  ['Files: Import', 'files/import'],
  ['Files: Versions and storage', 'files/versions', 'compare go back'],
];
