import type { Finding, FindingCode, FindingData } from '../core/checks';

type Words<T> = { readonly [C in FindingCode]: (data: FindingData[C]) => T };

const circle = (way: readonly string[]): string => [...way, way[0]].join(' → ');

const SENTENCES: Words<string> = {
  'rig.channel-differs': (d) =>
    `${d.unit} is sent to on channel ${d.sends}, but listens on ${d.listens}: it will do nothing at all.`,
  'rig.channel-shared': (d) =>
    `${d.unit} also hears what is sent to ${d.other} on channel ${d.channel}: they hang on one cable.`,
  'rig.exclusive-shared': (d) =>
    `${d.unit} also obeys the system exclusive message of ${d.other}: ${d.control} has the same one on the same cable.`,
  'rig.no-port': (d) => `${d.unit} hangs on no port, so nothing reaches it.`,
  'rig.port-off': (d) => `${d.unit} hangs on ${d.port}, which is switched off.`,
  'rig.port-unused': (d) => `Nothing hangs on ${d.port}, but it is switched on.`,
  'rig.loop': (d) => `A message can go round and round: ${circle(d.way)}.`,
  'rig.relay-cycle': (d) => `Relay rules set each other off in a circle: ${circle(d.way)}.`,
  'map.two-on-one': (d) =>
    `${d.first} and ${d.second} of ${d.unit} are both on ${d.on === 'nrpn' ? 'NRPN' : d.on} ${d.number}: whatever is sent moves both.`,
  'map.reserved-number': (d) =>
    `${d.control} of ${d.unit} is on control ${d.number}, which has a fixed meaning in MIDI.`,
  'map.house-differs': (d) =>
    `${d.control} of ${d.unit} is on control ${d.number}; the house number of ${d.name} is ${d.house}.`,
  'map.generic-name': (d) =>
    `"${d.control}" is what MIDI calls that number in general, not what ${d.unit} does with it.`,
  'map.state-undescribed': (d) =>
    `${d.unit} is called to ${d.label}, but nobody wrote down how its panel stands there: ${d.missing.join(', ')}.`,
  'map.no-program': (d) => `No program of ${d.unit}'s own table calls ${d.label} ${d.name}`.trim() + ', which is used.',
  'map.slot-lost': (d) =>
    `"${d.name}" is no longer in ${d.unit}'s preset list; ${d.tones === 1 ? 'a tone wants' : `${d.tones} tones want`} it.`,
  'tone.flip-unknown': (d) =>
    `${d.tone} wants ${d.control} of ${d.unit} in a certain state, but it only turns over, and nobody wrote down how the preset stores it.`,
};

const FIXES: Partial<Words<string>> = {
  'rig.channel-differs': (d) => `Send on channel ${d.listens}`,
  'rig.port-off': (d) => `Switch ${d.port} on`,
  'rig.port-unused': (d) => `Switch ${d.port} off`,
  'rig.loop': () => 'Open the loop',
  'map.house-differs': (d) => `Put it on ${d.house}`,
};

/** What a finding says. */
export const findingSentence = (f: Finding): string => (SENTENCES[f.code] as (data: Finding['data']) => string)(f.data);

/** What the button of its fix says. */
export const fixWords = (f: Finding): string =>
  (FIXES[f.code] as ((data: Finding['data']) => string) | undefined)?.(f.data) ?? 'Mend it';
