import { XMLBuilder } from 'fast-xml-parser';
import {
  addressOf,
  bankMessages,
  encodeValue,
  encodingClaims,
  groupOf,
  labelOf,
  valueRange,
  type Control,
} from '../../addressing';
import { decodeMessage } from '../../midi';
import { NO_LETTER } from '../../letters';
import { problem, type Problem } from '../../problems';
import type { Slot, Unit } from '../../show';

export interface WrittenNames {
  readonly text: string;
  /** What the document has no way to say. */
  readonly problems: readonly Problem[];
}

type Node = Readonly<Record<string, unknown>>;

const element = (
  name: string,
  attributes: Readonly<Record<string, string | number>>,
  children: readonly Node[] = [],
): Node => ({
  [name]: children,
  ':@': Object.fromEntries(Object.entries(attributes).map(([k, v]) => [k, String(v)])),
});
const textElement = (name: string, text: string): Node => ({ [name]: [{ '#text': text }] });

const BUILDER = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  format: true,
  indentBy: ' ',
  suppressEmptyNode: true,
  processEntities: true,
});

const HEAD =
  '<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE MIDINameDocument PUBLIC "-//MIDI Manufacturers Association//DTD MIDINameDocument 1.0//EN" "http://www.midi.org/dtds/MIDINameDocument10.dtd">\n';

/**
 * A unit's names as a MIDI name document (MIDI Manufacturers Association, DTD
 * MIDINameDocument 1.0): a patch bank for each group and bank, with its bank select;
 * control names with their ranges and named values; names of notes.
 */
export function writeMidiNames(unit: Unit, author: string): WrittenNames {
  const problems: Problem[] = [];
  const { profile } = unit;
  const set = unit.name;
  const notes = noteNames(profile.controls);
  const controls = [...variantControl(unit), ...profile.controls].flatMap((c) =>
    controlElement(c, unit.channel, problems),
  );
  const channels = Array.from({ length: 16 }, (_, i) =>
    element('AvailableChannel', {
      Channel: i + 1,
      Available: String(unit.listens === 'all' || i + 1 === unit.channel),
    }),
  );
  const nameSet = element('ChannelNameSet', { Name: set }, [
    { AvailableForChannels: channels },
    ...(notes.length > 0 ? [element('NoteNameList', { Name: `${set} notes` }, notes)] : []),
    ...(controls.length > 0 ? [element('ControlNameList', { Name: `${set} controls` }, controls)] : []),
    ...banks(unit),
  ]);
  const assigned = element('CustomDeviceMode', { Name: set }, [
    { ChannelNameSetAssignments: [element('ChannelNameSetAssign', { Channel: unit.channel, NameSet: set })] },
  ]);
  const device = [textElement('Manufacturer', profile.name), textElement('Model', unit.name), assigned, nameSet];
  const document = [{ MIDINameDocument: [textElement('Author', author), { MasterDeviceNames: device }] }];
  return { text: withLetters(`${HEAD}${BUILDER.build(document).trim()}\n`, problems), problems };
}

/** A text with the sign for an unknown letter in place of each that XML has not, which is said. */
function withLetters(text: string, problems: Problem[]): string {
  let count = 0;
  const all = new RegExp(NO_LETTER.source, 'gu');
  const written = text.replace(all, () => {
    count += 1;
    return '\uFFFD';
  });
  if (count > 0) problems.push(problem('names.letters', 'note', { in: 'nowhere' }, { count }));
  return written;
}

/** A unit's variants are a control like others; the document has no word for them. */
function variantControl({ profile: { variants } }: Unit): Control[] {
  if (!variants) return [];
  const { word, names, encoding } = variants;
  return [{ id: 'variant', name: word, encoding, options: names, rest: null, houseId: null }];
}

/** Named slots by group and bank, each bank with the messages that select it. */
function banks({ profile: { plan }, slots, channel }: Unit): Node[] {
  const parts = new Map<string, { bank: number; name: string; slots: { slot: Slot; program: number }[] }>();
  for (const slot of slots) {
    const address = addressOf(plan, slot.index);
    if (!address || slot.name.trim() === '') continue;
    const { group, number } = groupOf(plan, slot.index);
    const key = `${number} ${address.bank}`;
    const part = parts.get(key) ?? { bank: address.bank, name: `${group.name} ${address.bank}`, slots: [] };
    part.slots.push({ slot, program: address.program });
    parts.set(key, part);
  }
  return [...parts.values()].map(({ bank, name, slots: own }) => {
    const commands = bankMessages(plan, channel, bank).flatMap((bytes) => {
      const message = decodeMessage(bytes);
      if (message?.kind !== 'control') return [];
      return [element('ControlChange', { Control: message.control, Value: message.value })];
    });
    const patches = own.map(({ slot, program }) =>
      element('Patch', { Number: labelOf(plan, slot.index), Name: slot.name, ProgramChange: program }),
    );
    return element('PatchBank', { Name: name }, [
      ...(commands.length > 0 ? [{ MIDICommands: commands }] : []),
      element('PatchNameList', { Name: name }, patches),
    ]);
  });
}

const noteNames = (controls: readonly Control[]): Node[] =>
  controls.flatMap(({ name, encoding, options }) =>
    encoding.kind === 'note' || encoding.kind === 'note-table'
      ? encodingClaims(encoding).map(({ number }, i) =>
          element('Note', { Number: number, Name: options[i] ? `${name}: ${options[i]}` : `${name} ${i + 1}` }),
        )
      : [],
  );

function controlElement({ name, encoding: e, options }: Control, channel: number, problems: Problem[]): Node[] {
  const bare = (type: string, number: number, values: Node | null): Node[] => [
    element('Control', { Type: type, Number: number, Name: name }, values ? [values] : []),
  ];
  switch (e.kind) {
    case 'note':
    case 'note-table':
      return [];
    case 'program':
    case 'program-table':
    case 'exclusive':
      problems.push(problem('names.left-out', 'note', { in: 'nowhere' }, { control: name, kind: KIND_WORDS[e.kind] }));
      return [];
    case 'fourteen-bit':
      return bare('14bit', e.number, range(e.from, e.to, e.unit));
    case 'nrpn':
      return bare('NRPN', e.number, range(e.from, e.to, e.unit));
    case 'continuous':
      return bare('7bit', e.number, range(e.from, e.to, e.unit));
    case 'tap':
    case 'flip':
      return bare('7bit', e.number, null);
    case 'index':
    case 'zones':
    case 'table':
    case 'set-switch':
    case 'momentary': {
      const { low, high } = valueRange(e);
      const values = Array.from({ length: high - low + 1 }, (_, i) => {
        const value = encodeValue(e, channel, low + i)[0]![2]!;
        const on = e.kind === 'set-switch' || e.kind === 'momentary';
        return element('Value', { Number: value, Name: options[i] || (on ? ['off', 'on'][i]! : `${name} ${i + 1}`) });
      });
      return bare('7bit', e.number, { Values: [element('ValueNameList', { Name: name }, values)] });
    }
  }
}

const KIND_WORDS = {
  program: 'a program change',
  'program-table': 'a program change',
  exclusive: 'system exclusive',
} as const;

const range = (from: number, to: number, unit: string): Node =>
  element('Values', { Min: Math.min(from, to), Max: Math.max(from, to), ...(unit === '' ? {} : { Units: unit }) });
