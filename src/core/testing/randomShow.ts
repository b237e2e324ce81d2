import fc from 'fast-check';
import { newControl, onOff, type Control, type Encoding, type Profile, timesFrom, exactly } from '../addressing';
import { toHex } from '../midi';
import {
  newSong,
  newTone,
  toneCue,
  type Cue,
  type Relay,
  type Show,
  type Song,
  type TonePart,
  type Unit,
} from '../show';
import { modelerProfile, testShow, testUnit } from './rigs';

const scale = { low: -1, high: 1, unit: '', curve: 'linear', points: [] } as const;

/** One control of each kind of encoding that keeps a value, beside those of the modeler. */
const everyKind: readonly Control[] = [
  newControl('zone', 'Zone', { kind: 'zones', number: 60, count: 5 }),
  newControl('row', 'Row', { kind: 'table', number: 61, values: [3, 90, 41, 7] }),
  newControl('turn', 'Turn', { kind: 'flip', number: 62, send: 127, only: null }),
  newControl('held', 'Held', { kind: 'momentary', number: 63, press: 127, release: 0 }),
  newControl('fine', 'Fine', { kind: 'fourteen-bit', number: 17, from: 0, to: 16383, ...scale }),
  newControl('deep', 'Deep', { kind: 'nrpn', number: 300, fine: true, from: 0, to: 16383, ...scale }),
  newControl('coarse', 'Coarse', { kind: 'nrpn', number: 301, fine: false, from: 0, to: 127, ...scale }),
  newControl('key', 'Key', { kind: 'note', first: 40, count: 4, velocity: 90 }),
  newControl('keys', 'Keys', { kind: 'note-table', values: [50, 52, 57, 69], velocity: 64 }),
  newControl('far', 'Far', {
    kind: 'exclusive',
    template: 'F0 7D 01 hh ll ss F7',
    low: 0,
    high: 16383,
    checksum: { kind: 'sum', from: 1, to: 4 },
  }),
  newControl('engage', 'Engage', onOff(64)),
];

/** A value that each of them takes. */
const someValue: Readonly<Record<string, fc.Arbitrary<number>>> = {
  zone: fc.nat(4),
  row: fc.nat(3),
  turn: fc.nat(1),
  held: fc.nat(1),
  fine: fc.integer({ min: -8, max: 8 }).map((v) => v / 8),
  deep: fc.integer({ min: -8, max: 8 }).map((v) => v / 8),
  coarse: fc.integer({ min: -1, max: 1 }),
  key: fc.nat(3),
  keys: fc.nat(3),
  far: fc.nat(16383),
};

const variantEncodings: readonly Encoding[] = [
  { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
  { kind: 'zones', number: 85, count: 8 },
  { kind: 'note', first: 70, count: 8, velocity: 100 },
  // The plan of the modeler has programs of bank 1 up to 51 only.
  { kind: 'program', first: 120, count: 8 },
];

const profile: fc.Arbitrary<Profile> = fc
  .record({
    every: fc.boolean(),
    engages: fc.boolean(),
    variants: fc.constantFrom(...variantEncodings),
    recall: fc.integer({ min: 0, max: 200 }),
    variant: fc.integer({ min: 0, max: 30 }),
    control: fc.integer({ min: 0, max: 10 }),
    // A message or two may slip into less than what a cable takes for them.
    settle: fc.oneof(fc.constant(0), fc.integer({ min: 8, max: 60 })),
    whileSettling: fc.constantFrom('ignore' as const, 'queue' as const),
    loadsVariant: fc.boolean(),
    loadsControls: fc.boolean(),
    when: fc.constantFrom('always' as const, 'differs' as const),
  })
  .map(
    ({
      every,
      engages,
      variants,
      recall,
      variant,
      control,
      settle,
      whileSettling,
      loadsVariant,
      loadsControls,
      when,
    }) => ({
      ...modelerProfile,
      variants: { ...modelerProfile.variants!, encoding: variants },
      controls: every ? [...modelerProfile.controls, ...everyKind] : modelerProfile.controls,
      engage: every && engages ? 'engage' : null,
      plan: { ...modelerProfile.plan, bank: { send: 'msb' as const, when } },
      times: timesFrom({ recall, variant, control, settle }, exactly),
      whileSettling,
      recallLoads: { variant: loadsVariant, controls: loadsControls },
    }),
  );

/** A unit that is ready again, or has loaded, just as something else may arrive: its times are those of messages on a cable, or round. */
const meeting: fc.Arbitrary<Profile> = profile.chain((p) =>
  fc
    .record({
      settle: fc.constantFrom(0, 0.64, 0.96, 1.6, 3.2, 8, 20, 40, 60),
      recall: fc.constantFrom(0, 1.6, 20, 40, 60, 100),
    })
    .map((times) => ({ ...p, times: { ...p.times, settle: exactly(times.settle), recall: exactly(times.recall) } })),
);

const keepsVariant = (p: Profile): Profile => ({ ...p, recallLoads: { ...p.recallLoads, variant: false } });

/** System exclusive passes every channel, so each unit has a device number of its own in it. */
const ownDevice = (profile: Profile, device: number): Profile => ({
  ...profile,
  controls: profile.controls.map((c) =>
    c.encoding.kind === 'exclusive'
      ? { ...c, encoding: { ...c.encoding, template: `F0 7D 0${device} hh ll ss F7` } }
      : c,
  ),
});

/** Values for one or two of the further controls, where the unit has them. */
function more(unit: Unit): fc.Arbitrary<{ controlId: string; value: number }[]> {
  const ids = unit.profile.controls.map((c) => c.id).filter((id) => id in someValue);
  if (ids.length === 0) return fc.constant([]);
  return fc
    .subarray(ids, { maxLength: 2 })
    .chain((chosen) =>
      fc.tuple(...chosen.map((controlId) => someValue[controlId]!.map((value) => ({ controlId, value })))),
    );
}

/** Slots and variants that rules speak of, and one of each besides. */
const RULED = { slots: [9, 18, 27, 36], variants: [0, 2, 3] } as const;

/** What a tone may say of a unit; with `ruled` mostly what rules speak of. */
function part(unit: Unit, ruled: boolean): fc.Arbitrary<TonePart> {
  const slots = ruled ? RULED.slots.map((index) => `${unit.id}-s${index}`) : unit.slots.map((s) => s.id);
  const variant = ruled ? fc.constantFrom(...RULED.variants) : fc.integer({ min: 0, max: 7 });
  return fc.record({
    unitId: fc.constant(unit.id),
    slotId: fc.option(fc.constantFrom(...slots), { nil: null, freq: 4 }),
    variant: unit.profile.variants ? fc.option(variant, { nil: null }) : fc.constant(null),
    controls: fc
      .tuple(fc.option(fc.integer({ min: 0, max: 1 })), fc.option(fc.integer({ min: 0, max: 100 })))
      .chain(([delay, mix]) =>
        more(unit).map((others) => [
          ...(delay === null ? [] : [{ controlId: 'delay', value: delay }]),
          ...(mix === null ? [] : [{ controlId: 'mix', value: mix }]),
          ...others,
        ]),
      ),
    effects: fc.constant([]),
  });
}

/** A song at 120 beats a minute; `gap` ticks are the least between two places. */
export interface RandomChoice {
  readonly gap: number;
  /** Cues may be shifted, so that they come in another order than their places. */
  readonly shifts?: boolean;
  /** Bytes as they stand, among them programs that call no slot. */
  readonly raw?: boolean;
  /** Every cue is sent on its beat, to units of which each tells the next, and which have presets of their own besides. */
  readonly sentDownChain?: boolean;
  /** A chain of units three deep, each of which tells the next, with times at which messages meet. */
  readonly deep?: boolean;
  /** Units hang on two ports in turn. */
  readonly twoPorts?: boolean;
  /** Most cues are sent on their beat, and many load their presets again. */
  readonly crowded?: boolean;
}

/** What hangs behind the first unit: nothing, or units that it tells something, with rules that meet in every corner. */
const behind = fc.constantFrom('nothing' as const, 'told' as const, 'told' as const, 'chain' as const);

export function randomShow(choice: number | RandomChoice): fc.Arbitrary<{ show: Show; song: Song }> {
  const {
    gap,
    shifts = false,
    raw = false,
    sentDownChain = false,
    deep = false,
    twoPorts = false,
    crowded = false,
  } = typeof choice === 'number' ? { gap: choice } : choice;
  return fc
    .record({
      profiles: fc.array(profile, { minLength: 1, maxLength: 4 }),
      cable: fc.constantFrom('din' as const, 'usb' as const),
      thru: fc.boolean(),
      behind: deep ? fc.constant('deep' as const) : sentDownChain ? fc.constant('chain' as const) : behind,
      far: deep ? meeting : profile,
      farther: deep ? meeting : profile,
      farthest: meeting,
      rules: fc.array(rule('u0', 'far'), { minLength: sentDownChain || deep ? 2 : 0, maxLength: 4 }),
      onward: fc.array(rule('far', 'farther'), { minLength: sentDownChain || deep ? 1 : 0, maxLength: 2 }),
      last: fc.array(rule('farther', 'farthest'), { minLength: 1, maxLength: 2 }),
      farThru: sentDownChain ? fc.constant(true) : fc.boolean(),
      keeps: deep ? fc.boolean() : fc.constant(false),
    })
    .chain(({ profiles, cable, thru, behind, far, farther, farthest, rules, onward, last, farThru, keeps }) => {
      const named = profiles.map((p, i) => testUnit(`u${i}`, i + 1, ownDevice(p, i + 1)));
      if (keeps) named[0] = { ...named[0]!, profile: keepsVariant(named[0]!.profile) };
      const units: Unit[] = named.map((u, i) => ({
        ...u,
        // Every second unit hangs behind the one before it, which passes on what it hears.
        input:
          thru && i % 2 === 1
            ? { from: 'unit', unitId: `u${i - 1}`, thru: true }
            : { from: 'port', portId: twoPorts && i > 1 ? 'p2' : 'p1' },
        relays: i === 0 && behind !== 'nothing' ? numbered(rules) : [],
      }));
      const told = (id: string, from: string, channel: number, p: Profile): Unit =>
        testUnit(
          id,
          channel,
          // Nothing but the unit before it reaches it, so that nothing sets what only turns over.
          { ...p, engage: null, variants: null, controls: modelerProfile.controls },
          { input: { from: 'unit', unitId: from, thru: farThru } },
        );
      if (behind !== 'nothing') {
        units.push({ ...told('far', 'u0', 11, far), relays: behind === 'told' ? [] : numbered(onward) });
      }
      if (behind === 'chain' || behind === 'deep') {
        units.push({ ...told('farther', 'far', 12, farther), relays: behind === 'deep' ? numbered(last) : [] });
      }
      if (behind === 'deep') units.push(told('farthest', 'farther', 13, farthest));
      // What a port reaches through thrus is named by tones as any other.
      const inTones = units.filter((u) => u.id.startsWith('u') || farThru);
      const tones = fc.array(fc.tuple(...inTones.map((u) => fc.option(part(u, deep), { nil: null }))), {
        minLength: 1,
        maxLength: 6,
      });
      const places = fc.array(
        fc.record({
          wait: fc.integer({ min: gap, max: gap * 4 }),
          tone: fc.nat(),
          landing: sentDownChain
            ? fc.constant('sent' as const)
            : crowded
              ? fc.constantFrom('sent' as const, 'sent' as const, 'complete' as const)
              : fc.constantFrom('complete' as const, 'complete' as const, 'sent' as const),
          reload: fc.boolean(),
          shift: shifts ? fc.oneof(fc.constant(0), fc.integer({ min: -1200, max: 1200 })) : fc.constant(0),
          bytes: raw ? fc.option(rawBytes(named.length), { nil: null, freq: 2 }) : fc.constant(null),
        }),
        { minLength: 1, maxLength: 12 },
      );
      return fc.record({ tones, places }).map(({ tones: parts, places: list }) => {
        const show: Show = {
          ...testShow(units, cable, twoPorts ? 2 : 1),
          tones: parts.map((p, i) =>
            newTone(
              `t${i}`,
              `Tone ${i}`,
              p.filter((x) => x !== null),
            ),
          ),
        };
        // Room before the song for whatever is shifted in front of it.
        let at = shifts ? 9600 : 0;
        const cues = list.map(({ wait, tone, landing, reload, shift, bytes }, i): Cue => {
          const toneId = `t${tone % parts.length}`;
          const action = bytes ?? { kind: 'tone' as const, toneId, reload };
          const cue = toneCue(`c${i}`, at, toneId, { landing: bytes ? 'sent' : landing, action, shift });
          at += wait;
          return cue;
        });
        const song: Song = { ...newSong('song', 'Song'), cues };
        return { show: { ...show, songs: [song] }, song };
      });
    });
}

/** A rule on a slot, on a variant, on both or on any, that calls a slot of either bank. */
const rule = (from: string, to: string): fc.Arbitrary<Omit<Relay, 'id'>> =>
  fc
    .record({
      slot: fc.constantFrom(null, 9, 18, 27),
      variant: fc.constantFrom(null, 2, 3),
      calls: fc.constantFrom(18, 27, 135, 144),
    })
    .map(({ slot, variant, calls }) => ({
      when: { slotId: slot === null ? null : `${from}-s${slot}`, variant },
      toUnitId: to,
      toSlotId: `${to}-s${calls}`,
    }));

const numbered = (rules: readonly Omit<Relay, 'id'>[]): Relay[] => rules.map((r, i) => ({ ...r, id: `r${i}` }));

/** Program changes, among them numbers that call no slot, bank selects, and variants, to one of the units. */
const rawBytes = (count: number): fc.Arbitrary<Cue['action']> =>
  fc
    .record({
      unit: fc.nat(count - 1),
      bytes: fc.oneof(
        fc.integer({ min: 0, max: 119 }).map((program) => [0xc0, program]),
        fc.constantFrom(0, 1, 5).map((bank) => [0xb0, 0, bank]),
        fc.nat(7).map((value) => [0xb0, 85, value]),
        fc.nat(127).map((value) => [0xb0, 52, value]),
      ),
    })
    .map(({ unit, bytes }) => ({
      kind: 'message' as const,
      unitId: `u${unit}`,
      bytes: toHex([bytes[0]! + unit, ...bytes.slice(1)]),
    }));
