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
import { barAt, formatPosition, type Ticks } from '../time';
import { column, table, type Sheet } from './sheet';
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

/** What a player's units go to with a tone, each by its short name. */
function playerText(show: Show, tone: Tone, playerId: string | null): string {
  const { units } = indexShow(show);
  return tone.parts
    .flatMap((part) => {
      const unit = units.get(part.unitId);
      const text = unit?.playerId === playerId ? partText(unit, part) : '';
      return unit && text !== '' ? [`${unit.monogram} ${text}`] : [];
    })
    .join(', ');
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
}

/** What happens in a song, in no order: cues, sweeps, remarks and calls. Muted ones are left out. */
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
        return [line(at, tone?.name ?? '', tone)];
      }
      case 'move':
        return [line(at, show.moves.find((m) => m.id === action.moveId)?.name ?? '')];
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
  const remarks = song.remarks.map(({ at, text }) => line(at, `“${text}”`));
  const calls = song.calls.map(({ bar, call }) => line(barAt(bars, bar).tick, callText(call)));
  return [...cues, ...sweeps, ...remarks, ...calls];
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

/** A song's changes, one a line: the bar as it is printed, the time, the sound, what each player's units go to; room to write. */
export function cueSheet(show: Show, song: Song): Sheet {
  const time = songTime(song);
  const players = playersOf(show, song);
  const sectionAt = sectionNames(song);
  const row = (place: string, seconds: string, { what, tone }: Pick<CueLine, 'what' | 'tone'>, section: string) => [
    place,
    seconds,
    what,
    ...players.map((p) => (tone ? playerText(show, tone, p.id) : '')),
    section,
  ];
  const opening = indexShow(show).tones.get(openingOf(show, song) ?? '');
  const lines = [...cueLines(show, song)].sort((a, b) => a.at - b.at);
  const [tempo] = song.tempo;
  const [metre] = song.metre;
  return {
    id: `cues-${song.id}`,
    kind: 'Cue sheet',
    title: song.title,
    about: withBasis(
      `${metre!.beats}/${metre!.unit}, ${tempo!.bpm} beats a minute, ${song.bars} bars, ${minutesAndSeconds(songLength(song))}${song.notes === '' ? '' : `. ${song.notes}`}`,
      show,
      song,
    ),
    parts: [
      table(
        'Changes',
        [
          column('Bar', 1.1, { figures: true }),
          column('Time', 0.8, { figures: true }),
          column('Sound', 2.6, { strong: true }),
          ...players.map((p) => column(p.name, 2.2)),
          column('Section', 1.2),
        ],
        [
          ...(opening ? [row('before', '', { what: opening.name, tone: opening }, '')] : []),
          ...lines.map((l) => {
            const seconds = l.at < 0 ? '' : minutesAndSeconds(microsAt(time, l.at) / 1e6);
            const section = l.isInSection ? sectionAt(l.at) : '';
            return row(formatPosition(time.bars, l.at, song.bars), seconds, l, section);
          }),
        ],
      ),
    ],
    wide: players.length > 2,
  };
}
