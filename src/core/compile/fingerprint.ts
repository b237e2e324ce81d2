import { entry } from '../groups';
import { contextOf, routeTo } from '../meaning';
import { wireText, type UnitSpec, type Wanted } from '../rig';
import { indexShow, type Show } from '../show';
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
 * when and on what way, the same of the change before it on each of its units, what those units and the ones that tell
 * them are like, how far from its place it may land, and the code that compiled it (`engine`). A proof is kept under it.
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
  const last = new Map<string, string>();
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
    hash.text(last.get(unitId) ?? '');
    hash.text(unit ? unitDigest(unit) : '');
    for (const id of wanted.relayed ? (own?.keys() ?? []) : []) {
      const teller = context.units.get(id);
      if (teller) hash.text(unitDigest(teller));
    }
    if (digest !== '') last.set(unitId, digest);
  }
  return new Map([...hashes].map(([cueId, hash]) => [cueId, hash.digest()]));
}

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
