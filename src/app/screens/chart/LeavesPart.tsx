import { useMemo } from 'react';
import { leftovers, OPENING_CUE } from '../../../core/meaning';
import { indexShow, type Cue, type Song } from '../../../core/show';
import { cueWords, valueWords } from '../../../wording';
import { Soft } from '../../widgets/controls';
import { useShow } from '../../state/store';

/** What a placed tone leaves as an earlier change has set it: "leaves Input off, from Break". */
export function LeavesPart({ song, cue }: { readonly song: Song; readonly cue: Cue }) {
  const show = useShow();
  const left = useMemo(() => leftovers(show, song, cue.id), [show, song, cue.id]);
  if (left.length === 0) return null;
  const { units } = indexShow(show);
  const nameOf = (id: string): string => {
    if (id === OPENING_CUE) return 'the opening';
    const from = song.cues.find((c) => c.id === id);
    return from ? cueWords(show, from.action) : 'a sweep';
  };
  return (
    <ul aria-label="Left as it is" style={{ margin: 0, paddingLeft: 18, fontSize: 13.5 }}>
      {left.map(({ unitId, controlId, value, from }) => {
        const unit = units.get(unitId)!;
        const control = unit.profile.controls.find((c) => c.id === controlId)!;
        return (
          <li key={`${unitId} ${controlId}`}>
            <Soft>leaves</Soft> {unit.name}: {control.name} {valueWords(control, value)}, from {nameOf(from)}
          </li>
        );
      })}
    </ul>
  );
}
