import { removeSet, setOf, setSetField, RANGES, figureIn, rangeWords } from '../../../core/show';
import { clockWords, readClock } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { LearnStarts } from './LearnStarts';

export function SetFields() {
  const show = useShow();
  const set = setOf(show);
  return (
    <div style={{ display: 'grid', gap: 12 }}>
      <h2>The set</h2>
      <DraftField
        label="Title"
        value={set.title}
        commit={(text) => {
          if (text.trim() === '') return 'a title';
          perform(setSetField(show, 'title', text), 'rename the set');
          return null;
        }}
      />
      <DraftField
        label="On stage at"
        value={set.onStage === null ? '' : clockWords(set.onStage)}
        placeholder="20:30"
        commit={(text) => {
          const at = text.trim() === '' ? null : readClock(text);
          if (at === undefined) return 'a time of day, as in 20:30, or nothing';
          perform(setSetField(show, 'onStage', at), 'change when the set begins');
          return null;
        }}
      />
      <DraftField
        label="Between songs that wait (seconds)"
        value={String(set.between)}
        numeric
        commit={(text) => {
          const between = figureIn(RANGES.betweenSeconds, text);
          if (between === undefined) return rangeWords(RANGES.betweenSeconds);
          perform(setSetField(show, 'between', between), 'change the time between songs');
          return null;
        }}
      />
      <Check
        isSelected={set.runsOn}
        onChange={(runsOn) => void perform(setSetField(show, 'runsOn', runsOn), 'change what follows a last change')}
      >
        “Next change” behind a song's last goes on to the next song
      </Check>
      <LearnStarts />
      <Soft>Choose a row to say what starts that song and what follows it.</Soft>
      {show.sets.length > 1 && (
        <Button onPress={() => perform(removeSet(show), `delete the set ${set.title}`)}>Delete this set</Button>
      )}
    </div>
  );
}
