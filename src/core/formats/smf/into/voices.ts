import { indexShow, type Show, type Song, type Unit } from '../../../show';

/** Something that speaks in a file: a port and a channel of it. */
export interface Voice {
  /** Of the plain unit that stands for it. */
  readonly id: string;
  readonly name: string;
  readonly port: string;
  readonly channel: number;
  readonly messages: number;
}

/** What speaks in a file that was read without a map. */
export function voicesOf(plain: Show): Voice[] {
  const counts = new Map<string, number>();
  for (const song of plain.songs) {
    for (const { action } of song.cues) {
      if (action.kind === 'message') counts.set(action.unitId, (counts.get(action.unitId) ?? 0) + 1);
    }
  }
  const { ports } = indexShow(plain);
  return plain.units.map((u) => ({
    id: u.id,
    name: u.name,
    port: u.input?.from === 'port' ? (ports.get(u.input.portId)?.name ?? '') : '',
    channel: u.channel,
    messages: counts.get(u.id) ?? 0,
  }));
}

/** A song of a file without what some of its voices send; its frame stays. */
export const withoutVoices = (song: Song, leftOut: ReadonlySet<string>): Song => ({
  ...song,
  cues: song.cues.filter(({ action }) => action.kind !== 'message' || !leftOut.has(action.unitId)),
});

/** A file's show without what is sent on some channels, counted from 1, and without the units that only that was for. */
export function withoutChannels(plain: Show, channels: ReadonlySet<number>): Show {
  const speaks = new Set<string>();
  for (const { action } of plain.songs.flatMap((s) => s.cues)) {
    if (action.kind !== 'message') continue;
    const status = Number.parseInt(action.bytes.slice(0, 2), 16);
    if (status < 0xf0 && channels.has((status & 0x0f) + 1)) speaks.add(action.unitId);
  }
  const units = plain.units.filter((u) => !speaks.has(u.id));
  const used = new Set(units.flatMap((u) => (u.input?.from === 'port' ? [u.input.portId] : [])));
  return {
    ...plain,
    units,
    ports: plain.ports.filter((p) => used.has(p.id)),
    songs: plain.songs.map((s) => withoutVoices(s, speaks)),
  };
}

/** For each voice the unit of the show that it most likely speaks to: by name, else the only one on its channel, best on a port of the same name. */
export function matchVoices(show: Show, voices: readonly Voice[]): ReadonlyMap<string, string | null> {
  const { ports } = indexShow(show);
  const portName = (unit: Unit): string =>
    unit.input?.from === 'port' ? (ports.get(unit.input.portId)?.name ?? '').toLowerCase() : '';
  return new Map(
    voices.map((voice) => {
      const named = show.units.find((u) => u.name.toLowerCase() === voice.name.toLowerCase());
      if (named) return [voice.id, named.id];
      const near = show.units.filter((u) => u.channel === voice.channel && u.profile.senders.length === 0);
      const onPort = near.filter((u) => portName(u) === voice.port.toLowerCase());
      const fits = onPort.length > 0 ? onPort : near;
      return [voice.id, fits.length === 1 ? fits[0]!.id : null];
    }),
  );
}
