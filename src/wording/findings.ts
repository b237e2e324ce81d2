import { millisWords } from './durations';
import { remedyWords } from './remedies';
import type { Finding, FindingCode, FindingData } from '../core/checks';

type Words<T> = { readonly [C in FindingCode]: (data: FindingData[C]) => T };

const circle = (way: readonly string[]): string => [...way, way[0]].join(' → ');

const list = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

const bpm = (value: number): string => String(Math.round(value * 10) / 10);

/** So many bytes of a message are said; the rest is counted. */
const SAID_BYTES = 12;

function spaced(hex: string): string {
  const bytes = (hex.match(/../g) ?? []).map((b) => b.toUpperCase());
  return bytes.length <= SAID_BYTES
    ? bytes.join(' ')
    : `${bytes.slice(0, SAID_BYTES).join(' ')} … (${bytes.length} bytes)`;
}

const NO_MATCH = { slot: 'preset', variant: 'its variant', control: 'control', effect: 'effect' } as const;

const NEVER: Readonly<Record<string, string>> = {
  'other-channel': 'it listens on another channel',
  settling: 'it was still settling after a recall',
  'not-understood': 'the message means nothing to it',
  'no-such-slot': 'it has no such slot',
  'nothing-arrived': 'nothing arrived',
  'other-state': 'it is on something else',
  replaced: 'another change took its place',
};

const who = (unit: string, on: string): string => (unit === on ? 'it' : `${on}, which tells it,`);

/** Why a change is late: the unit, the change before it, the start of the song, or the cable. */
function causeWords(unit: string, cause: FindingData['song.late']['cause']): string {
  switch (cause.kind) {
    case 'start':
      return `${who(unit, cause.on)} takes ${millisWords(cause.needs)} and the song starts only ${millisWords(cause.has)} before`;
    case 'previous':
      return `${who(unit, cause.on)} takes ${millisWords(cause.needs)} and the change before it is only ${millisWords(cause.has)} earlier`;
    case 'cable':
      return cause.others.length === 0
        ? `${cause.port} is still busy`
        : `${cause.port} is busy with ${list(cause.others)}`;
    case 'unknown':
      return 'it takes longer than its map says';
  }
}

const HOLD_WORDS = {
  program: 'program changes',
  control: 'control changes',
  note: 'notes',
  exclusive: 'exclusive messages',
} as const;

const TRIGGERS = {
  press: 'a press',
  again: 'a second press',
  release: 'letting go',
  long: 'holding',
  double: 'a double press',
} as const;

type Floor = Pick<FindingData['feet.silent'], 'controller' | 'page' | 'switch'>;

const floorInside = (d: Floor): string => `${d.switch} of ${d.controller}, ${d.page}`;
const floor = (d: Floor): string => `${d.controller}, ${d.page}, ${d.switch}`;
const seconds = (s: number): string => `${s.toFixed(1)} s`;

const SENTENCES: Words<string> = {
  'rig.channel-differs': (d) =>
    `${d.unit} is sent to on channel ${d.sends}, but listens on ${d.listens}: it will do nothing at all.`,
  'rig.channel-shared': (d) =>
    `${d.unit} also hears what is sent to ${d.other} on channel ${d.channel}: they hang on one cable.`,
  'rig.exclusive-shared': (d) =>
    `${d.unit} also obeys the system exclusive message of ${d.other}: ${d.control} has the same one on the same cable.`,
  'rig.left-out': (d) =>
    `${d.unit} has no ${list(d.controls)} tonight: what ${d.where} does with ${d.controls.length === 1 ? 'it' : 'them'} is left out.`,
  'rig.no-port': (d) => `${d.unit} has no cable from a port, so nothing reaches it.`,
  'rig.port-off': (d) => `${d.unit} is on ${d.port}, which is switched off.`,
  'rig.port-unused': (d) => `No cable is in ${d.port}, but it is switched on.`,
  'rig.socket-shared': (d) =>
    `${d.socket} is one 5-pin socket, but ${d.units.length} cables leave it (${list(d.units)}). Chain the units by thru, use another port, or set "Splitter" there if one is.`,
  'rig.loop': (d) => `A message can go round and round: ${circle(d.way)}.`,
  'rig.relay-cycle': (d) => `Relay rules set each other off in a circle: ${circle(d.way)}.`,
  'map.two-on-one': (d) =>
    `${d.first} and ${d.second} of ${d.unit} are both on ${d.on === 'nrpn' ? 'NRPN' : d.on} ${d.number}: whatever is sent moves both.`,
  'map.reserved-number': (d) =>
    `${d.control} of ${d.unit} is on control ${d.number}, which has a fixed meaning in MIDI.`,
  'map.house-differs': (d) =>
    `${d.control} of ${d.unit} is on control ${d.number}; the shared control number of ${d.name} is ${d.house}.`,
  'map.generic-name': (d) =>
    d.number === d.named
      ? `"${d.control}" is MIDI's general name of control ${d.named}, not what ${d.unit} does with it. Give it the unit's own name.`
      : `"${d.control}" is MIDI's general name of control ${d.named}; on ${d.unit} it ${d.number === null ? 'is something else' : `is control ${d.number}`}. Give it the unit's own name.`,
  'map.state-undescribed': (d) =>
    `${d.unit} is called to ${d.label}, but nobody wrote down how its panel stands there: ${d.missing.join(', ')}.`,
  'map.no-program': (d) => `No program of ${d.unit}'s own table calls ${d.label} ${d.name}`.trim() + ', which is used.',
  'map.slot-lost': (d) =>
    `"${d.name}" is no longer in ${d.unit}'s preset list; ${d.tones === 1 ? 'a tone wants' : `${d.tones} tones want`} it.`,
  'map.read-only': (d) =>
    `${d.unit} can store nothing in its group "${d.group}", but a relay rule calls what should be stored as ${d.label}.`,
  'map.slot-unnamed': (d) => `${d.label} of ${d.unit} is used, but nobody wrote down what is in it.`,
  'song.late': (d) =>
    `${d.song}, ${d.at}: ${d.unit} is ${millisWords(d.millis)} late, because ${causeWords(d.unit, d.cause)}.`,
  'song.early': (d) => `${d.song}, ${d.at}: ${d.unit} changes ${millisWords(d.millis)} too early.`,
  'song.no-match': (d) =>
    `${d.song}, ${d.at}: ${d.tone} wants ${list(d.missing.map(({ what, name }) => `${NO_MATCH[what]} ${name}`))}, and ${d.unit} has nothing in its place tonight.`,
  'song.never': (d) => `${d.song}, ${d.at}: ${d.unit} never gets there: ${NEVER[d.why] ?? d.why}.`,
  'song.tempo-missed': (d) =>
    `${d.song}, ${d.at}: ${d.unit} does not take the tempo of ${bpm(d.wanted)}: ${
      d.by === 'taps' && d.taps < 4
        ? `only ${d.taps} of the four taps it needs fit in`
        : d.heard === null
          ? 'it hears none'
          : `it hears ${bpm(d.heard)}`
    }.`,
  'song.trail-cut': (d) =>
    `${d.song}, ${d.at}: ${d.effect} of ${d.unit} should ring out, but is cut when the unit loads a preset.`,
  'song.stored-between': (d) =>
    `${d.song}, ${d.at}: ${d.unit} sounds ${millisWords(d.millis)} in ${d.from === null ? `the ${d.word} that the preset stores` : `${d.word} ${d.from}`} before ${d.to} is there.`,
  'song.inside-settle': (d) =>
    `${d.song}, ${d.at}: a message reaches ${d.unit} while it settles after a recall, and is lost.`,
  'song.code-early': (d) =>
    `${d.song}: time code runs only ${millisWords(d.has)} before it, and what it sends ahead takes ${millisWords(d.needs)}.`,
  'song.two-leads': (d) => `${d.song} follows time code, and the clock of ${d.port} too: only one can lead it.`,
  'song.code-unread': (d) =>
    `${d.song}: its place in the time code, ${d.code}, is not there at ${d.rate} frames a second.`,
  'song.clock-too-long': (d) =>
    `${d.song}: its clock on ${d.port} would have ${d.pulses.toLocaleString('en')} pulses. Up to ${d.limit.toLocaleString('en')} are sent, so none is.`,
  'song.outside': (d) =>
    d.early
      ? `${d.song}: something stands before the song begins.`
      : `${d.song}: something stands at ${d.at}, past the last of ${d.bars} bars.`,
  'song.tones-clash': (d) =>
    `${d.song}, ${d.at}: ${d.first} and ${d.second} want different things of ${d.unit} on one beat; ${d.second} wins.`,
  'song.sweeps-overlap': (d) =>
    `${d.song}, ${d.at}: two sweeps move ${d.control} of ${d.unit} at once; it jumps between them.`,
  'song.selector-ramp': (d) =>
    `${d.song}, ${d.from} to ${d.to}: a ramp runs through ${d.control} of ${d.unit}, which steps through all on the way.`,
  'song.other-channel': (d) =>
    `${d.song}, ${d.at}: a message goes out on channel ${d.channel}, but ${d.unit} listens on ${d.listens}.`,
  'song.not-understood': (d) => `${d.song}, ${d.at}: ${spaced(d.bytes)} means nothing to ${d.unit}.`,
  'song.no-such-slot': (d) => `${d.song}, ${d.at}: program ${d.program} calls no slot of ${d.unit}.`,
  'song.bank-unknown': (d) =>
    `${d.song}, ${d.at}: a program is sent to ${d.unit} with no bank before it; which slot it calls depends on what came before.`,
  'song.flip-unknown': (d) =>
    `${d.song}, ${d.at}: ${d.control} of ${d.unit} only turns over, and nothing before says in which state it is.`,
  'song.no-opening': (d) =>
    d.opening === ''
      ? `${d.song} has no opening: ${list(d.units)} ${d.units.length === 1 ? 'is' : 'are'} left as the song before left ${d.units.length === 1 ? 'it' : 'them'}.`
      : `${d.song} uses ${list(d.units)}, which its opening, ${d.opening}, does not set.`,
  'song.port-full': (d) => `${d.song}, ${d.at}: ${d.port} is ${d.percent} % full for a second.`,
  'song.off-rest': (d) => `${d.song}, ${d.at}: a sweep leaves ${d.control} of ${d.unit} away from its rest.`,
  'song.effect-left': (d) => `${d.song}, ${d.at}: ${d.control} of ${d.unit} stays on after its sweep.`,
  'song.duplicate': (d) => `${d.song}, ${d.at}: the same cue stands there twice.`,
  'song.no-change': (d) =>
    `${d.song}, ${d.at}: ${d.what === '' ? 'a cue' : d.what} changes nothing; the rig is like that already.`,
  'song.section-state': (d) =>
    `${d.song}, ${d.at}: who goes from ${d.from} straight to ${d.section} still has ${d.control} of ${d.unit} on.`,
  'song.tone-differs': (d) =>
    `${d.song}, ${d.at}: ${d.tone} sounds other than at ${d.first}: ${d.control} of ${d.unit} is left as ${d.from === '' ? 'something before' : d.from} set it.`,
  'rig.firmware-differs': (d) =>
    `${d.unit} answered with version ${d.answered}, but its map is for ${d.mapped}: what messages do may have changed.`,
  'rig.other-unit': (d) =>
    `Something else answered as ${d.unit}: ${d.answered} in place of ${d.expected} (maker, family, model).`,
  'night.launch-shared': (d) =>
    `${list(d.songs)} of ${d.set} wait for the same message: only ${d.songs[0]!} is started by it.`,
  'night.code-overlap': (d) =>
    `${d.song} begins in the time code before ${d.before} is over. It has room from ${d.free} on.`,
  'night.code-loop': (d) =>
    `Time code goes out on ${d.port}, where it comes in: a machine that passes it on would send us our own.`,
  'night.launch-unheard': (d) =>
    `Reaction ${d.reaction} swallows the message that ${d.song} waits for: the song is never started by it.`,
  'night.fires-itself': (d) =>
    `What reaction ${d.reaction} sends comes back${d.others === 0 ? '' : ' by way of others'}, and sets it off again without end.`,
  'night.trigger-sounds': (d) =>
    `The note that ${typeof d.what === 'string' ? `starts ${d.what}` : `sets off reaction ${d.what}`} also reaches ${list(d.units)}${d.passedOn ? ', as it is passed on' : ', wired behind the controller'}: it may sound.`,
  'night.reaction-unheard': (d) =>
    `Reaction ${d.by} swallows all that reaction ${d.reaction} waits for: it never acts.`,
  'feet.full': (d) =>
    `${floor(d)} would have to hold ${d.wants} ${d.kind === 'all' ? 'messages' : HOLD_WORDS[d.kind]}; the controller holds ${d.holds} a switch. What is too much is left out.`,
  'feet.trigger': (d) => `${floor(d)} does something on ${TRIGGERS[d.trigger]}, which this controller does not know.`,
  'feet.jump': (d) =>
    d.together
      ? `${floor(d)} goes to another page and does something else too: this controller can only do one of them.`
      : `${floor(d)} goes to another page, which a switch of this controller cannot.`,
  'feet.jump-lost': (d) => `${floor(d)} goes to a page that the controller has no place for.`,
  'feet.jump-here': (d) => `${floor(d)} goes to the page that it is on: it does nothing.`,
  'feet.name': (d) =>
    d.shown === ''
      ? `${floor(d)} is called ${d.name}, of which its display shows nothing.`
      : `${floor(d)} is called ${d.name}; its display shows ${d.shown}.`,
  'feet.no-call': (d) =>
    `${floor(d)}: no number is left by which the computer could tell its ${TRIGGERS[d.trigger]} from others, so it does nothing there.`,
  'feet.silent': (d) => `${floor(d)} has a name but sends nothing.`,
  'feet.unheard': (d) => `${floor(d)} does something that only the computer can do, but does not tell the computer.`,
  'feet.flip-unknown': (d) =>
    `${floor(d)} wants ${d.control} of ${d.unit} in a certain state, but it only turns over: without the computer nobody knows which way.`,
  'feet.boat-unreached': (d) =>
    `Switches of ${d.controller} call ${d.unit}, but no cable leads there when the computer is gone.`,
  'feet.boat-shared': (d) =>
    `When the computer is gone, ${d.unit} shares a cable with ${d.other} and hears what is sent to it on channel ${d.channel}.`,
  'feet.passed-on': (d) =>
    `${d.port} passes on what ${d.controller} sends, and the computer does the same once more: units get it twice.`,
  'feet.call-taken': (d) =>
    `Reaction ${d.reaction} takes the message that tells the computer of ${floorInside(d)}: what the switch says is not done.`,
  'feet.tone-unreached': (d) =>
    `No switch of ${d.controller} calls ${d.tone} in ${d.song}: without the computer it cannot be played.`,
  'feet.tone-far': (d) => `In ${d.song} ${d.tone} takes ${d.presses} presses of ${d.controller}.`,
  'feet.hurried': (d) =>
    `${d.song}, ${d.at}: the presses that lead there on ${d.controller} take ${seconds(d.needs)}, and the change before is only ${seconds(d.has)} earlier.`,
  'feet.dead-end': (d) => `No switch of ${d.controller} leads away from the page ${d.page}.`,
  'feet.page-lost': (d) => `${d.controller} has no place for the page ${d.page}: it holds ${d.pages}.`,
  'feet.label-clash': (d) => `On ${d.page} of ${d.controller} ${list(d.names)} all show ${d.shown}.`,
  'feet.pedal-control': (d) =>
    `${floor(d)} moves a control that no single control number moves: a pedal of a controller cannot.`,
  'feet.pedal-twice': (d) => `${floor(d)} and ${d.other} both send control ${d.number}: they move the same thing.`,
  'feet.pedal-reacted': (d) => `${floor(d)} moves a control, and reaction ${d.reaction} makes something else of it.`,
  'tone.told-elsewhere': (d) =>
    d.gets === null
      ? `${d.tone} wants ${d.unit} on ${d.wants}, but only ${list(d.by)} can call it there, and no relay rule does.`
      : `${d.tone} wants ${d.unit} on ${d.wants}, but ${list(d.by)} calls it to ${d.gets} by a relay rule.`,
  'tone.only-told': (d) =>
    `${d.tone} sets ${d.what} of ${d.unit}, but nothing can be sent there: ${list(d.by)} can only call its presets.`,
  'tone.flip-unknown': (d) =>
    `${d.tone} wants ${d.control} of ${d.unit} in a certain state, but it only turns over, and nobody wrote down how the preset stores it.`,
};

const FIXES: Partial<Words<string>> = {
  'rig.channel-differs': (d) => `Send on channel ${d.listens}`,
  'rig.port-off': (d) => `Switch ${d.port} on`,
  'rig.port-unused': (d) => `Switch ${d.port} off`,
  'rig.socket-shared': () => 'Chain them by thru',
  'rig.loop': () => 'Open the loop',
  'map.house-differs': (d) => `Put it on ${d.house}`,
  'song.late': ({ fix }) => (fix === null ? 'Mend it' : remedyWords(fix)),
  'rig.firmware-differs': () => 'Use the map for that version',
  'night.fires-itself': () => 'Switch it off',
  'night.trigger-sounds': () => 'Let it go no further',
  'feet.trigger': () => 'Take that away',
  'feet.jump-here': () => 'Take that away',
  'feet.name': (d) => (d.shown === '' ? 'Take the name away' : `Call it ${d.shown}`),
  'feet.silent': () => 'Clear the switch',
  'feet.unheard': () => 'Tell the computer',
  'feet.boat-unreached': (d) => `Plug ${d.unit} in behind the last unit`,
  'feet.passed-on': (d) => `Have ${d.port} pass nothing on`,
  'feet.tone-unreached': (d) => `Put it on a free switch of ${d.song}`,
  'feet.tone-far': (d) => `Put it on a free switch of ${d.song}`,
  'feet.pedal-control': () => 'Clear the pedal',
  'song.stored-between': (d) => `Store ${d.preset} in the unit with ${d.to}, and note it`,
  'song.clock-too-long': (d) => `Send no clock on ${d.port}`,
  'song.two-leads': () => 'Follow time code only',
  'song.no-opening': () => 'Open with the first of its tones that sets them all',
  'night.code-overlap': (d) => `Begin at ${d.free}`,
  'night.code-loop': (d) => `Send no time code on ${d.port}`,
  'song.outside': () => 'Make the song longer',
  'song.tones-clash': (d) => `Take ${d.first} away`,
  'song.sweeps-overlap': () => 'End the first where the second begins',
  'song.selector-ramp': () => 'One step to where it ends',
  'song.off-rest': () => 'Leave it at rest',
  'song.effect-left': () => 'Let the sweep switch it',
  'song.tone-differs': (d) => `Have ${d.tone} set it as at ${d.first}`,
  'tone.told-elsewhere': (d) => `Want ${d.gets ?? ''} there`,
  'song.duplicate': () => 'Take one away',
  'song.no-change': () => 'Take it away',
};

/** What a finding says. */
export const findingSentence = (f: Finding): string => (SENTENCES[f.code] as (data: Finding['data']) => string)(f.data);

/** The same, said where the song is known already. */
export function findingSentenceInSong(f: Finding): string {
  const whole = findingSentence(f);
  const start = 'song' in f.data ? `${f.data.song}, ` : '';
  return start !== '' && whole.startsWith(start) ? whole.slice(start.length) : whole;
}

/** What the button of its fix says. */
export const fixWords = (f: Finding): string =>
  (FIXES[f.code] as ((data: Finding['data']) => string) | undefined)?.(f.data) ?? 'Mend it';
