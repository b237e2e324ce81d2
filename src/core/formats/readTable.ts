import type { MadeNames } from '../cells';
import type { Read } from '../problems';
import { applyEdit, indexShow, nameSlots, type Show } from '../show';
import { readControlTable, readCueTable, readSetTable, readToneTable, type TableKind } from './csv';
import { readPresetList } from './preset-list';

/**
 * The show with a table in it. `id` is the song of cues, or the unit of controls and presets. What the table does not
 * name stays; cues and the running order are replaced. `made`: what is done with names that a spreadsheet seems to have
 * changed.
 */
export function readTable(
  show: Show,
  kind: TableKind,
  id: string,
  text: string,
  newId: () => string,
  made: MadeNames = 'ask',
): Read<Show> {
  switch (kind) {
    case 'cues':
      return readCueTable(show, id, text, newId, made);
    case 'set':
      return readSetTable(show, text, newId, made);
    case 'tones':
      return readToneTable(show, text, newId, made);
    case 'controls':
      return readControlTable(show, id, text, newId, made);
    case 'presets': {
      const unit = indexShow(show).units.get(id)!;
      const { slots, profile } = unit;
      const options = { plan: profile.plan, unit: unit.name, slots, first: 0, made };
      const { value, problems } = readPresetList(text, options);
      if (!value) return { value: undefined, problems };
      const edit = nameSlots(show, id, value, newId);
      return { value: edit ? applyEdit(show, edit) : show, problems };
    }
  }
}
