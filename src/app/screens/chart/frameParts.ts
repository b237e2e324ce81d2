import type { Edit, Show, Song } from '../../../core/show';
import { perform } from '../../state/desk';

/** Takes an edit over, or says what was expected where it is none. */
export const take = (edit: Edit | null, label: string, expected: string): string | null => {
  if (!edit) return expected;
  perform(edit, label);
  return null;
};

export interface FrameProps {
  readonly show: Show;
  readonly song: Song;
}
