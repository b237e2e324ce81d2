import { labelOf, valueText } from '../addressing';
import { moments } from '../meaning';
import {
  cuesInOrder,
  indexShow,
  microsAt,
  openingOf,
  slotsById,
  songLength,
  songTime,
  type Call,
  type Show,
  type Song,
  type Tone,
  type TonePart,
  type Unit,
} from '../show';
import { barAt, barStart, formatPosition, type BarMap, type Ticks } from '../time';
import { DESK, FLOOR_SONG, column, table, type Sheet } from './sheet';
import { withBasis } from './basis';
import { minutesAndSeconds } from './figures';

/** What a tone wants of a unit, as short as a cell has room for: "H6 Bite". */
export function partText(unit: Unit, part: TonePart): string {
  const slot = part.slotId === null ? undefined : slotsById(unit).get(part.slotId);
  const variants = unit.profile.variants?.names ?? [];
  const variant = part.variant === null ? '' : variants[part.variant] || String(part.variant + 1);
  const on = part.controls.length + part.effects.length;
  return [slot ? labelOf(unit.profile.plan, slot.index) : '', variant, on > 0 && !slot && !variant ? 'set' : '']
    .filter((t) => t !== '')
    .join(' ');
}

/** What a player's units go to with a tone, those that are told by others too, each by its name or its short name. */
function playerText(show: Show, tone: Tone, playerId: string | null, by: 'name' | 'monogram'): string {
  const { units } = indexShow(show);
  const called = tone.parts.flatMap((part) => {
    const unit = units.get(part.unitId);
    return unit?.playerId === playerId ? [{ unit, text: partText(unit, part) }] : [];
  });
  return [...called, ...relayedTexts(show, tone).filter(({ unit }) => unit.playerId === playerId)]
    .flatMap(({ unit, text }) => (text === '' ? [] : [`${unit[by]} ${text}`]))
    .join(', ');
}

/** What units go to because others tell them, as a tone calls those: each unit once, the last rule of it counts. */
function relayedTexts(show: Show, tone: Tone): readonly { readonly unit: Unit; readonly text: string }[] {
  const { units } = indexShow(show);
  const told = new Map<string, string>();
  // What the tone says of a unit by itself stands on the sheet already.
  const called = new Set(tone.parts.filter((p) => p.slotId !== null).map((p) => p.unitId));
  const tell = (from: Unit, slotId: string | null, variant: number | null): void => {
    for (const { when, toUnitId, toSlotId } of from.relays) {
      const fires = when.variant === null ? slotId !== null : when.variant === variant;
      if (!fires || (when.slotId !== null && when.slotId !== slotId)) continue;
      const unit = units.get(toUnitId);
      if (!unit || called.has(toUnitId) || told.get(toUnitId) === toSlotId) continue;
      told.set(toUnitId, toSlotId);
      tell(unit, toSlotId, null);
    }
  };
  for (const { unitId, slotId, variant } of tone.parts) {
    const unit = units.get(unitId);
    if (unit) tell(unit, slotId, variant);
  }
  return [...told].flatMap(([unitId, slotId]) => {
    const unit = units.get(unitId);
    const slot = unit && slotsById(unit).get(slotId);
    return unit && slot ? [{ unit, text: labelOf(unit.profile.plan, slot.index) }] : [];
  });
}

/** What is heard ahead of a bar, as sheets and the chart's marks say it: what is said, and how many bars are counted. */
export function callText({ how, text, count }: Call): string {
  const bars = how === 'count' ? Math.max(1, count) : count;
  const counted = bars === 0 ? '' : `${bars} ${bars === 1 ? 'bar' : 'bars'} counted`;
  const said = { voice: text.trim() && `“${text.trim()}”`, tones: 'tones', sound: 'a sound', count: '' }[how];
  return `Call: ${[said, counted].filter((t) => t !== '').join(', ') || 'the bar'}`;
}

/** One line of a cue sheet, before the players' columns are known. */
interface CueLine {
  readonly at: Ticks;
  readonly what: string;
  readonly tone?: Tone | undefined;
  /** What stands under a section's name in the last column: nothing for a sweep. */
  readonly isInSection: boolean;
  /** It is read from the floor too: sounds, moves and remarks. */
  readonly isOnFloor?: boolean;
}

/** More tempo marks than this are of a recording that was followed: nobody reads them one by one. */
const TEMPO_MARKS = 40;

const figure = (bpm: number): string => String(Math.round(bpm * 100) / 100);

/** What of a song's structure one has to know while it is played: other metres, and tempos from a place on. */
function frameLines({ metre, tempo }: Song, bars: BarMap): readonly CueLine[] {
  const line = (at: Ticks, what: string): CueLine => ({ at, what, isInSection: false });
  const marks = tempo.length > TEMPO_MARKS ? [] : tempo;
  return [
    ...metre.slice(1).map((m) => line(barStart(bars, m.bar), `Metre ${m.beats}/${m.unit}`)),
    ...marks.flatMap(({ at, bpm, rampTo }, i) => {
      if (rampTo !== null) return [line(at, `Tempo from ${figure(bpm)} to ${figure(rampTo)}`)];
      // The first tempo stands at the head; where a ramp ends its tempo is reached.
      return i === 0 || marks[i - 1]!.rampTo === bpm ? [] : [line(at, `Tempo ${figure(bpm)}`)];
    }),
  ];
}

/** What happens in a song, in no order: cues, sweeps, remarks, calls, other metres and tempos. Muted ones are left out. */
function cueLines(show: Show, song: Song): readonly CueLine[] {
  const { tones, units } = indexShow(show);
  const { bars } = songTime(song);
  const line = (at: Ticks, what: string, tone?: Tone, isInSection = true): CueLine => ({ at, what, tone, isInSection });
  const controlOf = (unitId: string, controlId: string) =>
    units.get(unitId)?.profile.controls.find((c) => c.id === controlId);
  const nameOf = (unitId: string): string => units.get(unitId)?.name ?? '';
  const cues = cuesInOrder(song).flatMap(({ at, muted, action }): CueLine[] => {
    if (muted) return [];
    switch (action.kind) {
      case 'tone': {
        const tone = tones.get(action.toneId);
        return [{ ...line(at, tone?.name ?? '', tone), isOnFloor: true }];
      }
      case 'move':
        return [{ ...line(at, show.moves.find((m) => m.id === action.moveId)?.name ?? ''), isOnFloor: true }];
      case 'control': {
        const control = controlOf(action.unitId, action.controlId);
        const value = control ? `${control.name} ${valueText(control, action.value)}` : 'bytes';
        return [line(at, `${nameOf(action.unitId)}: ${value}`)];
      }
      case 'message':
        return [line(at, `${nameOf(action.unitId)}: bytes`)];
    }
  });
  const sweeps = song.sweeps.flatMap(({ from, to, muted, unitId, controlId }): CueLine[] => {
    const control = controlOf(unitId, controlId);
    if (muted || !control) return [];
    const until = formatPosition(bars, to, song.bars);
    return [line(from, `${nameOf(unitId)}: ${control.name}, moved until ${until}`, undefined, false)];
  });
  const remarks = song.remarks.map(({ at, text }) => ({ ...line(at, `“${text}”`), isOnFloor: true }));
  const calls = song.calls.map(({ bar, call }) => line(barAt(bars, bar).tick, callText(call)));
  return [...frameLines(song, bars), ...cues, ...sweeps, ...remarks, ...calls];
}

/** The name of the section that begins at a place, or nothing. */
function sectionNames(song: Song): (at: Ticks) => string {
  const { bars } = songTime(song);
  const names = new Map(song.sections.map((s) => [s.bar, s.name]));
  return (at) => {
    const place = formatPosition(bars, at, song.bars);
    if (!place.endsWith('|1') && place.includes('|')) return '';
    return names.get(Number.parseInt(formatPosition({ ...bars, printed: [] }, at, song.bars), 10)) ?? '';
  };
}

/** The players whose units a song's tones use, in the order of the show; null is the rig that nobody plays. */
function playersOf(show: Show, song: Song): readonly { readonly id: string | null; readonly name: string }[] {
  const { tones, units } = indexShow(show);
  const used = new Set(moments(show, song).flatMap((m) => (m.action.kind === 'tone' ? [m.action.toneId] : [])));
  const parts = [...used].flatMap((id) => tones.get(id)?.parts ?? []);
  const owners = new Set(parts.map((p) => units.get(p.unitId)?.playerId ?? null));
  return [...show.players.map(({ id, name }) => ({ id, name })), { id: null, name: 'Rig' }].filter((p) =>
    owners.has(p.id),
  );
}

/** Lines of a song from its opening on, in the order of the song. */
function linesInOrder(
  show: Show,
  song: Song,
): { readonly opening: Tone | undefined; readonly lines: readonly CueLine[] } {
  const opening = indexShow(show).tones.get(openingOf(show, song) ?? '');
  return { opening, lines: [...cueLines(show, song)].sort((a, b) => a.at - b.at) };
}

/** A song's changes, one a line: the bar as it is printed, the time, the sound, what each player's units go to; room to write. */
export function cueSheet(show: Show, song: Song): Sheet {
  const time = songTime(song);
  const players = playersOf(show, song);
  const sectionAt = sectionNames(song);
  const { opening, lines } = linesInOrder(show, song);
  const rowsBy = (by: 'name' | 'monogram'): string[][] => {
    const row = (place: string, seconds: string, { what, tone }: Pick<CueLine, 'what' | 'tone'>, section: string) => [
      place,
      seconds,
      what,
      ...players.map((p) => (tone ? playerText(show, tone, p.id, by) : '')),
      section,
    ];
    return [
      ...(opening ? [row('before', '', { what: opening.name, tone: opening }, '')] : []),
      ...lines.map((l) => {
        const seconds = l.at < 0 ? '' : minutesAndSeconds(microsAt(time, l.at) / 1e6);
        const section = l.isInSection ? sectionAt(l.at) : '';
        return row(formatPosition(time.bars, l.at, song.bars), seconds, l, section);
      }),
    ];
  };
  const [tempo] = song.tempo;
  const [metre] = song.metre;
  const moves = song.tempo.length > TEMPO_MARKS ? ', tempo moves throughout' : '';
  return {
    id: `cues-${song.id}`,
    kind: 'Cue sheet',
    title: song.title,
    about: withBasis(
      `${metre!.beats}/${metre!.unit}, ${figure(tempo!.bpm)} beats a minute${moves}, ${song.bars} bars, ${minutesAndSeconds(songLength(song))}${song.notes === '' ? '' : `. ${song.notes}`}`,
      show,
      song,
    ),
    parts: [
      {
        ...table(
          'Changes',
          [
            column('Bar', 1.1, { figures: true }),
            column('Time', 0.8, { figures: true }),
            column('Sound', 2.6, { strong: true }),
            ...players.map((p) => column(p.name, 2.2)),
            column('Section', 1.2),
          ],
          rowsBy('name'),
        ),
        tight: rowsBy('monogram'),
      },
    ],
    wide: players.length > 2,
    type: DESK,
  };
}

/** A song to be read from the floor: its bars and sounds, and nothing else but sections where there is room. */
export function floorCues(show: Show, song: Song): Sheet {
  const { bars } = songTime(song);
  const sectionAt = sectionNames(song);
  const { opening, lines } = linesInOrder(show, song);
  const rows = lines
    .filter((l) => l.isOnFloor === true)
    .map((l) => [formatPosition(bars, l.at, song.bars), l.what, sectionAt(l.at)]);
  return {
    id: `cues-${song.id}`,
    kind: 'Cues',
    title: song.title,
    about: '',
    parts: [
      table(
        'Changes',
        [
          column('Bar', 1, { figures: true }),
          column('Sound', 3, { strong: true }),
          column('Section', 1.4, { spare: true }),
        ],
        [...(opening ? [['before', opening.name, '']] : []), ...rows],
      ),
    ],
    wide: false,
    turns: true,
    type: FLOOR_SONG,
  };
}
