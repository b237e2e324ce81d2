/** Keys, and what they do. */
export type Keys = readonly (readonly [keys: string, what: string])[];

export const EVERYWHERE: Keys = [
  ['Ctrl K', 'find an action, or where to go'],
  ['Ctrl Z · Ctrl Shift Z', 'undo, redo'],
  ['Alt 1 … Alt 9', 'Set, Rig, Map, Tones, Chart, Dry run, Feet, Stage, Files'],
  ['Space', 'play, stop, where nothing else takes it'],
  ['Alt P', 'play, stop, also while one types'],
  ['F6 · Shift F6', 'to the next region: view, transport, views, head'],
  ['Tab · Shift Tab', 'to the next and the last thing that can be worked'],
  ['Escape', 'close what is open; leave a field for the sheet, chart or floor'],
  ['?', 'the keys of the view'],
];

const CHART: Keys = [
  ['B', 'to the bar field; Enter goes on to the tone and places it'],
  ['17 7/8 · 9 Chorus', 'in the bar field: a line of the structure, Enter writes it'],
  ['← → ↑ ↓', 'move the caret by the snap, or by a line'],
  ['Home · End', 'to the start or end of the line, with Ctrl of the song'],
  ['Space', 'play from the caret, stop'],
  ['1 … 9', 'place a core tone at the caret'],
  ['letters and figures', 'on a chosen cue: what is typed takes its place'],
  ['+ −', 'on a chosen cue: step the value it sets; Page keys by ten'],
  ['Alt ← →', 'move the chosen cues'],
  ['Delete', 'remove the chosen cues'],
  ['Shift or Ctrl and a click', 'choose several'],
  ['Ctrl A · Ctrl C · Ctrl X · Ctrl V', 'choose all, copy, cut, paste at the caret'],
];

const MAP: Keys = [
  ['letters', 'name the chosen slot; Enter goes on to the next'],
  ['← → ↑ ↓', 'choose a slot; with Shift reach, with Alt move what is chosen'],
  ['Space', 'send the chosen slot'],
  ['Delete', 'clear the name'],
  ['Ctrl C · Ctrl V', 'copy names, paste a column'],
];

const TONES: Keys = [
  ['← → ↑ ↓', 'move in the sheet'],
  ['Enter', 'edit the cell'],
  ['Space', 'send the cell'],
  ['Delete', 'leave the unit out of the tone'],
  ['Ctrl C · Ctrl V', 'copy a cell to another tone'],
];

const FEET: Keys = [
  ['← → ↑ ↓', 'go from switch to switch; with Shift take more'],
  ['letters', 'put a tone, a move or a page on the switch by its name'],
  ['Enter', 'to what the switch does'],
  ['Space', 'send what the switch sends'],
  ['Delete', 'clear the chosen switches'],
  ['Ctrl C · Ctrl V', 'copy switches, paste them from the chosen one on'],
];

const SET: Keys = [
  ['↑ ↓', 'choose an entry'],
  ['Alt ↑ ↓', 'move it in the running order'],
  ['Enter', 'its song, what follows and what starts it, beside the list'],
];

const STAGE: Keys = [
  ['← →', 'previous and next change'],
  ['Page Up · Page Down', 'previous and next song'],
  ['Shift Page Up · Shift Page Down', 'choose which song comes next; what is on stays'],
  ['Escape', 'stop'],
];

const LISTS: Keys = [
  ['↑ ↓', 'choose in a list'],
  ['Enter', 'open what is chosen'],
];

const VIEWS: readonly (readonly [path: string, view: string, keys: Keys])[] = [
  ['chart', 'Chart', CHART],
  ['map', 'Map', MAP],
  ['tones', 'Tones', TONES],
  ['feet', 'Feet', FEET],
  ['set', 'Set', SET],
  ['stage', 'Stage', STAGE],
  ['dry-run', 'Dry run', LISTS],
  ['rig', 'Rig', []],
  ['files', 'Files', []],
];

/** The keys of the view at an address; of views that are worked with Tab and Enter alone there are none of its own. */
export function keysOf(path: string): { readonly view: string; readonly keys: Keys } {
  const [, , , place = ''] = path.split('/');
  const found = VIEWS.find(([own]) => own === place);
  return found ? { view: found[1], keys: found[2] } : { view: '', keys: [] };
}
