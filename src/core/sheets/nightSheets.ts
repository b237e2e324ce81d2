import { routeTo } from '../meaning';
import { indexShow, setOf, songsOfSet, type Reaction, type Show } from '../show';
import { writtenOf, type ShowTonight } from '../tonight';
import { DESK, column, table, type Sheet } from './sheet';
import { startText } from './songSheets';

/** What a sheet says in the words of the interface. */
export interface SheetWords {
  /** What a reaction waits for, and what it does. */
  readonly hears: (show: Show, hears: Reaction['hears']) => string;
  readonly does: (show: Show, does: Reaction['does']) => string;
  /** Findings that somebody let be, each with its place, what it says and why. */
  readonly accepted: (
    show: Show,
  ) => readonly { readonly place: string; readonly says: string; readonly reason: string }[];
}

/** What each switch, pad and pedal does that the show reacts to: always, and by song where that differs. */
export function padSheet(show: Show, { hears, does }: SheetWords): Sheet | null {
  if (show.reactions.length === 0) return null;
  const rows = (songId: string | null): string[][] =>
    show.reactions
      .filter((r) => r.songId === songId)
      .map((r) => [r.name, hears(show, r.hears), `${does(show, r.does)}${r.on ? '' : ' (switched off)'}`]);
  const columns = [
    column('Name', 1.4, { strong: true }),
    column('Waits for', 2.4),
    column('Does', 2.4, { strong: true }),
  ];
  const always = rows(null);
  return {
    id: 'pads',
    kind: 'Reactions and pads',
    title: show.title,
    about: 'What each switch, pad and pedal does: always, and in single songs.',
    parts: [
      ...(always.length > 0 ? [table('Always', columns, always)] : []),
      ...show.songs.flatMap((song) => {
        const own = rows(song.id);
        return own.length === 0 ? [] : [table(song.title, columns, own)];
      }),
    ],
    wide: false,
    type: DESK,
  };
}

/** The ports of the show: the real one, the cable, what hangs on each and who plays that. */
export function portSheet(show: Show): Sheet | null {
  if (show.ports.length === 0) return null;
  const { players } = indexShow(show);
  return {
    id: 'ports',
    kind: 'Ports',
    title: show.title,
    about: 'The real ports are those that each was bound to last.',
    parts: [
      table(
        'Ports',
        [
          column('Port', 1.4, { strong: true }),
          column('Real port out', 2),
          column('Real port in', 2),
          column('Cable', 0.8),
          column('Units', 2.4),
          column('Who', 1.4),
          column('Instead, when it fails', 2),
        ],
        show.ports.map((port) => {
          const units = show.units.filter((u) => routeTo(show, u)?.portId === port.id);
          const who = new Set(units.flatMap((u) => players.get(u.playerId ?? '')?.name ?? []));
          return [
            port.active ? port.name : `${port.name} (off)`,
            port.known.out,
            port.known.in,
            port.cable === 'usb' ? 'USB' : '5-pin',
            units.map((u) => u.name).join(', '),
            [...who].join(', '),
            port.spare,
          ];
        }),
      ),
    ],
    wide: true,
    type: DESK,
  };
}

/** The message from outside that starts each song of the set. Null where none does. */
export function startSheet(show: Show): Sheet | null {
  const { songs, ports } = indexShow(show);
  const rows = setOf(show).entries.flatMap((entry) => {
    if (entry.kind !== 'song' || entry.launch === null) return [];
    const { bytes, portId, does } = entry.launch;
    return [
      [songs.get(entry.songId)?.title ?? '', startText(bytes), bytes, ports.get(portId)?.name ?? '', STARTS[does]],
    ];
  });
  if (rows.length === 0) return null;
  return {
    id: 'starts',
    kind: 'Starts',
    title: setOf(show).title,
    about: 'The message that starts each song.',
    parts: [
      table(
        'Starts',
        [
          column('Song', 2.4, { strong: true }),
          column('Message', 2.4),
          column('Bytes', 1, { figures: true }),
          column('Into', 1.2),
          column('Does', 1),
        ],
        rows,
      ),
    ],
    wide: false,
    type: DESK,
  };
}

const STARTS = { start: 'starts it', queue: 'puts it next' } as const;

/** Findings that somebody looked at and let be. Null where there are none. */
export function acceptedSheet(show: Show, { accepted }: SheetWords): Sheet | null {
  const all = accepted(show);
  if (all.length === 0) return null;
  return {
    id: 'accepted',
    kind: 'Findings that are let be',
    title: show.title,
    about: 'Somebody looked at each of these and let it be, for the reason beside it.',
    parts: [
      table(
        'Findings',
        [column('Where', 1.2, { strong: true }), column('Finding', 3), column('Why it is let be', 2.2)],
        all.map(({ place, says, reason }) => [place, says, reason]),
      ),
    ],
    wide: false,
    type: DESK,
  };
}

/** What differs tonight from a usual night. Null where nothing does. */
export function tonightSheet(show: ShowTonight): Sheet | null {
  const usual = writtenOf(show);
  const { units, players, ports } = indexShow(usual);
  const { tonight, missing, title } = setOf(usual);
  const nameOf = (portId: string | null): string => (portId === null ? '' : (ports.get(portId)?.name ?? ''));
  const rows = tonight.flatMap((t) => {
    const unit = units.get(t.unitId);
    if (!unit) return [];
    const was = `channel ${unit.channel}`;
    if (t.how === 'off') return [[unit.name, was, 'off: nothing is sent to it']];
    if (t.how === 'spare') return [[unit.name, was, `a spare on channel ${t.channel}`]];
    const port = nameOf(t.portId);
    return [[unit.name, was, `${t.name} on channel ${t.channel}${port === '' ? '' : `, ${port}`}`]];
  });
  const absent = missing.flatMap((id) => {
    const player = players.get(id);
    const parts = songsOfSet(usual).flatMap((s) => (s.tracks.some((x) => x.playerId === id) ? [s.title] : []));
    const plays =
      parts.length === 0 ? 'no recording of the part' : `a recording plays in ${[...new Set(parts)].join(', ')}`;
    return player ? [[player.name, player.part, `missing: ${plays}`]] : [];
  });
  if (rows.length + absent.length === 0) return null;
  return {
    id: 'tonight',
    kind: 'Tonight',
    title,
    about: '',
    parts: [
      table(
        'Differs',
        [column('What', 1.4, { strong: true }), column('As usual', 1.4), column('Tonight', 3, { strong: true })],
        [...rows, ...absent],
      ),
    ],
    wide: false,
    type: DESK,
  };
}
