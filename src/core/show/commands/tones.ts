import { LIMITS } from '../limits';
import type { Edit, Path } from '../edits';
import { newPart, newTone } from '../builders';
import { indexShow, openingOf } from '../find';
import type { Show, Tone, TonePart } from '../schema';
import { unlinked } from './unlinked';

const tonePath = (toneId: string): Path => ['tones', { id: toneId }];

/** Adds a tone at the end of the list. */
export const addTone = (show: Show, tone: Tone): Edit => ({
  kind: 'insert',
  path: ['tones'],
  index: show.tones.length,
  value: tone,
});

/** Songs that use a tone, as a cue or as their opening; ids. */
export const toneUses = (show: Show, toneId: string): string[] =>
  show.songs
    .filter(
      (s) =>
        s.openingToneId === toneId ||
        openingOf(show, s) === toneId ||
        s.cues.some((c) => c.action.kind === 'tone' && c.action.toneId === toneId),
    )
    .map((s) => s.id);

/** Takes a tone away, and from the core tones. Null while a song uses it. */
export function removeTone(show: Show, toneId: string): Edit | null {
  const index = show.tones.findIndex((t) => t.id === toneId);
  if (index < 0 || toneUses(show, toneId).length > 0 || show.openingToneId === toneId) return null;
  const remove: Edit = { kind: 'remove', path: ['tones'], index, value: show.tones[index] };
  const out = setCore(
    show,
    show.core.filter((id) => id !== toneId),
  );
  const links = unlinked(show, { kind: 'tone', id: toneId });
  return out || links.length > 0 ? { kind: 'group', edits: [...(out ? [out] : []), ...links, remove] } : remove;
}

/** Takes a tone away with every cue that places it, and as an opening wherever it is one. */
export function removeToneEverywhere(show: Show, toneId: string): Edit | null {
  const index = show.tones.findIndex((t) => t.id === toneId);
  if (index < 0) return null;
  const edits: Edit[] = [];
  for (const song of show.songs) {
    const path: Path = ['songs', { id: song.id }];
    const cues = song.cues.filter((c) => c.action.kind !== 'tone' || c.action.toneId !== toneId);
    if (cues.length < song.cues.length) {
      edits.push({ kind: 'set', path: [...path, 'cues'], before: song.cues, after: cues });
    }
    if (song.openingToneId === toneId) {
      edits.push({ kind: 'set', path: [...path, 'openingToneId'], before: toneId, after: null });
    }
  }
  const core = setCore(
    show,
    show.core.filter((id) => id !== toneId),
  );
  const opening = show.openingToneId === toneId ? setShowOpening(show, null) : null;
  const others = [core, opening, ...unlinked(show, { kind: 'tone', id: toneId })].filter((e) => e !== null);
  return {
    kind: 'group',
    edits: [...edits, ...others, { kind: 'remove', path: ['tones'], index, value: show.tones[index] }],
  };
}

/** Most tones that the core may have: there are that many number keys. */
export const CORE_LIMIT = 9;

/** Says which tones every song leans on, in order. Null when nothing would change, or for more than nine. */
export function setCore(show: Show, core: readonly string[]): Edit | null {
  if (core.length > CORE_LIMIT || JSON.stringify(core) === JSON.stringify(show.core)) return null;
  return { kind: 'set', path: ['core'], before: show.core, after: core };
}

/** Says which tone songs open with that have none of their own; null for none. */
export function setShowOpening(show: Show, toneId: string | null): Edit | null {
  if (toneId === show.openingToneId || (toneId !== null && !indexShow(show).tones.has(toneId))) return null;
  return { kind: 'set', path: ['openingToneId'], before: show.openingToneId, after: toneId };
}

/** Where time code comes from, where it goes, and its frames a second. Null when nothing would change. */
export function setTimeCode(show: Show, change: Partial<Show['timeCode']>): Edit | null {
  const after = { ...show.timeCode, ...change };
  if (JSON.stringify(after) === JSON.stringify(show.timeCode)) return null;
  return { kind: 'set', path: ['timeCode'], before: show.timeCode, after };
}

/** Says how far from its place a change may land. Null when nothing would change, or out of range. */
export function setTolerance(show: Show, tolerance: Show['tolerance']): Edit | null {
  const { after, before } = tolerance;
  if (!(after >= 0 && after <= 1000 && before >= 0 && before <= 10000)) return null;
  if (after === show.tolerance.after && before === show.tolerance.before) return null;
  return { kind: 'set', path: ['tolerance'], before: show.tolerance, after: { after, before } };
}

/** Has a song open as the show says ('show'), or with a tone of its own, or with none (null). */
export function setOpening(show: Show, songId: string, to: string | 'show' | null): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song) return null;
  const after =
    to === 'show'
      ? ({ opening: 'show', openingToneId: null } as const)
      : ({ opening: 'own', openingToneId: to } as const);
  const edits = (['opening', 'openingToneId'] as const)
    .filter((key) => song[key] !== after[key])
    .map((key): Edit => ({ kind: 'set', path: ['songs', { id: songId }, key], before: song[key], after: after[key] }));
  return edits.length === 0 ? null : { kind: 'group', edits };
}

/** Lets a finding be, with a reason; an empty reason takes that back. */
export function acceptFinding(show: Show, key: string, says: string, reason: string): Edit | null {
  const rest = show.accepted.filter((a) => a.key !== key);
  const text = reason.trim().slice(0, 400);
  const after = text === '' ? rest : [...rest, { key, says, reason: text }];
  if (JSON.stringify(after) === JSON.stringify(show.accepted)) return null;
  return { kind: 'set', path: ['accepted'], before: show.accepted, after };
}

/** Renames a tone. Null for an empty name, or the name that it has. */
export function renameTone(show: Show, toneId: string, name: string): Edit | null {
  const tone = indexShow(show).tones.get(toneId);
  const text = name.trim().slice(0, LIMITS.title);
  if (!tone || text === '' || text === tone.name) return null;
  return { kind: 'set', path: [...tonePath(toneId), 'name'], before: tone.name, after: text };
}

/** Says something of a tone, which is printed with it. Null when nothing would change. */
export function setToneNotes(show: Show, toneId: string, text: string): Edit | null {
  const tone = indexShow(show).tones.get(toneId);
  const after = text.trim().slice(0, LIMITS.notes);
  if (!tone || after === tone.notes) return null;
  return { kind: 'set', path: [...tonePath(toneId), 'notes'], before: tone.notes, after };
}

/**
 * Sets what a tone wants of one unit, or, with null, takes the unit out of the tone. Null
 * when nothing would change.
 */
export function setTonePart(show: Show, toneId: string, unitId: string, part: TonePart | null): Edit | null {
  const tone = indexShow(show).tones.get(toneId);
  if (!tone) return null;
  const path: Path = [...tonePath(toneId), 'parts'];
  const index = tone.parts.findIndex((p) => p.unitId === unitId);
  const before = tone.parts[index];
  if (!before) return part && { kind: 'insert', path, index: tone.parts.length, value: part };
  if (!part) return { kind: 'remove', path, index, value: before };
  if (JSON.stringify(part) === JSON.stringify(before)) return null;
  return { kind: 'set', path, before: tone.parts, after: tone.parts.with(index, part) };
}

/**
 * Adds a tone for each named preset of a unit, or for each of its variants, named after it. Those
 * whose name is taken are left out. Null where there is none to add.
 */
export function addTonesOf(show: Show, unitId: string, what: 'presets' | 'variants', newId: () => string): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) return null;
  const parts =
    what === 'presets'
      ? unit.slots
          .filter((s) => s.name !== '')
          .toSorted((a, b) => a.index - b.index)
          .map((s) => ({ name: s.name, part: newPart(unitId, { slotId: s.id }) }))
      : (unit.profile.variants?.names ?? []).map((name, variant) => ({
          name: `${unit.name} ${name || `${unit.profile.variants!.word} ${variant + 1}`}`,
          part: newPart(unitId, { variant }),
        }));
  const taken = new Set(show.tones.map((t) => t.name));
  const tones = parts.flatMap(({ name, part }) => {
    if (taken.has(name)) return [];
    taken.add(name);
    return [newTone(newId(), name.slice(0, LIMITS.title), [part])];
  });
  if (tones.length === 0) return null;
  return {
    kind: 'group',
    edits: tones.map((value, i): Edit => ({ kind: 'insert', path: ['tones'], index: show.tones.length + i, value })),
  };
}
