import { entry } from '../groups';
import { contextOf } from '../meaning';
import { wireText, type UnitSpec, type Wanted } from '../rig';
import type { Show } from '../show';
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
 * For each cue, a short text that stays the same exactly as long as nothing that its proof
 * rests on changes: what it wants, the bytes sent for it and when, the same of the change
 * before it on each of its units, what those units are like, how far from its place it may land, and the
 * code that compiled it (`engine`). A proof is kept under it.
 */
export function fingerprints(
  show: Show,
  compiled: CompiledSong,
  wants: readonly Wanted[],
  engine: string,
): ReadonlyMap<string, string> {
  const context = contextOf(show);
  const sent = sentDigests(compiled);
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
    if (digest !== '') last.set(unitId, digest);
  }
  return new Map([...hashes].map(([cueId, hash]) => [cueId, hash.digest()]));
}

function hashOf(engine: string): Hash {
  const hash = new Hash();
  hash.text(engine);
  return hash;
}

/** What was sent and when, by cue and unit. */
function sentDigests({ events }: CompiledSong): ReadonlyMap<string, ReadonlyMap<string, string>> {
  const hashes = new Map<string, Map<string, Hash>>();
  for (const { cueId, unitId, portId, at, bytes } of events) {
    const units = entry(hashes, cueId, () => new Map<string, Hash>());
    const hash = entry(units, unitId, () => new Hash());
    hash.text(portId);
    hash.number(at);
    for (const byte of bytes) hash.number(byte);
  }
  return new Map([...hashes].map(([cue, units]) => [cue, new Map([...units].map(([id, h]) => [id, h.digest()]))]));
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
