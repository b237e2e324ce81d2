import { doingName, fallbackOf } from '../feet';
import {
  indexShow,
  openingOf,
  pageTitle,
  setOf,
  setTimes,
  songTime,
  songsOfSet,
  sourcesOf,
  type Show,
  type Song,
  type SongEntry,
  type Unit,
} from '../show';
import { fromHex } from '../midi';
import { formatPosition } from '../time';
import { partText } from './cueSheet';
import { withBasis } from './basis';
import { minutesAndSeconds, timeOfDay } from './figures';
import { DESK, FLOOR, FLOOR_SONG, column, table, type Sheet } from './sheet';

/** What starts a song from outside, as it is on the wire: "program 5 from 0, channel 1". */
export function startText(bytes: string): string {
  const [status = 0, number = 0, value = 0] = fromHex(bytes) ?? [];
  const kind = status & 0xf0;
  const what = kind === 0xc0 ? 'program' : kind === 0x90 ? 'note' : 'control';
  const figure = kind === 0xb0 ? ` = ${value}` : kind === 0xc0 ? ' from 0' : '';
  return `${what} ${number}${figure}, channel ${(status & 0x0f) + 1}`;
}

/** What follows a song at its end, as the set list says it. */
const THEN: Readonly<Record<SongEntry['follow'], (pause: number) => string>> = {
  wait: () => 'waits',
  on: (pause) => `goes on${pause > 0 ? ` after ${pause} s` : ''}`,
  'at-once': () => 'goes straight on',
};

/** The running order with clock times, and what starts its songs where messages do. */
export function setList(show: Show): Sheet {
  const set = setOf(show);
  const { songs, ports } = indexShow(show);
  const { rows, length } = setTimes(show, set);
  const started = rows.some(({ entry }) => entry.kind === 'song' && entry.launch !== null);
  let number = 0;
  return {
    id: 'set',
    kind: 'Set list',
    title: set.title,
    about: withBasis(
      `${set.onStage === null ? '' : `On stage at ${timeOfDay(set.onStage)}. `}${minutesAndSeconds(length)} in all.`,
      show,
    ),
    parts: [
      table(
        'Running order',
        [
          column('No.', 0.5, { figures: true }),
          column('Title', 3.4, { strong: true }),
          column('At', 0.9, { figures: true }),
          column('Length', 0.9, { figures: true }),
          column('Then', 1.6),
          ...(started ? [column('Starts by', 2.2)] : []),
        ],
        rows.map(({ entry, at, length: own }) => {
          const clock = set.onStage === null ? minutesAndSeconds(at) : timeOfDay(set.onStage + at / 60);
          const none = started ? [''] : [];
          if (entry.kind === 'note') return ['', entry.text, clock, '', '', ...none];
          if (entry.kind === 'sound') return ['', soundName(show, entry.audioId), '', '', 'sound', ...none];
          if (entry.kind === 'break') return ['', entry.title, clock, minutesAndSeconds(own), 'break', ...none];
          number += 1;
          const then = THEN[entry.follow](entry.pause);
          const { launch } = entry;
          const start = launch ? `${startText(launch.bytes)}, ${ports.get(launch.portId)?.name ?? ''}` : '';
          const cells = [String(number), songs.get(entry.songId)?.title ?? '', clock, minutesAndSeconds(own), then];
          return started ? [...cells, start] : cells;
        }),
      ),
    ],
    wide: false,
    type: DESK,
  };
}

/** The running order to be read from the floor: titles, the sound that each begins with and notes where there is room. */
export function floorSet(show: Show): Sheet {
  const set = setOf(show);
  const { songs, tones } = indexShow(show);
  let number = 0;
  const rows = set.entries.map((entry): string[] => {
    switch (entry.kind) {
      case 'note':
        return ['', entry.text, '', ''];
      case 'sound':
        return ['', soundName(show, entry.audioId), '', ''];
      case 'break':
        return ['', entry.title, '', ''];
      case 'song': {
        const song = songs.get(entry.songId);
        const opening = song && tones.get(openingOf(show, song) ?? '');
        number += 1;
        return [String(number), song?.title ?? '', opening?.name ?? '', song?.notes ?? ''];
      }
    }
  });
  const has = (i: number): boolean => rows.some((r) => r[i] !== '');
  const columns = [
    column('No.', 0.5, { figures: true }),
    column('Title', 3, { strong: true }),
    column('Begins with', 1.6, { spare: true }),
    column('Notes', 1.6, { spare: true }),
  ].filter((_, i) => i < 2 || has(i));
  return {
    id: 'set',
    kind: 'Set list',
    title: set.title,
    about: '',
    parts: [
      table(
        'Running order',
        columns,
        rows.map((r) => r.filter((_, i) => i < 2 || has(i))),
      ),
    ],
    wide: false,
    turns: true,
    type: FLOOR,
  };
}

/** A song by foot alone to be read from the floor: the bar, the sound, what is pressed. Null where the unit is no foot controller. */
export function floorFallback(show: Show, unit: Unit, song: Song): Sheet | null {
  const sheet = fallbackSheet(show, unit, song);
  return sheet && { ...sheet, turns: true, type: FLOOR_SONG };
}

/** Songs by foot alone: the printed bar, what comes, the page, what is pressed. Null where the unit is no foot controller. */
export function fallbackSheet(show: Show, unit: Unit, song: Song): Sheet | null {
  const fallback = fallbackOf(show, unit.id, song);
  if (!fallback) return null;
  const { bars } = songTime(song);
  const senderOf = (id: string): string => unit.profile.senders.find((s) => s.id === id)?.name ?? id;
  const { left } = fallback;
  const out = [
    left.controls > 0 ? `${left.controls} controls` : '',
    left.messages > 0 ? `${left.messages} messages` : '',
    left.sweeps > 0 ? `${left.sweeps} sweeps` : '',
  ].filter((x) => x !== '');
  const start = fallback.startPageId === null ? 'no page' : pageTitle(show, unit.id, fallback.startPageId);
  return {
    id: `fallback-${unit.id}-${song.id}`,
    kind: `By foot, on ${unit.name}`,
    title: song.title,
    about: `Begin on ${start}.${out.length > 0 ? ` Left out: ${out.join(', ')}.` : ''}${reachable(show, unit)}`,
    parts: [
      table(
        'Steps',
        [
          column('Bar', 1, { figures: true }),
          column('Sound', 2.6, { strong: true }),
          column('Page', 2),
          column('Press', 2.6, { strong: true }),
        ],
        fallback.steps.map(({ at, due, since, does, presses }) => [
          since === null && due === 0 ? 'before' : formatPosition(bars, at, song.bars),
          doingName(show, does),
          presses ? pageTitle(show, unit.id, presses.at(-1)!.pageId) : '',
          presses
            ? presses
                .map((p) => (p.kind === 'step' ? (p.by > 0 ? 'page up' : 'page down') : senderOf(p.switchId)))
                .join(', then ')
            : 'no switch does it',
        ]),
      ),
    ],
    wide: false,
    type: DESK,
  };
}

/** Where no emergency cable is planned: what a controller's own cables reach, in a sentence. */
function reachable(show: Show, { id }: Unit): string {
  if (show.feet.some((f) => f.id === id && f.boat.length > 0)) return '';
  const reached: string[] = [];
  // Its own messages leave its out; behind that a unit passes them on by its thru.
  const walk = (from: string, thru: boolean): void => {
    for (const u of show.units) {
      const { input } = u;
      if (input?.from !== 'unit' || input.unitId !== from || input.thru !== thru || reached.includes(u.name)) continue;
      reached.push(u.name);
      walk(u.id, true);
    }
  };
  walk(id, false);
  const what = reached.length === 0 ? 'nothing' : reached.join(', ');
  return ` No emergency cable is planned: without the computer the controller reaches ${what}.`;
}

const soundName = (show: Show, audioId: string): string => show.audio.find((a) => a.id === audioId)?.name ?? '';

const ROLES = { backing: 'backing', guide: 'guide', part: 'a part' } as const;

/** What is heard in each song of the set, and how loud. */
export function mixSheet(show: Show): Sheet {
  const { players } = indexShow(show);
  return {
    id: 'mix',
    kind: 'Mix sheet',
    title: setOf(show).title,
    about: 'Levels in dB, beside what each recording has of its own.',
    parts: [
      table(
        'Songs',
        [
          column('Song', 2.4, { strong: true }),
          ...['Click', 'Calls', 'Backing', 'Guide'].map((h) => column(h, 0.8, { figures: true })),
          column('Recordings', 3.4),
        ],
        songsOfSet(show).map(({ title, levels, tracks }) => [
          title,
          ...[levels.click, levels.calls, levels.backing, levels.guide].map(String),
          tracks
            .map((t) => {
              const name = soundName(show, t.audioId);
              const who = t.playerId === null ? '' : ` of ${players.get(t.playerId)?.name ?? ''}`;
              const stem = show.stems.find((s) => s.id === t.stemId)?.name;
              return `${stem === undefined ? '' : `${stem}: `}${name} (${ROLES[t.role]}${who})`;
            })
            .join(', '),
        ]),
      ),
      ...earTable(show),
    ],
    wide: false,
    type: DESK,
  };
}

/** What each person hears, source by source. */
function earTable(show: Show): Sheet['parts'] {
  if (show.ears.length === 0) return [];
  const sources = sourcesOf(show);
  return [
    table(
      'Ear mixes',
      [column('Ears', 2, { strong: true }), ...sources.map((s) => column(s.name, 0.9, { figures: true }))],
      show.ears.map(({ name, hears }) => [
        name,
        ...sources.map((s) => {
          const gain = hears.find((h) => h.of === s.id)?.gain;
          return gain === undefined ? '–' : String(gain);
        }),
      ]),
    ),
  ];
}

/** Tones against units: what each sound is on every unit. */
export function toneSheet(show: Show): Sheet {
  const used = show.units.filter((u) => show.tones.some((t) => t.parts.some((p) => p.unitId === u.id)));
  return {
    id: 'tones',
    kind: 'Tone sheet',
    title: show.title,
    about: 'Presets as the units label them.',
    parts: [
      table(
        'Tones',
        [column('Tone', 2, { strong: true }), ...used.map((u) => column(u.name, 1.3)), column('Notes', 2)],
        show.tones.map((tone) => [
          tone.name,
          ...used.map((u) => {
            const part = tone.parts.find((p) => p.unitId === u.id);
            return part ? partText(u, part) : '';
          }),
          tone.notes,
        ]),
      ),
    ],
    wide: true,
    type: DESK,
  };
}
