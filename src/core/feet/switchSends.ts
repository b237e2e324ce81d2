import type { Controller, Trigger } from '../addressing';
import { TRIGGERS, slotCount } from '../addressing';
import { decodeMessage, type Bytes } from '../midi';
import {
  feetOf,
  indexShow,
  sourceName,
  type Doing,
  type Feet,
  type FootPage,
  type FootSwitch,
  type Show,
  type Unit,
} from '../show';
import { boatShow } from './boat';
import { callOf } from './calls';
import { WAITS_FOR, unitMessages } from './unitMessages';

/** One message that a switch sends, and for what. */
export interface SwitchMessage {
  /** The doing that it is for, by its place among the switch's; null for the call that the computer hears. */
  readonly doing: number | null;
  /** The unit that it is for; null for the computer, and for bytes as they stand. */
  readonly unitId: string | null;
  readonly bytes: Bytes;
}

/** What a switch does on one trigger. */
export interface TriggerSends {
  readonly trigger: Trigger;
  readonly messages: readonly SwitchMessage[];
  /** The page that it goes to: where the controller keeps it, or one on or back. */
  readonly page: number | 'next' | 'previous' | null;
}

export type HoldKind = keyof Controller['holds'];

/** Something about a switch that its controller cannot do, or that does not come to anything. */
export type SwitchWrong =
  | { readonly what: 'full'; readonly kind: HoldKind; readonly wants: number; readonly holds: number }
  | { readonly what: 'trigger'; readonly trigger: Trigger }
  | { readonly what: 'jump'; readonly together: boolean }
  | { readonly what: 'jump-lost' }
  | { readonly what: 'jump-here' }
  | { readonly what: 'name-long'; readonly name: string; readonly length: number }
  | { readonly what: 'name-letters'; readonly name: string; readonly letters: string }
  | { readonly what: 'no-call'; readonly trigger: Trigger }
  | { readonly what: 'silent' }
  | { readonly what: 'unreached'; readonly units: readonly string[] }
  | { readonly what: 'unknown'; readonly controls: readonly string[] }
  | { readonly what: 'unheard'; readonly doing: number };

export interface SwitchSends {
  readonly entry: FootSwitch | null;
  /** What its display shows. */
  readonly name: string;
  readonly sends: readonly TriggerSends[];
  readonly wrong: readonly SwitchWrong[];
}

const NO_SENDS: SwitchSends = { entry: null, name: '', sends: [], wrong: [] };

/** What stands on a switch of a page: the page's own, or what stands on every page. */
export const entryOn = (feet: Feet, page: FootPage | null, switchId: string): FootSwitch | null =>
  page?.switches.find((s) => s.id === switchId) ?? feet.everywhere.switches.find((s) => s.id === switchId) ?? null;

/** How something that a switch does is called: the name that it was given where it is listed. */
export function doingName(show: Show, does: Doing): string {
  const index = indexShow(show);
  switch (does.kind) {
    case 'tone':
      return index.tones.get(does.toneId)?.name ?? '';
    case 'move':
      return show.moves.find((m) => m.id === does.moveId)?.name ?? '';
    case 'song':
      return index.songs.get(does.songId)?.title ?? '';
    case 'sample':
      return show.audio.find((a) => a.id === does.audioId)?.name ?? '';
    case 'turn':
      return sourceName(show, does.of);
    case 'part':
      return index.players.get(does.playerId)?.name ?? '';
    case 'session':
      return ACT_NAMES[does.act];
    case 'control': {
      const unit = index.units.get(does.unitId);
      return unit?.profile.controls.find((c) => c.id === does.controlId)?.name ?? '';
    }
    case 'message':
      return shortBytes(does.bytes);
    case 'page':
      return typeof does.to === 'string'
        ? does.to === 'next'
          ? 'Page up'
          : 'Page down'
        : pageName(show, does.to.pageId);
  }
}

/** The first bytes of some, as a display has room for. */
const shortBytes = (hex: string): string =>
  (hex.match(/../g) ?? [])
    .slice(0, 3)
    .map((b) => b.toUpperCase())
    .join(' ');

const pageName = (show: Show, pageId: string): string =>
  show.units.flatMap((u) => u.slots).find((s) => s.id === pageId)?.name ?? 'Page';

/** As short as a display has room for. */
const ACT_NAMES: Readonly<Record<Extract<Doing, { kind: 'session' }>['act'], string>> = {
  play: 'Play',
  stop: 'Stop',
  'play-or-stop': 'Play/stop',
  'next-change': 'Next change',
  'previous-change': 'Prev. change',
  'next-song': 'Next song',
  'previous-song': 'Prev. song',
  'choose-next': 'Choose next',
  'choose-previous': 'Choose prev.',
  'start-chosen': 'Start chosen',
  interlude: 'Interlude',
  back: 'Take back',
  panic: 'Panic',
};

/** A name as a display shows it: cut to its length, in the letters that it has. */
export function shownName(name: string, { length, letters }: Controller['display']): string {
  if (letters === 'none' || length === 0) return '';
  const plain = letters === 'any' ? name : plainLetters(name);
  return Array.from(letters === 'capitals' ? plain.toUpperCase() : plain)
    .slice(0, length)
    .join('')
    .replace(/[\s,;:.-]+$/, '');
}

const plainLetters = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replaceAll(/[‘’]/g, "'")
    .replaceAll(/[“”]/g, '"')
    .replaceAll(/[–—]/g, '-')
    .replaceAll('ß', 'ss')
    // What is left beyond the letters of ASCII has no counterpart on such a display.
    .replaceAll(/[^\x20-\x7e]/g, '?');

const KINDS: Readonly<Record<string, Exclude<HoldKind, 'all'>>> = {
  program: 'program',
  control: 'control',
  'note-on': 'note',
  'note-off': 'note',
  exclusive: 'exclusive',
};

/** The kind of a message, for what a switch does when it is held. What cannot be decoded counts as exclusive. */
export const kindOfMessage = (bytes: Bytes): Exclude<HoldKind, 'all'> =>
  KINDS[decodeMessage(bytes)?.kind ?? 'exclusive'] ?? 'exclusive';

const hearable = ({ kind }: Doing): boolean => kind !== 'message' && kind !== 'page';

interface Kept {
  /** All of the show that what switches send depends on. */
  readonly under: readonly unknown[];
  readonly sends: Map<string, SwitchSends>;
}

/** Made once for what is programmed, for as long as what it names stays: an edit of a song touches none of it. */
const made = new WeakMap<Feet, Kept>();

const namesSongs = ({ everywhere, pages }: Feet): boolean =>
  [everywhere, ...pages].some((l) => l.switches.some((s) => s.doings.some((d) => d.does.kind === 'song')));

function keptFor(show: Show, feet: Feet): Kept['sends'] {
  const { units, tones, moves, audio, songs } = show;
  const known = made.get(feet);
  if (known && [units, tones, moves, audio].every((x, i) => x === known.under[i])) {
    if (known.under[4] === songs || !namesSongs(feet)) return known.sends;
  }
  const sends = new Map<string, SwitchSends>();
  made.set(feet, { under: [units, tones, moves, audio, songs], sends });
  return sends;
}

/** All that a switch sends on a page (null: what stands on every page), and what is wrong with it. */
export function switchSends(show: Show, unitId: string, pageId: string | null, switchId: string): SwitchSends {
  const feet = show.feet.find((f) => f.id === unitId);
  if (!feet) return NO_SENDS;
  const sends = keptFor(show, feet);
  const key = `${pageId ?? ''}/${switchId}`;
  let found = sends.get(key);
  if (!found) sends.set(key, (found = makeSends(show, unitId, pageId, switchId)));
  return found;
}

function makeSends(show: Show, unitId: string, pageId: string | null, switchId: string): SwitchSends {
  const unit = indexShow(show).units.get(unitId);
  const controller = unit?.profile.controller;
  if (!unit || !controller) return NO_SENDS;
  const feet = feetOf(show, unitId);
  const page = feet.pages.find((p) => p.id === pageId) ?? null;
  const entry = entryOn(feet, page, switchId);
  if (!entry) return NO_SENDS;
  const place = {
    page: (pageId === null ? undefined : indexShow(show).slots(unitId).get(pageId)?.index) ?? 0,
    switch: controller.switches.findIndex((s) => s.id === switchId),
  };
  return new SwitchMaker(show, unit, controller, feet, entry, pageId).make(place);
}

/** Puts together what one switch sends. */
class SwitchMaker {
  private readonly wrong: SwitchWrong[] = [];
  private readonly left: Record<HoldKind, number>;
  private readonly wants: Record<HoldKind, number> = { program: 0, control: 0, note: 0, exclusive: 0, all: 0 };
  private readonly lists = new Map<Trigger, SwitchMessage[]>();
  private readonly pages = new Map<Trigger, TriggerSends['page']>();

  constructor(
    private readonly show: Show,
    private readonly unit: Unit,
    private readonly controller: Controller,
    private readonly feet: Feet,
    private readonly entry: FootSwitch,
    private readonly pageId: string | null,
  ) {
    this.left = { ...controller.holds };
  }

  make(place: { readonly page: number; readonly switch: number }): SwitchSends {
    const { controller, entry, feet, unit } = this;
    const triggers = TRIGGERS.filter((t) => entry.doings.some((d) => d.on === t));
    // Calls first: without them the computer does not know what was meant.
    for (const trigger of triggers) {
      if (!controller.triggers.includes(trigger)) {
        this.wrong.push({ what: 'trigger', trigger });
        continue;
      }
      if (!feet.calls || !entry.doings.some((d) => d.on === trigger && hearable(d.does))) continue;
      const call = callOf(unit.profile, controller, { ...place, trigger });
      if (call) this.add(trigger, { doing: null, unitId: null, bytes: call });
      else this.wrong.push({ what: 'no-call', trigger });
    }
    for (const trigger of triggers) if (controller.triggers.includes(trigger)) this.addDoings(trigger);
    this.checkRoom();
    this.checkName();
    const sends = TRIGGERS.flatMap((trigger): TriggerSends[] => {
      const messages = this.lists.get(trigger) ?? [];
      const page = this.pages.get(trigger) ?? null;
      return messages.length > 0 || page !== null ? [{ trigger, messages, page }] : [];
    });
    if (sends.length === 0 && this.wrong.length === 0) this.wrong.push({ what: 'silent' });
    return { entry, name: shownName(switchTitle(this.show, entry), controller.display), sends, wrong: this.wrong };
  }

  private addDoings(trigger: Trigger): void {
    const { entry, show, unit } = this;
    const boat = boatShow(show, unit.id);
    const unreached = new Set<string>();
    const unknown: string[] = [];
    const canWait =
      this.controller.triggers.includes(WAITS_FOR) &&
      trigger === 'press' &&
      !entry.doings.some((d) => d.on === WAITS_FOR || d.on === 'long' || d.on === 'double' || d.on === 'again');
    for (const [doing, { on, does }] of entry.doings.entries()) {
      if (on !== trigger) continue;
      if (does.kind === 'page') {
        this.jump(trigger, does.to);
        continue;
      }
      const own = unitMessages(boat, does);
      for (const { unitId, bytes, waits } of own.messages) {
        this.add(waits && canWait ? WAITS_FOR : trigger, { doing, unitId, bytes });
      }
      for (const id of own.unreached) unreached.add(id);
      unknown.push(...own.unknown);
      if (does.kind !== 'message' && !this.feet.calls && own.messages.length === 0) {
        this.wrong.push({ what: 'unheard', doing });
      }
    }
    // Where no cable is planned at all there is no emergency wiring to be wrong.
    if (unreached.size > 0 && this.feet.boat.length > 0) this.wrong.push({ what: 'unreached', units: [...unreached] });
    if (unknown.length > 0) this.wrong.push({ what: 'unknown', controls: unknown });
  }

  private add(trigger: Trigger, message: SwitchMessage): void {
    const kind = kindOfMessage(message.bytes);
    this.wants[kind] += 1;
    this.wants.all += 1;
    if (this.left[kind] === 0 || this.left.all === 0) return;
    this.left[kind] -= 1;
    this.left.all -= 1;
    const list = this.lists.get(trigger);
    if (list) list.push(message);
    else this.lists.set(trigger, [message]);
  }

  private jump(trigger: Trigger, to: Extract<Doing, { kind: 'page' }>['to']): void {
    const { jumps } = this.controller;
    const together = this.entry.doings.some((d) => d.does.kind !== 'page');
    if (jumps === 'none' || (jumps === 'alone' && together)) {
      this.wrong.push({ what: 'jump', together: jumps === 'alone' });
      return;
    }
    if (typeof to === 'string') {
      this.pages.set(trigger, to);
      return;
    }
    const index = indexShow(this.show).slots(this.unit.id).get(to.pageId)?.index;
    if (index === undefined || index >= slotCount(this.unit.profile.plan)) this.wrong.push({ what: 'jump-lost' });
    else {
      if (to.pageId === this.pageId) this.wrong.push({ what: 'jump-here' });
      this.pages.set(trigger, index);
    }
  }

  private checkRoom(): void {
    for (const kind of ['program', 'control', 'note', 'exclusive', 'all'] as const) {
      const holds = this.controller.holds[kind];
      const wants = this.wants[kind];
      if (wants > holds) this.wrong.push({ what: 'full', kind, wants, holds });
    }
  }

  private checkName(): void {
    const { display } = this.controller;
    const name = switchTitle(this.show, this.entry);
    if (display.letters === 'none' || display.length === 0) return;
    // A name that follows from what the switch does is cut in silence; one that was typed for it is not.
    if (this.entry.name === '') return;
    if (Array.from(name).length > display.length) this.wrong.push({ what: 'name-long', name, length: display.length });
    if (display.letters !== 'any' && plainLetters(name) !== name) {
      this.wrong.push({ what: 'name-letters', name, letters: display.letters });
    }
  }
}

/** What a switch is called: the name that was typed for it, or that of the first thing that it does. */
export function switchTitle(show: Show, { name, doings }: FootSwitch): string {
  if (name !== '') return name;
  const first = doings.find((d) => d.does.kind !== 'page') ?? doings[0];
  return first ? doingName(show, first.does) : '';
}
