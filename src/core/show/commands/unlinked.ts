import type { Edit, Path } from '../edits';
import type { Doing, Feet, FootPage, Reaction, Show, ShowSet } from '../schema';

/** Something of the show that is taken away. */
export type Gone =
  | { readonly kind: 'player' | 'port' | 'unit' | 'tone' | 'song' | 'stem'; readonly id: string }
  | { readonly kind: 'moves'; readonly left: ReadonlySet<string> };

/** Whether a reaction hears, or does something with, what is gone. */
function names({ songId, hears, does }: Reaction, gone: Gone): boolean {
  if (gone.kind === 'moves') return does.kind === 'move' && !gone.left.has(does.moveId);
  const { id } = gone;
  switch (gone.kind) {
    case 'player':
      return does.kind === 'part' && does.playerId === id;
    case 'stem':
      return (does.kind === 'level' || does.kind === 'turn') && does.of === id;
    case 'unit':
      // What reacts with a unit's controls goes with the controls.
      return false;
    case 'port':
      return hears.portId === id || (does.kind === 'message' && does.portId === id);
    case 'tone':
      return does.kind === 'tone' && does.toneId === id;
    case 'song':
      return songId === id || (does.kind === 'song' && does.songId === id);
  }
}

function setWithout(set: ShowSet, gone: Gone): ShowSet {
  switch (gone.kind) {
    case 'player':
      return { ...set, missing: set.missing.filter((id) => id !== gone.id) };
    case 'unit':
      return { ...set, tonight: set.tonight.filter((t) => t.unitId !== gone.id) };
    case 'port':
    case 'tone':
      return {
        ...set,
        tonight: set.tonight.map((t) =>
          t.how === 'other' && gone.kind === 'port' && t.portId === gone.id ? { ...t, portId: null } : t,
        ),
        entries: set.entries.map((e) => {
          if (e.kind !== 'song') return e;
          if (gone.kind === 'tone') return e.bridgeToneId === gone.id ? { ...e, bridgeToneId: null } : e;
          return e.launch?.portId === gone.id ? { ...e, launch: null } : e;
        }),
      };
    case 'song':
    case 'stem':
    case 'moves':
      return set;
  }
}

const set = (path: Path, before: unknown, after: unknown): Edit[] =>
  JSON.stringify(before) === JSON.stringify(after) ? [] : [{ kind: 'set', path, before, after }];

/** Whether a switch of a foot controller does something with what is gone. */
function does(doing: Doing, gone: Gone): boolean {
  if (gone.kind === 'moves') return doing.kind === 'move' && !gone.left.has(doing.moveId);
  if (gone.kind === 'tone') return doing.kind === 'tone' && doing.toneId === gone.id;
  if (gone.kind === 'player') return doing.kind === 'part' && doing.playerId === gone.id;
  if (gone.kind === 'stem') return doing.kind === 'turn' && doing.of === gone.id;
  return gone.kind === 'song' && doing.kind === 'song' && doing.songId === gone.id;
}

type Layer = Feet['everywhere'];

/** A page, or what stands on all of them, with only those doings and pedals that are kept; switches with nothing left go. */
export function keptLayer<L extends Layer>(
  layer: L,
  keepsDoing: (doing: Doing) => boolean,
  keepsPedal: (pedal: Layer['pedals'][number]) => boolean = () => true,
): L {
  const switches = layer.switches.flatMap((s) => {
    const doings = s.doings.filter((d) => keepsDoing(d.does));
    if (doings.length === s.doings.length) return [s];
    return doings.length > 0 ? [{ ...s, doings }] : [];
  });
  return { ...layer, switches, pedals: layer.pedals.filter(keepsPedal) };
}

/** All layers of a controller, each changed. */
export const changedLayers = (feet: Feet, change: <L extends Layer>(layer: L) => L): Feet => ({
  ...feet,
  everywhere: change(feet.everywhere),
  pages: feet.pages.map((p) => change(p)),
});

function feetWithout(feet: readonly Feet[], gone: Gone): readonly Feet[] {
  if (gone.kind === 'unit') {
    return feet
      .filter((f) => f.id !== gone.id)
      .map((f) => ({ ...f, boat: f.boat.filter((b) => b.id !== gone.id && b.from !== gone.id) }));
  }
  const ofSong = (p: FootPage): FootPage => (gone.kind === 'song' && p.songId === gone.id ? { ...p, songId: null } : p);
  return feet.map((f) => {
    const kept = changedLayers(f, (l) => keptLayer(l, (d) => !does(d, gone)));
    return { ...kept, pages: kept.pages.map(ofSong) };
  });
}

/** Time code that neither comes from a port nor goes to it. */
function codeWithout(timeCode: Show['timeCode'], portId: string): Show['timeCode'] {
  const { sends } = timeCode;
  if (timeCode.portId !== portId && !sends.includes(portId)) return timeCode;
  return {
    ...timeCode,
    portId: timeCode.portId === portId ? null : timeCode.portId,
    sends: sends.filter((id) => id !== portId),
  };
}

/**
 * What the night has of something that is taken away goes with it: reactions, launches, bridging
 * tones, who and what is missing, clocks and time code that are followed or sent, whose part and of what a recording is, what foot switches do with it.
 */
export function unlinked(show: Show, gone: Gone): Edit[] {
  const reactions = show.reactions.filter((r) => !names(r, gone));
  return [
    ...set(['reactions'], show.reactions, reactions),
    ...set(['feet'], show.feet, feetWithout(show.feet, gone)),
    ...(gone.kind === 'port' ? set(['timeCode'], show.timeCode, codeWithout(show.timeCode, gone.id)) : []),
    ...show.sets.flatMap((s) => {
      const { entries, missing, tonight } = setWithout(s, gone);
      const path: Path = ['sets', { id: s.id }];
      return [
        ...set([...path, 'entries'], s.entries, entries),
        ...set([...path, 'missing'], s.missing, missing),
        ...set([...path, 'tonight'], s.tonight, tonight),
      ];
    }),
    ...show.songs.flatMap(({ id, tracks, followsPortId }) => {
      const path: Path = ['songs', { id }];
      if (gone.kind === 'port' && followsPortId === gone.id) {
        return set([...path, 'followsPortId'], followsPortId, null);
      }
      if (gone.kind !== 'player' && gone.kind !== 'stem') return [];
      const field = gone.kind === 'player' ? 'playerId' : 'stemId';
      const after = tracks.map((t) => (t[field] === gone.id ? { ...t, [field]: null } : t));
      return set([...path, 'tracks'], tracks, after);
    }),
  ];
}
