import { editPlaces, type EditPlace, type Show } from '../../core/show';
import { editPlaceWords } from '../../wording';
import { doc, redo, say, undo } from './wiring';
import { useApp, type Done } from './store';

/** Whether the view at an address shows what an edit is about. */
function inSight(path: string, { list, id }: EditPlace): boolean {
  const [, , , view = '', what = ''] = path.split('/');
  if (id === null) return view === 'set';
  switch (list) {
    case 'songs':
      return (view === 'chart' && what === id) || (view === 'set' && what === '');
    case 'tones':
      return view === 'tones' && (what === '' || what === id);
    case 'moves':
      return view === 'tones' && what === 'moves';
    case 'units':
      return view === 'rig' || ((view === 'map' || view === 'feet') && what === id);
    case 'sets':
      return view === 'set';
    default:
      return view === 'rig';
  }
}

/** Says what was done behind one's back: an edit of which the view shows nothing. */
function tell(how: string, { edit, label }: Done, before: Show): void {
  const path = window.location.pathname;
  const places = editPlaces(edit);
  if (places.some((p) => inSight(path, p))) return;
  const now = doc.show();
  const where = places.map((p) => editPlaceWords(p, [now, before])).find((words) => words !== '');
  say(`${how}: ${label}${where === undefined ? '' : `, in ${where}`}.`);
}

/** Takes the last edit back; where the view does not show it, what and where is said. */
export function takeBack(): void {
  const { show: before, past } = useApp.getState().open ?? {};
  const last = past?.at(-1);
  undo();
  if (before && last && doc.show() !== before) tell('Taken back', last, before);
}

/** Does again what was taken back last, and says so likewise. */
export function doAgain(): void {
  const { show: before, future } = useApp.getState().open ?? {};
  const next = future?.[0];
  redo();
  if (before && next && doc.show() !== before) tell('Done again', next, before);
}
