import { valueRange } from '../../../core/addressing';
import { fromHex, wholeMessages } from '../../../core/midi';
import { SESSION_ACTS, pageTitle, pagesOf, sourcesOf, type Doing, type Show } from '../../../core/show';
import { SESSION_WORDS, doingWords } from '../../../wording';
import type { Found } from '../../widgets/Find';

/** Something that a switch can do, as it is found by its name. */
interface Offer extends Found {
  readonly does: Doing;
}

const KEPT = 60;

/** All that a switch of a controller can do, in the order in which it is wanted most. */
function offersOf(show: Show, unitId: string): readonly Offer[] {
  const offer = (id: string, aside: string, does: Doing): Offer => ({
    id,
    name: doingWords(show, unitId, does),
    aside,
    does,
  });
  const core = new Set(show.core);
  const tones = [...show.tones].sort((a, b) => Number(core.has(b.id)) - Number(core.has(a.id)));
  return [
    ...tones.map((t) => offer(`tone/${t.id}`, 'tone', { kind: 'tone', toneId: t.id })),
    ...show.moves.map((m) => offer(`move/${m.id}`, 'move', { kind: 'move', moveId: m.id })),
    ...SESSION_ACTS.map((act) => ({
      ...offer(`act/${act}`, 'playback', { kind: 'session', act } as const),
      name: capital(SESSION_WORDS[act]),
    })),
    ...pagesOf(show, unitId).map((p) => ({
      ...offer(`page/${p.id}`, 'page', { kind: 'page', to: { pageId: p.id } } as const),
      name: `To ${pageTitle(show, unitId, p.id)}`,
    })),
    { ...offer('page/next', 'page', { kind: 'page', to: 'next' }), name: 'To the next page' },
    { ...offer('page/previous', 'page', { kind: 'page', to: 'previous' }), name: 'To the page before' },
    ...sourcesOf(show).map((s) => ({
      ...offer(`turn/${s.id}`, 'sound', { kind: 'turn', of: s.id, how: 'flip' } as const),
      name: `${s.name}, on and off`,
    })),
    ...show.players.map((p) => ({
      ...offer(`part/${p.id}`, 'sound', { kind: 'part', playerId: p.id, how: 'flip' } as const),
      name: `Part of ${p.name}, on and off`,
    })),
    ...show.songs.map((s) => ({
      ...offer(`song/${s.id}`, 'song', { kind: 'song', songId: s.id, how: 'start' } as const),
      name: `Start ${s.title}`,
    })),
    ...show.audio.map((a) => offer(`sample/${a.id}`, 'sound', { kind: 'sample', audioId: a.id, gain: 0 })),
    ...show.units
      .filter((u) => u.id !== unitId && u.profile.controller === null)
      .flatMap((u) =>
        u.profile.controls.map((c): Offer => {
          const { high } = valueRange(c.encoding);
          const does: Doing = { kind: 'control', unitId: u.id, controlId: c.id, value: c.rest ?? high };
          return { id: `control/${u.id}/${c.id}`, name: `${u.name}: ${c.name}`, aside: 'control', does };
        }),
      ),
  ];
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const kept = new WeakMap<Show, Map<string, readonly Offer[]>>();

function offers(show: Show, unitId: string): readonly Offer[] {
  let made = kept.get(show);
  if (!made) kept.set(show, (made = new Map<string, readonly Offer[]>()));
  let found = made.get(unitId);
  if (!found) made.set(unitId, (found = offersOf(show, unitId)));
  return found;
}

/** What fits a text that was typed: by the beginnings of its words, what begins with it first; bytes in hexadecimal are themselves. */
export function searchDoings(show: Show, unitId: string, text: string): readonly Found[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const raw = bytesOf(text);
  const found = offers(show, unitId).filter(({ name }) => {
    const own = name.toLowerCase().split(/[\s,:]+/);
    return words.every((w) => own.some((o) => o.startsWith(w)));
  });
  const whole = text.trim().toLowerCase();
  const begins = (o: Offer): number => Number(!o.name.toLowerCase().startsWith(whole));
  const ranked = found.toSorted((a, b) => begins(a) - begins(b));
  const bytes: Found[] = raw
    ? [{ id: `bytes/${raw}`, name: `Bytes ${text.trim().toUpperCase()}`, aside: 'as they stand' }]
    : [];
  return [...bytes, ...ranked].slice(0, KEPT);
}

/** What was picked from the list. */
export function doingOf(show: Show, unitId: string, id: string): Doing | null {
  if (id.startsWith('bytes/')) return { kind: 'message', bytes: id.slice('bytes/'.length) };
  return offers(show, unitId).find((o) => o.id === id)?.does ?? null;
}

/** Whole messages in hexadecimal; null for anything else. */
export function bytesOf(text: string): string | null {
  const bytes = fromHex(text);
  if (!bytes || bytes.length < 2 || bytes.length > 1000) return null;
  return wholeMessages(bytes) ? bytes.map((b) => b.toString(16).padStart(2, '0')).join('') : null;
}
