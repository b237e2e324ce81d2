import fc from 'fast-check';
import { newControl, onOff, type Control, type Encoding, type Profile } from '../addressing';
import { newSong, newTone, toneCue, type Show, type Song, type TonePart, type Unit } from '../show';
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
    settle: fc.integer({ min: 0, max: 60 }),
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
      times: { recall, variant, control, settle },
      whileSettling,
      recallLoads: { variant: loadsVariant, controls: loadsControls },
    }),
  );

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

function part(unit: Unit): fc.Arbitrary<TonePart> {
  return fc.record({
    unitId: fc.constant(unit.id),
    slotId: fc.option(fc.constantFrom(...unit.slots.map((s) => s.id)), { nil: null, freq: 4 }),
    variant: fc.option(fc.integer({ min: 0, max: 7 }), { nil: null }),
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

/** A song with cues at random places of 120 beats a minute; `gap` ticks are the least between two. */
export function randomShow(gap: number): fc.Arbitrary<{ show: Show; song: Song }> {
  return fc
    .record({
      profiles: fc.array(profile, { minLength: 1, maxLength: 4 }),
      cable: fc.constantFrom('din' as const, 'usb' as const),
      relayed: fc.boolean(),
    })
    .chain(({ profiles, cable, relayed }) => {
      const units = profiles.map((p, i) => testUnit(`u${i}`, i + 1, ownDevice(p, i + 1)));
      const all = relayed ? [...relaySource(units), relayTarget(units.length)] : units;
      const tones = fc.array(fc.tuple(...units.map((u) => fc.option(part(u), { nil: null }))), {
        minLength: 1,
        maxLength: 6,
      });
      const places = fc.array(
        fc.record({
          wait: fc.integer({ min: gap, max: gap * 4 }),
          tone: fc.nat(),
          landing: fc.constantFrom('complete' as const, 'complete' as const, 'sent' as const),
          reload: fc.boolean(),
        }),
        { minLength: 1, maxLength: 12 },
      );
      return fc.record({ tones, places }).map(({ tones: parts, places: list }) => {
        const show: Show = {
          ...testShow(all, cable),
          tones: parts.map((p, i) =>
            newTone(
              `t${i}`,
              `Tone ${i}`,
              p.filter((x) => x !== null),
            ),
          ),
        };
        let at = 0;
        const cues = list.map(({ wait, tone, landing, reload }, i) => {
          const toneId = `t${tone % parts.length}`;
          const cue = toneCue(`c${i}`, at, toneId, { landing, action: { kind: 'tone', toneId, reload } });
          at += wait;
          return cue;
        });
        const song: Song = { ...newSong('song', 'Song'), cues };
        return { show: { ...show, songs: [song] }, song };
      });
    });
}

const relayTarget = (i: number): Unit =>
  testUnit(
    'far',
    15,
    { ...modelerProfile, variants: null },
    {
      input: { from: 'unit', unitId: 'u0', thru: false },
      channel: i + 10,
      listens: i + 10,
    },
  );

function relaySource(units: readonly Unit[]): Unit[] {
  return units.map((u, i) =>
    i > 0
      ? u
      : {
          ...u,
          relays: [
            { id: 'r1', when: { slotId: 'u0-s9', variant: null }, toUnitId: 'far', toSlotId: 'far-s18' },
            // No state fires both at once: the second would meet a unit that settles.
            { id: 'r2', when: { slotId: 'u0-s18', variant: 3 }, toUnitId: 'far', toSlotId: 'far-s27' },
          ],
        },
  );
}
