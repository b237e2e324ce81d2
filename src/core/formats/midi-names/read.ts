import { indexOfAddress, newControl, onOff, type AddressPlan, type Control, type Encoding } from '../../addressing';
import { problem, type Problem, type Read } from '../../problems';
import type { ListedName } from '../../show';
import { readXml, type Element } from './xml';

/** A patch of a device: what calls it on the wire, and how the device writes its place. */
export interface NamedPatch {
  readonly label: string;
  readonly name: string;
  readonly bank: BankSelect;
  readonly program: number;
}

/** Bank select as the document has it; null where it does not send that part. */
export interface BankSelect {
  readonly msb: number | null;
  readonly lsb: number | null;
}

export interface NamedControl {
  readonly name: string;
  readonly kind: '7bit' | '14bit' | 'RPN' | 'NRPN';
  readonly number: number;
  readonly low: number;
  readonly high: number;
  /** Named values, in their order. */
  readonly values: readonly { readonly value: number; readonly name: string }[];
}

/** Names of one set of channels of one device in the document. */
export interface DeviceNames {
  readonly device: string;
  readonly set: string;
  readonly patches: readonly NamedPatch[];
  readonly controls: readonly NamedControl[];
  readonly notes: readonly { readonly note: number; readonly name: string }[];
}

/** Reads a MIDI name document. Anything against the published structure refuses it whole, with the line. */
export function readMidiNames(text: string): Read<readonly DeviceNames[]> {
  const xml = readXml(text, 'MIDINameDocument');
  if (!xml.value) return { value: undefined, problems: xml.problems };
  const problems: Problem[] = [];
  const sets: DeviceNames[] = [];
  for (const device of xml.value.children.filter((c) => c.name !== 'Author')) {
    const models = device.children.filter((c) => c.name === 'Model').map((c) => c.text);
    const name = device.attributes.Name ?? models.join(', ');
    for (const set of device.children.filter((c) => c.name === 'ChannelNameSet')) {
      sets.push(namesOf(device, name, set, problems));
    }
  }
  return problems.length > 0 ? { value: undefined, problems } : { value: sets, problems };
}

function namesOf(device: Element, name: string, set: Element, problems: Problem[]): DeviceNames {
  const list = (kind: string, within: Element): Element | undefined => listOf(device, kind, within, problems);
  const patches = set.children
    .filter((c) => c.name === 'PatchBank')
    .flatMap((bank) => {
      const select = bankOf(child(bank, 'MIDICommands'));
      return (list('PatchNameList', bank)?.children ?? []).map((patch, i) => patchOf(patch, select, i));
    });
  const controls = (list('ControlNameList', set)?.children ?? []).map((c) =>
    controlOf(c, (v) => list('ValueNameList', v)),
  );
  const notes = (list('NoteNameList', set)?.children ?? [])
    .flatMap((n) => (n.name === 'NoteGroup' ? n.children : [n]))
    .map((n) => ({ note: Number(n.attributes.Number), name: n.attributes.Name! }));
  return { device: name, set: set.attributes.Name!, patches, controls, notes };
}

const child = (e: Element, name: string): Element | undefined => e.children.find((c) => c.name === name);

/** A list that stands in an element, or that it refers to by name in the same device. */
function listOf(device: Element, kind: string, within: Element, problems: Problem[]): Element | undefined {
  const own = child(within, kind);
  if (own) return own;
  const reference = child(within, `Uses${kind}`);
  if (!reference) return undefined;
  const name = reference.attributes.Name!;
  const found = device.children.find((c) => c.name === kind && c.attributes.Name === name);
  if (!found) problems.push(problem('names.list-missing', 'error', reference.place, { kind, name }));
  return found;
}

/** The last bank select of a list of messages; `before` is what held until then. */
function bankOf(commands: Element | undefined, before: BankSelect = { msb: null, lsb: null }): BankSelect {
  let bank = before;
  for (const { name, attributes } of commands?.children ?? []) {
    if (name !== 'ControlChange') continue;
    if (attributes.Control === '0') bank = { ...bank, msb: Number(attributes.Value) };
    if (attributes.Control === '32') bank = { ...bank, lsb: Number(attributes.Value) };
  }
  return bank;
}

/** A patch without a program of its own is called by its messages, or by its place in the list. */
function patchOf({ attributes, children }: Element, bank: BankSelect, place: number): NamedPatch {
  const commands = children.find((c) => c.name === 'PatchMIDICommands');
  const sent = commands?.children.find((c) => c.name === 'ProgramChange')?.attributes.Number;
  const program = Number(attributes.ProgramChange ?? sent ?? Math.min(place, 127));
  return { label: attributes.Number!, name: attributes.Name!, bank: bankOf(commands, bank), program };
}

function controlOf({ attributes, children }: Element, list: (values: Element) => Element | undefined): NamedControl {
  const kind = (attributes.Type ?? '7bit') as NamedControl['kind'];
  const values = children.find((c) => c.name === 'Values');
  const named = (values && list(values)?.children) ?? [];
  return {
    name: attributes.Name!,
    kind,
    number: Number(attributes.Number),
    low: Number(values?.attributes.Min ?? 0),
    high: Number(values?.attributes.Max ?? (kind === '7bit' ? 127 : 16383)),
    values: named
      .map((v) => ({ value: Number(v.attributes.Number), name: v.attributes.Name! }))
      .sort((a, b) => a.value - b.value),
  };
}

/** Names for the slots of a plan. Patches that call none of them, or one that has a name already, are told and left out. */
export function patchesToSlots(names: DeviceNames, plan: AddressPlan): Read<readonly ListedName[]> {
  const problems: Problem[] = [];
  const taken = new Map<number, string>();
  for (const { label, name, bank, program } of names.patches) {
    const number = bankNumber(plan, bank);
    const index = indexOfAddress(plan, { bank: number, program });
    const place = { in: 'nowhere' } as const;
    if (index === undefined) problems.push(problem('names.no-slot', 'warning', place, { name, bank: number, program }));
    else if (taken.has(index)) problems.push(problem('names.slot-twice', 'warning', place, { label, name }));
    else taken.set(index, name);
  }
  const value = [...taken].map(([index, name]) => ({ index, name })).sort((a, b) => a.index - b.index);
  return { value, problems };
}

/** The bank that a plan makes of a document's bank select, in the parts that the plan sends. */
function bankNumber(plan: AddressPlan, { msb, lsb }: BankSelect): number {
  switch (plan.bank.send) {
    case 'none':
      return 0;
    case 'msb':
      return msb ?? 0;
    case 'lsb':
      return lsb ?? msb ?? 0;
    case 'both':
      return (msb ?? 0) * 128 + (lsb ?? 0);
  }
}

/** Controls that a document names, as controls of a map. Those on numbers that `own` has already are told and left out. */
export function namedControls(
  names: DeviceNames,
  own: readonly Control[],
  newId: () => string,
): Read<readonly Control[]> {
  const taken = new Set(
    own.map((c) => `${c.encoding.kind === 'nrpn' ? 'nrpn' : 'cc'} ${'number' in c.encoding ? c.encoding.number : ''}`),
  );
  const problems: Problem[] = [];
  const value: Control[] = [];
  for (const control of names.controls) {
    const { name, kind, number } = control;
    const encoding = encodingOf(control);
    if (!encoding) {
      problems.push(
        problem('names.left-out', 'warning', { in: 'nowhere' }, { control: name, kind: `${kind} ${number}` }),
      );
    } else if (taken.has(`${kind === 'NRPN' ? 'nrpn' : 'cc'} ${number}`)) {
      problems.push(problem('names.control-taken', 'note', { in: 'nowhere' }, { name, number }));
    } else {
      const options = encoding.kind === 'table' ? control.values.map((v) => v.name.slice(0, 60)) : [];
      value.push(newControl(newId(), name.slice(0, 60), encoding, { options }));
    }
  }
  return { value, problems };
}

/** The encoding that says what a document says of a control; undefined where the map has no such kind. */
function encodingOf({ kind, number, low, high, values }: NamedControl): Encoding | undefined {
  const scale = { from: low, to: high, low, high, unit: '', curve: 'linear', points: [] } as const;
  const flat = low >= high;
  if (kind === 'NRPN') return flat ? undefined : { kind: 'nrpn', number, fine: high > 127, ...scale };
  if (kind === '14bit')
    return flat || number < 1 || number > 31 ? undefined : { kind: 'fourteen-bit', number, ...scale };
  if (kind === 'RPN' || number > 127) return undefined;
  const wire = values.map((v) => v.value).filter((v) => v <= 127);
  if (wire.length === 2 && wire[0] === 0 && wire[1] === 127) return onOff(number);
  if (wire.length > 0 && new Set(wire).size === wire.length) return { kind: 'table', number, values: wire };
  return flat || high > 127 ? undefined : { kind: 'continuous', number, ...scale };
}
