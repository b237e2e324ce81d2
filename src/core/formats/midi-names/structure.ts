/** How often a child may stand at its place. */
type Often = 'one' | 'maybe' | 'many' | 'some';

/** Children at one place of an element's content: any of the names, so often. */
export interface ChildRule {
  readonly names: readonly string[];
  readonly often: Often;
}

export interface ElementRule {
  readonly attributes: Readonly<Record<string, AttributeRule>>;
  /** In this order. */
  readonly children: readonly ChildRule[];
  readonly text?: boolean;
}

/** What an attribute may hold; with `needed` it has to be there. */
export interface AttributeRule {
  readonly needed: boolean;
  readonly kind: 'text' | 'channel' | 'seven-bit' | 'fourteen-bit' | 'true-or-false' | 'control-type' | 'key';
}

const needed = (kind: AttributeRule['kind'] = 'text'): AttributeRule => ({ needed: true, kind });
const optional = (kind: AttributeRule['kind'] = 'text'): AttributeRule => ({ needed: false, kind });
const one = (...names: string[]): ChildRule => ({ names, often: 'one' });
const maybe = (...names: string[]): ChildRule => ({ names, often: 'maybe' });
const many = (...names: string[]): ChildRule => ({ names, often: 'many' });
const some = (...names: string[]): ChildRule => ({ names, often: 'some' });
const named = { Name: needed() };
const text: ElementRule = { attributes: {}, children: [], text: true };

/** Messages that a document may list to be sent for a bank or a patch. */
const COMMANDS = ['ControlChange', 'ProgramChange', 'NRPN', 'RPN', 'NoteOn', 'NoteOff', 'PitchBend', 'SysEx'];

/**
 * Elements of a MIDI name document with their content and attributes, after the published
 * structure (MIDI Manufacturers Association, DTD MIDINameDocument 1.0). Elements that name
 * nothing a map can use are listed all the same, so that documents with them are read.
 */
export const STRUCTURE: Readonly<Record<string, ElementRule>> = {
  MIDINameDocument: {
    attributes: {},
    children: [maybe('Author'), many('MasterDeviceNames', 'ExtendingDeviceNames', 'StandardDeviceMode')],
  },
  Author: text,
  Manufacturer: text,
  Model: text,
  MasterDeviceNames: {
    attributes: {},
    children: [
      one('Manufacturer'),
      some('Model'),
      many('Device'),
      many('SupportsStandardDeviceMode', 'CustomDeviceMode'),
      many('ChannelNameSet', 'NoteNameList', 'ControlNameList', 'PatchNameList', 'ValueNameList'),
    ],
  },
  ExtendingDeviceNames: {
    attributes: {},
    children: [
      one('Manufacturer'),
      some('Model'),
      many('Device'),
      many('ChannelNameSet', 'NoteNameList', 'ControlNameList', 'PatchNameList', 'ValueNameList'),
    ],
  },
  StandardDeviceMode: {
    attributes: named,
    children: [
      maybe('DeviceModeEnable'),
      maybe('DeviceModeDisable'),
      one('ChannelNameSetAssignments'),
      many('ChannelNameSet'),
    ],
  },
  Device: { attributes: { ...named, UniqueID: optional() }, children: [] },
  SupportsStandardDeviceMode: { attributes: named, children: [] },
  CustomDeviceMode: {
    attributes: named,
    children: [maybe('DeviceModeEnable'), maybe('DeviceModeDisable'), one('ChannelNameSetAssignments')],
  },
  DeviceModeEnable: { attributes: {}, children: [maybe('MIDICommands'), many(...COMMANDS)] },
  DeviceModeDisable: { attributes: {}, children: [maybe('MIDICommands'), many(...COMMANDS)] },
  ChannelNameSetAssignments: { attributes: {}, children: [some('ChannelNameSetAssign')] },
  ChannelNameSetAssign: { attributes: { Channel: needed('channel'), NameSet: needed() }, children: [] },
  ChannelNameSet: {
    attributes: named,
    children: [
      one('AvailableForChannels'),
      maybe('UsesNoteNameList', 'NoteNameList'),
      maybe('UsesControlNameList', 'ControlNameList'),
      many('PatchBank'),
    ],
  },
  AvailableForChannels: { attributes: {}, children: [some('AvailableChannel')] },
  AvailableChannel: { attributes: { Channel: needed('channel'), Available: optional('true-or-false') }, children: [] },
  UsesNoteNameList: { attributes: named, children: [] },
  UsesControlNameList: { attributes: named, children: [] },
  UsesPatchNameList: { attributes: named, children: [] },
  UsesValueNameList: { attributes: named, children: [] },
  PatchBank: {
    attributes: { ...named, ROM: optional('true-or-false') },
    children: [
      maybe('MIDICommands'),
      maybe('UsesPatchNameList', 'PatchNameList'),
      maybe('NoteNameList', 'UsesNoteNameList'),
    ],
  },
  MIDICommands: { attributes: {}, children: [many(...COMMANDS)] },
  PatchMIDICommands: { attributes: {}, children: [many(...COMMANDS)] },
  ControlChange: {
    attributes: { Channel: optional('channel'), Control: needed('seven-bit'), Value: needed('seven-bit') },
    children: [],
  },
  ProgramChange: { attributes: { Channel: optional('channel'), Number: needed('seven-bit') }, children: [] },
  NRPN: {
    attributes: { Channel: optional('channel'), Number: needed('fourteen-bit'), Value: needed('fourteen-bit') },
    children: [],
  },
  RPN: {
    attributes: { Channel: optional('channel'), Number: needed('fourteen-bit'), Value: needed('fourteen-bit') },
    children: [],
  },
  NoteOn: {
    attributes: { Channel: optional('channel'), Note: needed('seven-bit'), Velocity: needed('seven-bit') },
    children: [],
  },
  NoteOff: {
    attributes: { Channel: optional('channel'), Note: needed('seven-bit'), Velocity: needed('seven-bit') },
    children: [],
  },
  PitchBend: { attributes: { Channel: optional('channel'), Value: needed('fourteen-bit') }, children: [] },
  SysEx: text,
  PatchNameList: { attributes: { Name: optional() }, children: [some('Patch')] },
  Patch: {
    attributes: { Number: needed(), Name: needed(), ProgramChange: optional('seven-bit') },
    children: [
      maybe('PatchMIDICommands'),
      maybe('UsesNoteNameList', 'NoteNameList'),
      maybe('UsesControlNameList', 'ControlNameList'),
    ],
  },
  NoteNameList: { attributes: { Name: optional() }, children: [some('Note', 'NoteGroup')] },
  NoteGroup: { attributes: { Name: optional() }, children: [some('Note')] },
  Note: { attributes: { Number: needed('key'), Name: needed() }, children: [] },
  ControlNameList: { attributes: { Name: optional() }, children: [some('Control')] },
  Control: {
    attributes: { Type: optional('control-type'), Number: needed('fourteen-bit'), Name: needed() },
    children: [maybe('Values')],
  },
  Values: {
    attributes: {
      Min: optional('fourteen-bit'),
      Max: optional('fourteen-bit'),
      Default: optional('fourteen-bit'),
      Units: optional(),
    },
    children: [maybe('ValueNameList', 'UsesValueNameList')],
  },
  ValueNameList: { attributes: { Name: optional() }, children: [some('Value')] },
  Value: { attributes: { Number: needed('fourteen-bit'), Name: needed() }, children: [] },
};

/** What an attribute of a kind has to look like, and how to say so. */
export const ATTRIBUTE_KINDS: Readonly<
  Record<AttributeRule['kind'], { readonly fits: (value: string) => boolean; readonly words: string }>
> = {
  text: { fits: () => true, words: 'a text' },
  channel: { fits: within(1, 16), words: 'a channel from 1 to 16' },
  'seven-bit': { fits: within(0, 127), words: 'a number from 0 to 127' },
  key: { fits: within(0, 127), words: 'a number from 0 to 127' },
  'fourteen-bit': { fits: within(0, 16383), words: 'a number from 0 to 16383' },
  'true-or-false': { fits: (v) => v === 'true' || v === 'false', words: 'true or false' },
  'control-type': { fits: (v) => ['7bit', '14bit', 'RPN', 'NRPN'].includes(v), words: '7bit, 14bit, RPN or NRPN' },
};

function within(low: number, high: number): (value: string) => boolean {
  return (value) => /^\d{1,5}$/.test(value) && Number(value) >= low && Number(value) <= high;
}
