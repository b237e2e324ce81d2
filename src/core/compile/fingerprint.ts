import { entry } from '../groups';
import { contextOf, routeTo } from '../meaning';
import { wireText, type UnitSpec, type Wanted } from '../rig';
import { indexShow, type Show } from '../show';
import type { Micros } from '../time';
import type { CompiledSong } from './compileSong';

/** 64 bits of FNV-1a in two halves with different starts; enough that no two contents of one show meet. */
class Hash {
  private a = 0x811c9dc5;
  private b = 0x01000193;

  /** Any whole number below 2^53, or a fraction to a hundredth. */
  number(value: number): void {
    const whole = Math.round(value * 100);
    this.word(whole | 0);
    this.word(Math.floor(whole / 2 ** 32) | 0);
  }

  text(value: string): void {
    for (let i = 0; i < value.length; i++) this.word(value.charCodeAt(i));
    // Where one text ends and the next begins is part of it.
    this.word(-1);
  }

  private word(code: number): void {
    this.a = Math.imul(this.a ^ code, 0x01000193);
    this.b = Math.imul(this.b ^ code, 0x85ebca6b);
    this.a ^= this.a >>> 13;
    this.b ^= this.b >>> 15;
  }

  digest(): string {
    return (this.a >>> 0).toString(36) + (this.b >>> 0).toString(36);
  }
}

const unitDigests = new WeakMap<UnitSpec, string>();

/**
 * For each cue, a short text that stays the same as long as it lands as it did: what it wants, the bytes sent for it,
 * when and on what way, the same of the changes shortly before it on each of its units, and of those behind it that may soon
 * silence the unit, what those units and the ones that tell them are like, how far from its place it may land, and the code that compiled it (`engine`). A proof is kept under it.
 * What it bears beyond that may change with what else is on the cable: an edited song is proven anew for that.
 */
export function fingerprints(
  show: Show,
  compiled: CompiledSong,
  wants: readonly Wanted[],
  engine: string,
): ReadonlyMap<string, string> {
  const context = contextOf(show);
  const sent = sentDigests(show, compiled);
  const hashes = new Map<string, Hash>();
  const last = new Map<string, readonly Sent[]>();
  const silences = silencedBy(compiled, wants, context.units, sent);
  const relayed = new Map<string, Set<string>>();
  for (const wanted of wants) {
    const { cueId, unitId } = wanted;
    const hash = entry(hashes, cueId, () => hashOf(engine));
    addWanted(hash, wanted);
    const units = entry(relayed, cueId, () => new Set());
    if (units.has(unitId)) continue;
    // What is sent to a unit for a cue is told once, also for a sweep of hundreds of values.
    units.add(unitId);
    hash.number(show.tolerance.after);
    hash.number(show.tolerance.before);
    const own = sent.get(cueId);
    // A clock is for all units of its port; relayed messages are sent to other units.
    const digest = own?.get(unitId) ?? own?.get('') ?? (wanted.relayed && own ? [...own.values()].join(' ') : '');
    const unit = context.units.get(unitId);
    hash.text(digest);
    const before = (last.get(unitId) ?? []).filter((s, i, all) => i === all.length - 1 || s.at > wanted.due - SOON);
    for (const { digest: of } of before) hash.text(of);
    hash.text(silences.get(wanted) ?? '');
    hash.text(unit ? unitDigest(unit) : '');
    for (const id of wanted.relayed ? (own?.keys() ?? []) : []) {
      const teller = context.units.get(id);
      if (teller) hash.text(unitDigest(teller));
    }
    if (digest !== '') last.set(unitId, [...before, { at: wanted.due, digest }]);
  }
  return new Map([...hashes].map(([cueId, hash]) => [cueId, hash.digest()]));
}

/** What is sent behind a change so soon that it may not be heard: its unit is silent while the next preset loads. */
function silencedBy(
  { events }: CompiledSong,
  wants: readonly Wanted[],
  units: ReadonlyMap<string, UnitSpec>,
  sent: ReadonlyMap<string, ReadonlyMap<string, string>>,
): ReadonlyMap<Wanted, string> {
  const first = new Map<string, Map<string, Micros>>();
  for (const { cueId, unitId, at } of events) {
    const of = entry(first, cueId, () => new Map<string, Micros>());
    if (!of.has(unitId)) of.set(unitId, at);
  }
  const found = new Map<Wanted, string>();
  const next = new Map<string, readonly (Sent & { readonly cueId: string })[]>();
  for (const wanted of wants.toReversed()) {
    const { cueId, unitId, due } = wanted;
    if (!units.get(unitId)?.profile.silentInGap) continue;
    const behind = (next.get(unitId) ?? []).filter((s) => s.at < due + SOON);
    found.set(wanted, behind.map((s) => (s.cueId === cueId ? '' : s.digest)).join(' '));
    const at = first.get(cueId)?.get(unitId);
    if (at === undefined || behind.at(-1)?.cueId === cueId) continue;
    next.set(unitId, [...behind, { cueId, at, digest: sent.get(cueId)!.get(unitId)! }]);
  }
  return found;
}

/** What was sent to a unit for one cue: a text for all of it, and when it begins or is due. */
interface Sent {
  readonly at: Micros;
  readonly digest: string;
}

/** A change that is sent on its beat may take this long until it is there. */
const SOON: Micros = 1e6;

function hashOf(engine: string): Hash {
  const hash = new Hash();
  hash.text(engine);
  return hash;
}

/** What was sent and when, by cue and unit, and what the way there is like. */
function sentDigests(show: Show, { events }: CompiledSong): ReadonlyMap<string, ReadonlyMap<string, string>> {
  const hashes = new Map<string, Map<string, Hash>>();
  const roads = new Map<string, string>();
  for (const { cueId, unitId, portId, at, bytes } of events) {
    const units = entry(hashes, cueId, () => new Map<string, Hash>());
    const hash = entry(units, unitId, () => {
      const made = new Hash();
      made.text(entry(roads, `${portId}\n${unitId}`, () => roadText(show, portId, unitId)));
      return made;
    });
    hash.number(at);
    for (const byte of bytes) hash.number(byte);
  }
  return new Map([...hashes].map(([cue, units]) => [cue, new Map([...units].map(([id, h]) => [id, h.digest()]))]));
}

/** The way from a port to a unit, with the times that it takes; to no unit in particular, the port alone. */
function roadText(show: Show, portId: string, unitId: string): string {
  const { ports, units } = indexShow(show);
  const port = ports.get(portId);
  const unit = units.get(unitId);
  const through = (unit && routeTo(show, unit)?.through) ?? [];
  return JSON.stringify([portId, port?.cable, port?.delay, through.map(({ profile }) => profile.times.thru)]);
}

function addWanted(hash: Hash, { unitId, due, landing, relayed, aim }: Wanted): void {
  hash.text(unitId);
  hash.number(due);
  hash.text(landing);
  hash.text(relayed ? 'told' : 'sent');
  hash.text(aim.kind);
  switch (aim.kind) {
    case 'bytes':
      for (const byte of aim.bytes) hash.number(byte);
      break;
    case 'tempo':
      hash.text(aim.by);
      hash.number(aim.interval);
      break;
    case 'state':
      hash.number(aim.reload ? 1 : 0);
      hash.number(aim.state.slot ?? -1);
      hash.number(aim.state.variant ?? -1);
      for (const id in aim.state.controls) {
        hash.text(id);
        // Figures of a control may be finer than a hundredth.
        hash.number(aim.state.controls[id]! * 1e4);
      }
  }
}

function unitDigest(unit: UnitSpec): string {
  let digest = unitDigests.get(unit);
  if (digest === undefined) {
    const hash = new Hash();
    hash.text(wireText(unit));
    digest = hash.digest();
    unitDigests.set(unit, digest);
  }
  return digest;
}
