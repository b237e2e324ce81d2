import { setTonePart, slotFor, type Edit, type Tone, type TonePart, type Unit } from '../../../core/show';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';

export interface PartEdit {
  readonly onPart: (part: TonePart | null, label: string) => void;
  /** Gives the id of the slot at a place; one that nobody named gets its entry in the same step that uses it. */
  readonly slotIdAt: (index: number) => string;
}

/** Edits what a tone wants of a unit. */
export function usePartEdit(tone: Tone, unit: Unit): PartEdit {
  const show = useShow();
  const made: Edit[] = [];
  return {
    onPart: (part, label) => {
      const edit = setTonePart(show, tone.id, unit.id, part);
      perform(edit && made.length > 0 ? { kind: 'group', edits: [...made, edit] } : edit, label);
    },
    slotIdAt: (index) => {
      const { slotId, edits } = slotFor(show, unit.id, index, newId);
      made.push(...edits);
      return slotId;
    },
  };
}
