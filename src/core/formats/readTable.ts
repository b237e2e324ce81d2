import type { Read } from '../problems';
import { applyEdit, indexShow, nameSlots, type Show } from '../show';
import { readControlTable, readCueTable, readSetTable, readToneTable, type TableKind } from './csv';
import { readPresetList } from './preset-list';

/**
 * The show with a table in it. `id` is the song of cues, or the unit of controls and presets. What the table does not
 * name stays; cues and the running order are replaced.
 */
export function readTable(show: Show, kind: TableKind, id: string, text: string, newId: () => string): Read<Show> {
  switch (kind) {
    case 'cues':
      return readCueTable(show, id, text, newId);
    case 'set':
      return readSetTable(show, text, newId);
    case 'tones':
      return readToneTable(show, text, newId);
    case 'controls':
      return readControlTable(show, id, text, newId);
    case 'presets': {
      const unit = indexShow(show).units.get(id)!;
      const { value, problems } = readPresetList(text, { plan: unit.profile.plan, unit: unit.name, first: 0 });
      if (!value) return { value: undefined, problems };
      const edit = nameSlots(show, id, value, newId);
      return { value: edit ? applyEdit(show, edit) : show, problems };
    }
  }
}
