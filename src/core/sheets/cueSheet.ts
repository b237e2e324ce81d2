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

/** A song's changes, one a line: the bar as it is printed, the time, the sound, what each player's units go to; room to write. */
export function cueSheet(show: Show, song: Song): Sheet {
  const index = indexShow(show);
  const time = songTime(song);
  const tonesUsed = new Set(moments(show, song).flatMap((m) => (m.action.kind === 'tone' ? [m.action.toneId] : [])));
  const parts = [...tonesUsed].flatMap((id) => index.tones.get(id)?.parts ?? []);
  const owners = new Set(parts.map((p) => index.units.get(p.unitId)?.playerId ?? null));
  const players = [
    ...show.players.map((p) => ({ id: p.id as string | null, name: p.name })),
    { id: null, name: 'Rig' },
  ];
  const shown = players.filter((p) => owners.has(p.id));
  const rows: { at: Ticks; row: readonly string[] }[] = [];
  const add = (at: Ticks, place: string, what: string, tone: Tone | undefined, section: string): void => {
    const seconds = at < 0 ? '' : minutesAndSeconds(microsAt(time, at) / 1e6);
    rows.push({
      at,
      row: [place, seconds, what, ...shown.map((p) => (tone ? playerText(show, tone, p.id) : '')), section],
    });
  };
  const sectionAt = new Map(song.sections.map((s) => [s.bar, s.name]));
  const sectionOf = (at: Ticks): string => {
    const place = formatPosition(time.bars, at, song.bars);
    return place.endsWith('|1') || !place.includes('|') ? (sectionAt.get(barOf(at)) ?? '') : '';
  };
  const barOf = (at: Ticks): number =>
    Number.parseInt(formatPosition({ ...time.bars, printed: [] }, at, song.bars), 10);
  const opening = index.tones.get(openingOf(show, song) ?? '');
  if (opening) add(-1, 'before', opening.name, opening, '');
  for (const { at, muted, action } of cuesInOrder(song)) {
    if (muted) continue;
    const place = formatPosition(time.bars, at, song.bars);
    if (action.kind === 'tone') {
      const tone = index.tones.get(action.toneId);
      add(at, place, tone?.name ?? '', tone, sectionOf(at));
    } else if (action.kind === 'move') {
      add(at, place, show.moves.find((m) => m.id === action.moveId)?.name ?? '', undefined, sectionOf(at));
    } else {
      const unit = index.units.get(action.unitId);
      const control = unit?.profile.controls.find((c) => action.kind === 'control' && c.id === action.controlId);
      add(
        at,
        place,
        control && action.kind === 'control'
          ? `${unit!.name}: ${control.name} ${valueText(control, action.value)}`
          : `${unit?.name ?? ''}: bytes`,
        undefined,
        sectionOf(at),
      );
    }
  }
  for (const { from, to, muted, unitId, controlId } of song.sweeps) {
    const unit = index.units.get(unitId);
    const control = unit?.profile.controls.find((c) => c.id === controlId);
    if (muted || !control) continue;
    const until = formatPosition(time.bars, to, song.bars);
    add(
      from,
      formatPosition(time.bars, from, song.bars),
      `${unit!.name}: ${control.name}, moved until ${until}`,
      undefined,
      '',
    );
  }
  for (const { at, text } of song.remarks) {
    add(at, formatPosition(time.bars, at, song.bars), `“${text}”`, undefined, sectionOf(at));
  }
  for (const { bar, call } of song.calls) {
    const { tick } = barAt(time.bars, bar);
    add(tick, formatPosition(time.bars, tick, song.bars), callText(call), undefined, sectionOf(tick));
  }
  rows.sort((a, b) => a.at - b.at);
  const [tempo] = song.tempo;
  const [metre] = song.metre;
  return {
    id: `cues-${song.id}`,
    kind: 'Cue sheet',
    title: song.title,
    about: `${metre!.beats}/${metre!.unit}, ${tempo!.bpm} beats a minute, ${song.bars} bars, ${minutesAndSeconds(songLength(song))}${song.notes === '' ? '' : `. ${song.notes}`}`,
    parts: [
      table(
        'Changes',
        [
          column('Bar', 1.1, { figures: true }),
          column('Time', 0.8, { figures: true }),
          column('Sound', 2.6, { strong: true }),
          ...shown.map((p) => column(p.name, 2.2)),
          column('Section', 1.2),
        ],
        rows.map((r) => r.row),
      ),
    ],
    wide: shown.length > 2,
  };
}
