import { useMemo, useState } from 'react';
import {
  bringIn,
  clashKey,
  proposeUnits,
  usualMeeting,
  type Clash,
  type Meeting,
  type Part,
} from '../../../core/formats/part-file';
import type { Read } from '../../../core/problems';
import type { Show } from '../../../core/show';
import { Pick } from '../../widgets/Pick';
import { Soft } from '../../widgets/controls';
import { newId } from '../../state/desk';
import { useShow } from '../../state/store';
import { Matches } from './filesParts';
import { Preview } from './Preview';

const ALONG = 'along';

const KINDS: Readonly<Record<Clash['kind'], string>> = { tone: 'Tone', move: 'Move', song: 'Song', pages: 'Pages of' };

const MEETINGS: Readonly<Record<Meeting, string>> = {
  mine: 'Keep mine',
  theirs: 'Replace mine',
  both: 'Have both',
};

/** A part of a show before it comes into this one: which unit is which, what becomes of names that both have, and what changes. */
export function BringPart({
  part,
  from,
  onDone,
}: {
  readonly part: Part;
  readonly from: string;
  readonly onDone: () => void;
}) {
  const show = useShow();
  const [chosen, setChosen] = useState<ReadonlyMap<string, string | null>>(new Map());
  const [meetings, setMeetings] = useState<ReadonlyMap<string, Meeting>>(new Map());
  const units = useMemo(() => new Map([...proposeUnits(show, part), ...chosen]), [show, part, chosen]);
  const brought = useMemo(() => bringIn(show, part, { units, meetings }, newId), [show, part, units, meetings]);
  const read: Read<Show> = { value: brought.value?.show, problems: brought.problems };
  const clashes = brought.value?.clashes ?? [];
  return (
    <Preview read={read} from={from} onDone={onDone}>
      {part.show.units.length > 0 && <UnitMatches part={part} units={units} setChosen={setChosen} chosen={chosen} />}
      {clashes.length > 0 && <NameClashes clashes={clashes} meetings={meetings} setMeetings={setMeetings} />}
    </Preview>
  );
}

interface NameClashesProps {
  readonly clashes: readonly Clash[];
  readonly meetings: ReadonlyMap<string, Meeting>;
  readonly setMeetings: (value: ReadonlyMap<string, Meeting>) => void;
}

/** Names that the show has already: which of both is kept. */
function NameClashes({ clashes, meetings, setMeetings }: NameClashesProps) {
  return (
    <>
      <h3>Names that both have</h3>
      <Matches aria-label="Names that both have">
        {clashes.map((clash) => (
          <li key={clashKey(clash)}>
            <span>
              {KINDS[clash.kind]} <b>{clash.name}</b> <Soft>is in this show too</Soft>
            </span>
            <Pick
              label={`${KINDS[clash.kind]} ${clash.name}`}
              hideLabel
              value={meetings.get(clashKey(clash)) ?? usualMeeting(clash.kind)}
              choices={(['mine', 'theirs', 'both'] as const).map((id) => ({ id, name: MEETINGS[id] }))}
              onPick={(id) => setMeetings(new Map([...meetings, [clashKey(clash), id]]))}
            />
          </li>
        ))}
      </Matches>
    </>
  );
}

interface UnitMatchesProps {
  readonly part: Part;
  readonly units: Map<string, string | null>;
  readonly setChosen: (value: ReadonlyMap<string, string | null>) => void;
  readonly chosen: ReadonlyMap<string, string | null>;
}

/** Units of the file, and which unit of this show each is. */
function UnitMatches({ part, units, setChosen, chosen }: UnitMatchesProps) {
  const show = useShow();
  return (
    <>
      <h3>Which unit is which</h3>
      <Matches aria-label="Units of the file">
        {part.show.units.map((u) => (
          <li key={u.id}>
            <span>
              <b>{u.name}</b> {u.profile.name !== u.name && <Soft>{u.profile.name}</Soft>}
            </span>
            <Pick
              label={`${u.name} is`}
              hideLabel
              value={units.get(u.id) ?? ALONG}
              choices={[
                { id: ALONG, name: 'a new unit' },
                ...show.units.map((mine) => ({ id: mine.id, name: `${mine.name} of this show` })),
              ]}
              onPick={(id) => setChosen(new Map([...chosen, [u.id, id === ALONG ? null : id]]))}
            />
          </li>
        ))}
      </Matches>
    </>
  );
}
