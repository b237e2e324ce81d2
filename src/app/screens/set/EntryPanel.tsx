import { Ear, ListOrdered, Trash2, X } from 'lucide-react';
import {
  RANGES,
  changeEntry,
  figureIn,
  indexShow,
  launchBytes,
  rangeWords,
  takeOut,
  setSongField,
  songEntries,
  type SetEntry,
  type SongEntry,
  numberLaunches,
  songsToNumber,
} from '../../../core/show';
import { Check } from '../../widgets/Check';
import { Choices } from '../../widgets/Choices';
import { Button, FormProblem, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { LearnMessage } from '../../features/LearnMessage';
import { Pick } from '../../widgets/Pick';
import { CountIn } from '../../features/CountIn';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { InterludeFields } from './InterludeFields';
import { SongActs } from './SongActs';
import { launchWords } from './launchWords';

const NONE = 'none';

interface Props<E extends SetEntry = SetEntry> {
  readonly entry: E;
  readonly onGone: () => void;
}

/** What is to be said of one entry: what starts a song and what follows it, how long a break is, what a note says. */
export function EntryPanel({ entry, onGone }: Props) {
  const show = useShow();
  return (
    <div style={{ display: 'grid', gap: 12 }}>
      {entry.kind === 'song' ? (
        <SongFields entry={entry} onGone={onGone} />
      ) : entry.kind === 'break' ? (
        <>
          <h2>Break</h2>
          <DraftField
            label="Title"
            value={entry.title}
            commit={(text) => {
              if (text.trim() === '') return 'a title';
              perform(changeEntry(show, entry, { title: text.trim() }), 'rename a break');
              return null;
            }}
          />
          <DraftField
            label="Minutes"
            value={String(entry.minutes)}
            numeric
            commit={(text) => {
              const minutes = figureIn(RANGES.breakMinutes, text);
              if (minutes === undefined) return rangeWords(RANGES.breakMinutes);
              perform(changeEntry(show, entry, { minutes }), 'change a break');
              return null;
            }}
          />
        </>
      ) : entry.kind === 'sound' ? (
        <InterludeFields entry={entry} />
      ) : (
        <>
          <h2>Note</h2>
          <DraftField
            label="Text"
            value={entry.text}
            commit={(text) => {
              if (text.trim() === '') return 'a text';
              perform(changeEntry(show, entry, { text: text.trim().slice(0, 120) }), 'change a note');
              return null;
            }}
          />
        </>
      )}
      <Button
        onPress={() => {
          perform(takeOut(show, entry.id), 'remove an entry from the set');
          onGone();
        }}
      >
        <Trash2 size={15} aria-hidden /> Remove from the set
      </Button>
    </div>
  );
}

function SongFields({ entry }: Props<SongEntry>) {
  const show = useShow();
  const song = indexShow(show).songs.get(entry.songId)!;
  const set = (change: Partial<SongEntry>, label: string): void =>
    void perform(changeEntry(show, entry, change), label);
  return (
    <>
      <div style={{ display: 'flex', alignItems: 'center', gap: 4 }}>
        <h2 style={{ marginRight: 'auto' }}>{song.title}</h2>
        <SongActs song={song} />
      </div>
      <Choices
        label="At its end"
        value={entry.follow}
        choices={[
          { id: 'wait', name: 'wait', about: 'The next song is started by hand, or by a message.' },
          { id: 'on', name: 'go on by itself', about: 'The next song of the set begins, or the one that was chosen.' },
          { id: 'at-once', name: 'go on at once', about: 'The same, without a pause and without a count-in.' },
        ]}
        onPick={(follow) => set({ follow }, 'change what follows a song')}
      />
      {entry.follow === 'on' && (
        <DraftField
          label="Seconds until it begins"
          value={String(entry.pause)}
          numeric
          commit={(text) => {
            const pause = figureIn(RANGES.pauseSeconds, text);
            if (pause === undefined) return rangeWords(RANGES.pauseSeconds);
            set({ pause }, 'change the pause behind a song');
            return null;
          }}
        />
      )}
      <Pick
        label="Tone in between"
        value={entry.bridgeToneId ?? NONE}
        choices={[{ id: NONE, name: 'none: the last one stays' }, ...show.tones]}
        onPick={(id) => set({ bridgeToneId: id === NONE ? null : id }, 'change the tone between songs')}
      />
      <CountIn song={song} />
      <LaunchField entry={entry} />
      <Check
        isSelected={song.stepped}
        onChange={(stepped) =>
          void perform(setSongField(show, song.id, 'stepped', stepped), 'change how a song is played')
        }
      >
        No clock: stepped by hand
      </Check>
    </>
  );
}

/** The message that starts a song, learnt by pressing. */
function LaunchField({ entry }: { readonly entry: SongEntry }) {
  const show = useShow();
  const { launch } = entry;
  const behind = songsToNumber(show, entry.id);
  const set = (to: SongEntry['launch'], label: string): void =>
    void perform(changeEntry(show, entry, { launch: to }), label);
  const clash =
    launch &&
    songEntries(show).find(
      (e) => e.id !== entry.id && e.launch?.portId === launch.portId && e.launch.bytes === launch.bytes,
    );
  return (
    <div style={{ display: 'grid', gap: 8 }}>
      <b style={{ fontSize: 13 }}>Message that starts it</b>
      {launch ? (
        <div style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
          <span>
            {launchWords(launch.bytes)} <Soft>from {indexShow(show).ports.get(launch.portId)?.name ?? 'a port'}</Soft>
          </span>
          <SignButton aria-label="Take the message away" onPress={() => set(null, 'take a message from a song')}>
            <X size={16} />
          </SignButton>
        </div>
      ) : (
        <Soft>None: it is started by hand, or follows the song before.</Soft>
      )}
      {clash && (
        <FormProblem>
          {indexShow(show).songs.get(clash.songId)?.title ?? 'Another song'} waits for the same message: the first in
          the set would start. Choose another one.
        </FormProblem>
      )}
      {launch && (
        <Pick
          label="When it arrives"
          value={launch.does}
          choices={[
            { id: 'start', name: 'start the song' },
            { id: 'queue', name: 'have it come next' },
          ]}
          onPick={(does) => set({ ...launch, does: does }, 'change what a message does')}
        />
      )}
      {behind > 0 && (
        <Button onPress={() => void perform(numberLaunches(show, entry.id), 'number the messages of songs')}>
          <ListOrdered size={15} aria-hidden /> Number the {behind === 1 ? 'song' : `${behind} songs`} behind it on from
          here
        </Button>
      )}
      <LearnLaunch set={set} launch={launch} />
    </div>
  );
}

interface LearnLaunchProps {
  readonly set: (to: SongEntry['launch'], label: string) => void;
  readonly launch: SongEntry['launch'];
}

/** Learns the message from what is pressed. */
function LearnLaunch({ set, launch }: LearnLaunchProps) {
  return (
    <LearnMessage
      face={
        <>
          <Ear size={15} aria-hidden /> Learn
        </>
      }
      label="Learn the message that starts it"
      ask="Press the switch, pad or key that is to start the song: a program change, a note or a control."
      fits={(bytes) => launchBytes(bytes) !== null}
      says={(bytes) => launchWords(launchBytes(bytes)!)}
      onTake={(portId, press) =>
        set({ portId, bytes: launchBytes(press.bytes)!, does: launch?.does ?? 'start' }, 'let a message start a song')
      }
    />
  );
}
