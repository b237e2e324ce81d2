import { encodeValue } from '../addressing';
import { NOT_REACTED, react, returnsTo, routeTo, type Act } from '../meaning';
import { controlChange, noteOn, programChange, type Bytes } from '../midi';
import { indexShow, putReaction, type Reaction, type Show } from '../show';
import { finding, type Check } from './finding';

/** Messages that a reaction takes: at both ends of its range and in the middle. */
function examples({ hears }: Reaction): readonly Bytes[] {
  const { kind, low, high } = hears;
  const channel = hears.channel ?? 1;
  const number = hears.number ?? 0;
  const values = [...new Set([high, Math.round((low + high) / 2), low])];
  if (kind === 'program') return [programChange(channel, number)];
  return values.map((v) => {
    switch (kind) {
      case 'note':
        return noteOn(channel, number, Math.max(1, v));
      case 'control':
        return controlChange(channel, number, v);
      case 'pressure':
        return [0xd0 | (channel - 1), v];
      case 'bend':
        return [0xe0 | (channel - 1), 0, v];
    }
  });
}

/** Messages that an act puts on a port at once; what a song or a tone sends is not followed. */
function sentBy(show: Show, act: Act): readonly { readonly portId: string; readonly bytes: Bytes }[] {
  if (act.kind === 'send') return [act];
  if (act.kind !== 'set') return [];
  const unit = indexShow(show).units.get(act.unitId);
  const route = unit && routeTo(show, unit);
  const control = unit?.profile.controls.find((c) => c.id === act.controlId);
  if (!unit || !route || !control) return [];
  return encodeValue(control.encoding, unit.channel, act.value).map((bytes) => ({ portId: route.portId, bytes }));
}

/** How often something is followed through the reactions and the wires. */
const LIMIT = 12;

/** What a reaction sends comes back over the wires to where it is heard again, perhaps by way of others: it never ends. */
export const firesItself: Check = (show) =>
  show.reactions.flatMap((reaction, i) => {
    const way = reaction.on ? circle(show, reaction) : null;
    if (!way) return [];
    const data = { reaction: i + 1, others: way.length - 1 };
    const place = { in: 'reaction', reactionId: reaction.id } as const;
    return [finding('night.fires-itself', 'error', place, data, putReaction(show, { ...reaction, on: false }))];
  });

function circle(show: Show, reaction: Reaction): readonly string[] | null {
  const ports = reaction.hears.portId === null ? show.ports.map((p) => p.id) : [reaction.hears.portId];
  const around = { songId: reaction.songId, at: 0 };
  let arrivals = ports.flatMap((portId) =>
    examples(reaction).map((bytes) => ({ portId, bytes, way: [] as readonly string[] })),
  );
  for (let i = 0; i < LIMIT && arrivals.length > 0; i++) {
    const next: typeof arrivals = [];
    for (const { portId, bytes, way } of arrivals) {
      for (const { reactionId, acts } of react(show, NOT_REACTED, around, portId, bytes).steps) {
        if (acts.length === 0) continue;
        if (way.length > 0 && reactionId === reaction.id) return way;
        // The first time only what this reaction itself sends is followed.
        if (way.length === 0 && reactionId !== reaction.id) continue;
        for (const sent of acts.flatMap((act) => sentBy(show, act))) {
          for (const back of returnsTo(show, sent.portId)) {
            next.push({ portId: back, bytes: sent.bytes, way: [...way, reactionId] });
          }
        }
      }
    }
    arrivals = next.slice(0, 200);
  }
  return null;
}

/** A note that triggers something also reaches units that may sound it. */
export const triggerSounds: Check = (show) => [
  ...show.reactions.flatMap((r, i) => {
    if (!r.on || r.hears.kind !== 'note') return [];
    const { hears, swallow } = r;
    const place = { in: 'reaction', reactionId: r.id } as const;
    const ports = show.ports.filter((p) => p.active && (hears.portId === null || p.id === hears.portId));
    const passed = swallow ? [] : ports.filter((p) => p.softThru).flatMap((p) => heardOn(show, p.id, hears.channel));
    const direct = ports.flatMap((p) => besides(show, p.id, hears.channel));
    const units = [...new Set([...passed, ...direct])];
    if (units.length === 0) return [];
    const fix = passed.length > 0 ? putReaction(show, { ...r, swallow: true }) : null;
    return [
      finding('night.trigger-sounds', 'warning', place, { what: i + 1, units, passedOn: passed.length > 0 }, fix),
    ];
  }),
  ...show.sets.flatMap((set) =>
    set.entries.flatMap((entry) => {
      const launch = entry.kind === 'song' ? entry.launch : null;
      if (!launch?.bytes.startsWith('9')) return [];
      const channel = Number.parseInt(launch.bytes[1]!, 16) + 1;
      const units = besides(show, launch.portId, channel);
      if (units.length === 0) return [];
      const place = { in: 'entry', setId: set.id, entryId: entry.id } as const;
      const what = indexShow(show).songs.get(entry.kind === 'song' ? entry.songId : '')?.title ?? '';
      return [finding('night.trigger-sounds', 'warning', place, { what, units, passedOn: false })];
    }),
  ),
];

const listens = (of: number | 'all', channel: number | null): boolean =>
  channel === null || of === 'all' || of === channel;

/** Units that receive what leaves a port on a channel. */
const heardOn = (show: Show, portId: string, channel: number | null): string[] =>
  show.units
    .filter((u) => u.profile.senders.length === 0 && routeTo(show, u)?.portId === portId && listens(u.listens, channel))
    .map((u) => u.name);

/** Units behind a controller that also leads to a port: they receive its messages without the computer. */
const besides = (show: Show, portId: string, channel: number | null): string[] => {
  const controllers = new Set(
    show.units.filter((u) => u.returns?.portId === portId && u.profile.senders.length > 0).map((u) => u.id),
  );
  return show.units
    .filter((u) => u.input?.from === 'unit' && controllers.has(u.input.unitId) && listens(u.listens, channel))
    .map((u) => u.name);
};

/** All that a reaction waits for is swallowed by one above it. */
export const reactionUnheard: Check = (show) =>
  show.reactions.flatMap((reaction, i) => {
    if (!reaction.on) return [];
    const by = show.reactions.slice(0, i).findIndex((r) => covers(r, reaction));
    if (by < 0) return [];
    const place = { in: 'reaction', reactionId: reaction.id } as const;
    return [finding('night.reaction-unheard', 'warning', place, { reaction: i + 1, by: by + 1 })];
  });

/** Whether a reaction swallows everything that another waits for. */
function covers(above: Reaction, below: Reaction): boolean {
  const [a, b] = [above.hears, below.hears];
  const wider = <T>(of: T | null, than: T | null): boolean => of === null || of === than;
  return (
    above.on &&
    above.swallow &&
    wider(above.songId, below.songId) &&
    a.kind === b.kind &&
    wider(a.portId, b.portId) &&
    wider(a.channel, b.channel) &&
    wider(a.number, b.number) &&
    (a.kind === 'program' || (a.low <= b.low && a.high >= b.high))
  );
}
