import {
  newFootPage,
  newFootSwitch,
  newPart,
  newSlot,
  newTone,
  newUnit,
  toneCue,
  type Doing,
  type Feet,
  type FootSwitch,
  type Reaction,
  type Show,
  type Unit,
} from '../show';
import { type Fault, addUnit, inNewSong, unitOf, withUnit, BAR } from './faultParts';
import { slotId } from './units';

const FIRST = slotId('treadle', 'page 01');

const withFeet =
  (id: string, change: (feet: Feet) => Feet) =>
  (show: Show): Show => ({
    ...show,
    feet: show.feet.map((f) => (f.id === id ? change(f) : f)),
  });

/** Something on a switch of the first page, which nothing else stands on. */
const onFirst = (entry: FootSwitch) =>
  withFeet('treadle', (f) => ({
    ...f,
    pages: f.pages.map((p) =>
      p.id === FIRST ? { ...p, switches: [...p.switches.filter((s) => s.id !== entry.id), entry] } : p,
    ),
  }));

const press = (id: string, does: Doing, rest: Partial<FootSwitch> = {}): FootSwitch => newFootSwitch(id, [does], rest);

/** A second controller for one fault, with a page of its own. */
const another =
  (
    id: string,
    name: string,
    change: (profile: Unit['profile']) => Unit['profile'],
    switches: readonly FootSwitch[],
    rest: Partial<Feet> = {},
  ) =>
  (show: Show): Show => {
    const unit = newUnit(id, name, name.slice(0, 2).toUpperCase(), change(unitOf(show, 'treadle').profile), {
      channel: 9,
      returns: { portId: 'feet', thru: false },
      slots: [newSlot(`${id}-1`, 0, 'Only')],
    });
    const own: Feet = {
      ...show.feet[0]!,
      id,
      everywhere: { switches: [], pedals: [] },
      boat: [],
      pages: [newFootPage(`${id}-1`, { switches })],
      ...rest,
    };
    const added = addUnit(show, unit);
    return { ...added, feet: [...added.feet, own] };
  };

const lesser =
  (rest: Partial<NonNullable<Unit['profile']['controller']>>) =>
  (profile: Unit['profile']): Unit['profile'] => ({
    ...profile,
    controller: { ...profile.controller!, call: { kind: 'control', channel: 9, first: 20 }, ...rest },
  });

const stop: Doing = { kind: 'session', act: 'stop' };
const lead: Doing = { kind: 'tone', toneId: 'fog-lead' };

/** Faults of what is programmed into foot controllers. */
export const FEET_FAULTS: readonly Fault[] = [
  {
    code: 'feet.full',
    about: 'A switch that would have to send more than its controller holds.',
    into: another(
      'small-treadle',
      'Small Treadle',
      lesser({ holds: { program: 2, control: 2, note: 0, exclusive: 0, all: 4 } }),
      [press('switch-1', lead)],
      {
        boat: [
          { id: 'harrow', from: 'small-treadle' },
          { id: 'tarn', from: 'thistle' },
          { id: 'marram', from: 'tarn' },
          { id: 'wick', from: 'marram' },
          { id: 'quillback', from: 'wick' },
        ],
      },
    ),
  },
  {
    code: 'feet.trigger',
    about: 'A switch that is to be pressed twice, on a controller that does not know that.',
    into: another('plain-treadle', 'Plain Treadle', lesser({ triggers: ['press'] }), [
      { ...press('switch-1', stop), doings: [{ on: 'double', does: stop }] },
    ]),
  },
  {
    code: 'feet.jump',
    about: 'A switch that turns the page and stops the song, where it can do only one of them.',
    into: another('single-treadle', 'Single Treadle', lesser({ jumps: 'alone' }), [
      newFootSwitch('switch-1', [stop, { kind: 'page', to: 'next' }]),
    ]),
  },
  {
    code: 'feet.jump-lost',
    about: 'A switch that goes to a page that its controller has lost.',
    into: (show) => {
      const gone = another('lost-treadle', 'Lost Treadle', lesser({}), [
        press('switch-1', { kind: 'page', to: { pageId: 'lost-treadle-2' } }),
      ])(show);
      const lost = withUnit('lost-treadle', (u) => ({
        lostSlots: [...u.lostSlots, { id: 'lost-treadle-2', name: 'Encore', lastIndex: 1 }],
      }))(gone);
      return withFeet('lost-treadle', (f) => ({ ...f, pages: [...f.pages, newFootPage('lost-treadle-2')] }))(lost);
    },
  },
  {
    code: 'feet.page-lost',
    about: 'A page that went with the presets of its controller.',
    into: (show) => {
      const gone = another('torn-treadle', 'Torn Treadle', lesser({}), [press('switch-1', stop)])(show);
      const lost = withUnit('torn-treadle', (u) => ({
        lostSlots: [...u.lostSlots, { id: 'torn-treadle-2', name: 'Second half', lastIndex: 1 }],
      }))(gone);
      return withFeet('torn-treadle', (f) => ({ ...f, pages: [...f.pages, newFootPage('torn-treadle-2')] }))(lost);
    },
  },
  {
    code: 'feet.jump-here',
    about: 'A switch that goes to the page that it is on.',
    into: onFirst(press('switch-5', { kind: 'page', to: { pageId: FIRST } })),
  },
  {
    code: 'feet.name',
    about: 'A name that is longer than the display.',
    into: withFeet('treadle', (f) => ({
      ...f,
      pages: f.pages.map((p, i) =>
        i === 1
          ? { ...p, switches: p.switches.map((s) => (s.id === 'switch-1' ? { ...s, name: 'Lead of all the fog' } : s)) }
          : p,
      ),
    })),
  },
  {
    code: 'feet.no-call',
    about: 'A controller whose numbers run out.',
    into: another('last-treadle', 'Last Treadle', lesser({ call: { kind: 'control', channel: 9, first: 119 } }), [
      { ...press('switch-1', stop), doings: [{ on: 'long', does: stop }] },
    ]),
  },
  {
    code: 'feet.silent',
    about: 'A switch with a name and nothing to do.',
    into: withFeet('treadle', (f) => ({
      ...f,
      pages: f.pages.map((p, i) =>
        i === 2 ? { ...p, switches: [...p.switches, newFootSwitch('switch-5', [], { name: 'Later' })] } : p,
      ),
    })),
  },
  {
    code: 'feet.unheard',
    about: 'A controller that does not tell the computer anything, with a switch that only the computer could obey.',
    into: another('mute-treadle', 'Mute Treadle', lesser({}), [press('switch-1', stop)], { calls: false }),
  },
  {
    code: 'feet.flip-unknown',
    about: 'A switch that wants something on that only turns over.',
    into: (show) => {
      const bare = withUnit('tarn', (u) => ({
        slots: u.slots.map((s) => (s.id === slotId('tarn', '122') ? { ...s, startControls: [] } : s)),
      }))(show);
      return bare;
    },
  },
  {
    code: 'feet.boat-unreached',
    about: 'Emergency wiring that leaves the lights on the pier.',
    into: (show) => {
      const boat = [{ id: 'harrow', from: 'dry-treadle' }];
      return another('dry-treadle', 'Dry Treadle', lesser({}), [press('switch-1', lead)], { boat })(show);
    },
  },
  {
    code: 'feet.boat-shared',
    about: 'Two units with one channel that hang on one cable only in the emergency wiring.',
    into: (show) => {
      const twin = newUnit('pier-tarn', 'Pier Tarn', 'PT', unitOf(show, 'tarn').profile, {
        channel: 6,
        input: { from: 'port', portId: 'lamps' },
        listens: 6,
      });
      return withFeet('treadle', (f) => ({ ...f, boat: [...f.boat, { id: 'pier-tarn', from: 'quillback' }] }))(
        addUnit(show, twin),
      );
    },
  },
  {
    code: 'feet.passed-on',
    about: 'A port that passes on what a controller sends, although the computer hears it.',
    into: (show) => ({ ...show, ports: show.ports.map((p) => (p.id === 'feet' ? { ...p, softThru: true } : p)) }),
  },
  {
    code: 'feet.call-taken',
    about: 'A reaction that takes what a switch sends the computer.',
    into: (show) => {
      const taker: Reaction = {
        id: 'takes-call',
        name: '',
        on: true,
        songId: null,
        hears: { portId: 'feet', kind: 'control', channel: 16, number: 20, low: 0, high: 127 },
        swallow: true,
        does: { kind: 'session', act: 'stop' },
      };
      return { ...show, reactions: [...show.reactions, taker] };
    },
  },
  {
    code: 'feet.tone-unreached',
    about: 'A song with a tone that no switch calls.',
    into: inNewSong('no-switch', 'No Switch', () => ({ cues: [toneCue('ns-1', 4 * BAR, 'barefoot')] }), [
      newTone('barefoot', 'Barefoot', [newPart('marram', { variant: 2 })]),
    ]),
  },
  {
    code: 'feet.tone-far',
    about: 'A tone that takes three presses.',
    into: (show) => {
      const song = inNewSong('far-song', 'Far Song', () => ({ cues: [toneCue('fs-1', 8 * BAR, 'far-away')] }), [
        newTone('far-away', 'Far Away', [newPart('marram', { variant: 1 })]),
      ])(show);
      return threePages(song, 'far', 'far-song', 'far-away');
    },
  },
  {
    code: 'feet.hurried',
    about: 'A change that comes sooner than a foot finds the page.',
    into: (show) => {
      const song = inNewSong(
        'near-song',
        'Near Song',
        () => ({ cues: [toneCue('nn-1', 8 * BAR, 'fog-lead'), toneCue('nn-2', 8 * BAR + 960, 'near-by')] }),
        [newTone('near-by', 'Near By', [newPart('marram', { variant: 3 })])],
      )(show);
      return threePages(song, 'near', 'near-song', 'near-by');
    },
  },
  {
    code: 'feet.dead-end',
    about: 'A page that no switch leads away from.',
    into: (show) => {
      const one = another('end-treadle', 'End Treadle', lesser({}), [press('switch-1', { kind: 'page', to: 'next' })])(
        show,
      );
      const two = withUnit('end-treadle', (u) => ({ slots: [...u.slots, newSlot('end-treadle-2', 1, 'Pier head')] }))(
        one,
      );
      return withFeet('end-treadle', (f) => ({ ...f, pages: [...f.pages, newFootPage('end-treadle-2')] }))(two);
    },
  },
  {
    code: 'feet.label-clash',
    about: 'Two names that look alike when they are cut.',
    into: withFeet('treadle', (f) => ({
      ...f,
      pages: f.pages.map((p, i) =>
        i === 8
          ? {
              ...p,
              switches: p.switches.map((s) =>
                s.id === 'switch-1' || s.id === 'switch-2' ? { ...s, name: `Last of the night ${s.id}` } : s,
              ),
            }
          : p,
      ),
    })),
  },
  {
    code: 'feet.pedal-control',
    about: 'A pedal for a control that takes more than one number.',
    into: (show) => {
      const deep = withUnit('marram', (u) => ({
        profile: {
          ...u.profile,
          controls: [
            ...u.profile.controls,
            {
              id: 'depth',
              name: 'Depth',
              encoding: {
                kind: 'fourteen-bit',
                number: 20,
                from: 0,
                to: 16383,
                low: 0,
                high: 100,
                unit: '%',
                curve: 'linear',
                points: [],
              },
              rest: 0,
              options: [],
              houseId: null,
            },
          ],
        },
      }))(show);
      return withFeet('treadle', (f) => ({
        ...f,
        pages: f.pages.map((p, i) =>
          i === 3
            ? {
                ...p,
                pedals: [
                  {
                    id: 'pedal-2',
                    does: { kind: 'control', unitId: 'marram', controlId: 'depth', from: 0, to: 100 },
                    bend: 'straight',
                  },
                ],
              }
            : p,
        ),
      }))(deep);
    },
  },
  {
    code: 'feet.pedal-twice',
    about: 'Two pedals that move one thing.',
    into: withFeet('treadle', (f) => ({
      ...f,
      pages: f.pages.map((p, i) =>
        i === 4 ? { ...p, pedals: [{ ...f.everywhere.pedals[0]!, id: 'pedal-2', bend: 'slow' }] } : p,
      ),
    })),
  },
  {
    code: 'feet.pedal-reacted',
    about: 'A pedal of which a reaction makes something else.',
    into: (show) => {
      const other: Reaction = {
        id: 'other-pedal',
        name: '',
        on: true,
        songId: null,
        hears: { portId: 'feet', kind: 'control', channel: 9, number: 7, low: 0, high: 127 },
        swallow: true,
        does: { kind: 'control', unitId: 'tarn', controlId: 'mix', curve: { from: 0, to: 100, bend: 'straight' } },
      };
      const added = another('two-treadle', 'Two Treadle', lesser({}), [press('switch-1', stop)], {
        everywhere: {
          switches: [],
          pedals: [
            { id: 'pedal-1', does: { kind: 'number', channel: 9, number: 7, from: 0, to: 127 }, bend: 'straight' },
          ],
        },
      })(show);
      return { ...added, reactions: [...added.reactions, other] };
    },
  },
];

/** Three pages in a row on the foot controller, the last of which calls a tone. */
function threePages(show: Show, id: string, songId: string, toneId: string): Show {
  const slots = unitOf(show, 'treadle').slots;
  const next = Math.max(...slots.map((s) => s.index)) + 1;
  const ids = [1, 2, 3].map((n) => `${id}-page-${n}`);
  const turning = (to: string): FootSwitch => press('switch-5', { kind: 'page', to: { pageId: to } });
  const withSlots = withUnit('treadle', () => ({
    slots: [...slots, ...ids.map((slot, i) => newSlot(slot, next + i, `${id} ${i + 1}`))],
  }))(show);
  return withFeet('treadle', (f) => ({
    ...f,
    pages: [
      ...f.pages,
      newFootPage(ids[0]!, {
        songId,
        switches: [
          turning(ids[1]!),
          press('switch-7', { kind: 'tone', toneId: 'still-water' }),
          press('switch-8', lead),
        ],
      }),
      newFootPage(ids[1]!, { switches: [turning(ids[2]!)] }),
      newFootPage(ids[2]!, { switches: [press('switch-1', { kind: 'tone', toneId }), turning(ids[0]!)] }),
    ],
  }))(withSlots);
}
