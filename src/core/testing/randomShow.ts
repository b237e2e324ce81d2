import fc from 'fast-check';
import type { Profile } from '../addressing';
import { newSong, newTone, toneCue, type Show, type Song, type TonePart, type Unit } from '../show';
import { modelerProfile, testShow, testUnit } from './rigs';

const profile: fc.Arbitrary<Profile> = fc
  .record({
    recall: fc.integer({ min: 0, max: 200 }),
    variant: fc.integer({ min: 0, max: 30 }),
    control: fc.integer({ min: 0, max: 10 }),
    settle: fc.integer({ min: 0, max: 60 }),
    whileSettling: fc.constantFrom('ignore' as const, 'queue' as const),
    loadsVariant: fc.boolean(),
    loadsControls: fc.boolean(),
    when: fc.constantFrom('always' as const, 'differs' as const),
  })
  .map(({ recall, variant, control, settle, whileSettling, loadsVariant, loadsControls, when }) => ({
    ...modelerProfile,
    plan: { ...modelerProfile.plan, bank: { send: 'msb' as const, when } },
    times: { recall, variant, control, settle },
    whileSettling,
    recallLoads: { variant: loadsVariant, controls: loadsControls },
  }));

function part(unit: Unit): fc.Arbitrary<TonePart> {
  return fc.record({
    unitId: fc.constant(unit.id),
    slotId: fc.option(fc.constantFrom(...unit.slots.map((s) => s.id)), { nil: null, freq: 4 }),
    variant: fc.option(fc.integer({ min: 0, max: 7 }), { nil: null }),
    controls: fc
      .tuple(fc.option(fc.integer({ min: 0, max: 1 })), fc.option(fc.integer({ min: 0, max: 100 })))
      .map(([delay, mix]) => [
        ...(delay === null ? [] : [{ controlId: 'delay', value: delay }]),
        ...(mix === null ? [] : [{ controlId: 'mix', value: mix }]),
      ]),
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
      const units = profiles.map((p, i) => testUnit(`u${i}`, i + 1, p));
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
