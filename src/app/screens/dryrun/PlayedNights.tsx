import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { csvText } from '../../../core/csvText';
import { fileName } from '../../../core/formats/fileName';
import { indexShow, type Show } from '../../../core/show';
import { lateLeftWords } from '../../../wording';
import { download } from '../../adapters/download';
import { placePath } from '../../features/findingGroups';
import { leftOf, nearestFirst, useLastNights, type PlayedChange, type PlayedNight } from '../../state/lastNights';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { Button, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { useShown } from '../../widgets/useShown';
import { cueName } from './runFacts';

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    padding: 6px 0;
    border-top: 1px solid ${desk.line};
    font-size: 13.5px;
  }
  & b {
    font-variant-numeric: tabular-nums;
  }
  & a {
    color: ${desk.ink};
    font-weight: 600;
  }
`;

/** So many of the changes that were nearest to missing stand there at once. */
const SHOWN = 6;

const dayWords = (id: string): string =>
  new Date(`${id}T12:00:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'long' });

const timeOf = (millis: number): string => new Date(millis).toTimeString().slice(0, 8);

/** What became of changes that were played on this computer's own ports, night by night: the nearest to missing first. */
export function PlayedNights() {
  const nights = useLastNights((s) => s.nights);
  const [chosen, setChosen] = useState('');
  const night = nights.find((n) => n.id === chosen) ?? nights[0];
  if (!night) return null;
  return (
    <section aria-label="Nights that were played" style={{ display: 'grid', gap: 8 }}>
      <h2>Nights that were played</h2>
      {nights.length > 1 && (
        <Pick
          label="Night"
          value={night.id}
          choices={nights.map((n) => ({ id: n.id, name: dayWords(n.id) }))}
          onPick={setChosen}
        />
      )}
      <OneNight night={night} />
    </section>
  );
}

function OneNight({ night }: { readonly night: PlayedNight }) {
  const show = useShow();
  const order = nearestFirst(night.songs);
  const [shown, more] = useShown(order.length, SHOWN);
  const messages = night.songs.reduce((sum, s) => sum + s.messages, 0);
  const missed = order.filter(({ left }) => left !== null && left < 0).length;
  return (
    <>
      <p style={{ margin: 0 }} role="status">
        {dayWords(night.id)}: {night.songs.length === 1 ? '1 song' : `${night.songs.length} songs`},{' '}
        {messages === 1 ? '1 message' : `${messages.toLocaleString('en-GB')} messages`} on this computer’s own ports.{' '}
        {missed === 0 ? 'None left too late to land.' : `${missed} left too late to land.`}
      </p>
      <h3 style={{ margin: '4px 0 0', fontSize: 14 }}>Nearest to missing</h3>
      <List aria-label="Nearest to missing">
        {order.slice(0, shown).map(({ song, change, left }) => (
          <li key={`${song.begun} ${change.cueId} ${change.unitId}`}>
            <b>{timeOf(change.planned)}</b>{' '}
            <ChangeName show={show} songId={song.songId} title={song.title} change={change} />
            <br />
            <Soft>{lateLeftWords(change.late, left)}</Soft>
          </li>
        ))}
      </List>
      {more}
      <div>
        <Button onPress={() => exportNight(show, night)}>
          <Download size={15} aria-hidden /> Export as CSV
        </Button>
      </div>
    </>
  );
}

interface ChangeNameProps {
  readonly show: Show;
  readonly songId: string;
  readonly title: string;
  readonly change: PlayedChange;
}

/** A change by its names as they are now, with the way to its place where it is still there. */
function ChangeName({ show, songId, title, change }: ChangeNameProps) {
  const { songs, units } = indexShow(show);
  const song = songs.get(songId);
  const cue = song?.cues.find((c) => c.id === change.cueId);
  const unit = units.get(change.unitId)?.name ?? 'a unit that is gone';
  const text = `${unit}: ${song ? cueName(show, song, change.cueId) : 'a change that is gone'}, ${song?.title ?? title}`;
  return cue ? (
    <Link to={placePath(show, { in: 'song', songId, at: cue.at, cueId: cue.id })}>{text}</Link>
  ) : (
    <span>{text}</span>
  );
}

function exportNight(show: Show, night: PlayedNight): void {
  const { songs, units } = indexShow(show);
  const rows = night.songs.flatMap((s) =>
    s.changes.map((c) => {
      const song = songs.get(s.songId);
      const left = leftOf(c);
      return [
        s.title,
        song ? cueName(show, song, c.cueId) : '',
        units.get(c.unitId)?.name ?? '',
        new Date(c.planned).toISOString(),
        c.late === null ? '' : new Date(c.planned + c.late).toISOString(),
        c.late === null ? 'not sent' : c.late.toFixed(1),
        c.margin?.toFixed(1) ?? '',
        left === null || !Number.isFinite(left) ? '' : left.toFixed(1),
      ];
    }),
  );
  const head = ['song', 'change', 'unit', 'planned', 'left', 'late ms', 'margin ms', 'margin left ms'];
  download(fileName(`${show.title} ${night.id}`, 'csv'), csvText([head, ...rows]), 'text/csv');
}
