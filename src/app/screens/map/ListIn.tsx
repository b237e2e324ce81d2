import { Upload } from 'lucide-react';
import { useState, type RefObject } from 'react';
import { FileTrigger, TextArea } from 'react-aria-components';
import styled from 'styled-components';
import { indexOfLabel, labelOf, type AddressPlan } from '../../../core/addressing';
import { namedControls, patchesToSlots, readMidiNames } from '../../../core/formats/midi-names';
import { decodeText, readPresetList } from '../../../core/formats/preset-list';
import type { MadeNames } from '../../../core/cells';
import { hasErrors, type Problem, type Read } from '../../../core/problems';
import {
  changeProfile,
  indexShow,
  nameSlots,
  slotDependents,
  type Edit,
  type ListedName,
  type Matching,
  type Unit,
} from '../../../core/show';
import { MadeChoice, useMade } from '../../features/MadeChoice';
import { Choices } from '../../widgets/Choices';
import { DialogButton } from '../../widgets/DialogButton';
import { Button, Field, Input, Label, MainButton, Soft, inputLook } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { Told } from '../../features/Told';
import { matchList, newId, perform, versions } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { ReorderForm } from './ReorderForm';
import type { Run } from './useSlotSheet';

const Paper = styled(TextArea)`
  ${inputLook}
  min-height: 168px;
  resize: vertical;
  line-height: 1.45;
  white-space: pre;
`;

const Row = styled.div`
  display: flex;
  align-items: end;
  gap: 12px;
  flex-wrap: wrap;
`;

type Use = 'names' | 'reorder';

/** A preset list that somebody pastes or opens: names for slots, or the unit's own list after it was put in another order. */
export function ListIn({ unitId, run }: { readonly unitId: string; readonly run: RefObject<Run> }) {
  const [first, setFirst] = useState(0);
  return (
    <DialogButton
      face={
        <>
          <Upload size={16} aria-hidden /> Import list
        </>
      }
      title="Import a preset list"
      width={880}
      onOpen={() => setFirst(run.current.first)}
    >
      {(close) => <ListDialog unitId={unitId} first={first} close={close} />}
    </DialogButton>
  );
}

function ListDialog({
  unitId,
  first,
  close,
}: {
  readonly unitId: string;
  readonly first: number;
  readonly close: () => void;
}) {
  const unit = indexShow(useShow()).units.get(unitId)!;
  const [matching, setMatching] = useState<{ matching: Matching; now: readonly ListedName[] } | null>(null);
  return matching ? (
    <ReorderForm unit={unit} {...matching} onBack={() => setMatching(null)} onDone={close} />
  ) : (
    <ListForm unit={unit} first={first} onClose={close} onMatched={setMatching} />
  );
}

interface FormProps {
  readonly unit: Unit;
  readonly first: number;
  readonly onClose: () => void;
  readonly onMatched: (found: { matching: Matching; now: readonly ListedName[] }) => void;
}

function ListForm({ unit, first, onClose, onMatched }: FormProps) {
  const show = useShow();
  const { plan } = unit.profile;
  const [text, setText] = useState('');
  const [from, setFrom] = useState(labelOf(plan, first));
  const [use, setUse] = useState<Use>('names');
  const [broken, setBroken] = useState<readonly Problem[]>([]);
  const [made, setMade] = useMade();
  const start = indexOfLabel(plan, from);
  const read = text.trim() === '' ? null : readList(text, unit, start ?? 0, made);
  const names = read?.value;

  const open = async (file: File): Promise<void> => {
    const { value, problems } = decodeText(new Uint8Array(await file.arrayBuffer()));
    setBroken(problems);
    if (value !== undefined) setText(value);
  };
  const go = async (): Promise<void> => {
    if (!names || start === undefined) return;
    if (use === 'reorder') {
      const matching = await matchList(unit.id, names);
      if (matching) onMatched({ matching, now: names.filter((n) => n.name !== '') });
      return;
    }
    const edits = [nameSlots(show, unit.id, names, newId), controlsEdit()].filter((e) => e !== null);
    if (edits.length > 0 && !(await versions.keepBefore(`names of ${unit.name}`))) return;
    perform(edits.length > 0 ? { kind: 'group', edits } : null, `take in ${names.length} names`);
    onClose();
  };
  const controlsEdit = (): Edit | null => {
    const controls = [...unit.profile.controls, ...(read?.controls ?? [])];
    const change = changeProfile(show, unit.id, { ...unit.profile, controls });
    return change.ok ? change.edit : null;
  };
  const changed = names?.filter((n) => (unit.slots.find((s) => s.index === n.index)?.name ?? '') !== n.name) ?? [];
  const touched = new Set(changed.flatMap((n) => unit.slots.find((s) => s.index === n.index)?.id ?? []));
  const used = slotDependents(show, unit.id, touched);
  const calls = used.tones > 0 || used.songs > 0;
  // The same name elsewhere in the list than on the map: presets changed places, they were not renamed.
  const other = calls
    ? unit.slots.filter(
        (s) =>
          s.name !== '' && touched.has(s.id) && (names ?? []).some((n) => n.name === s.name && n.index !== s.index),
      )
    : [];
  return (
    <Rows>
      <Field value={text} onChange={setText} autoFocus>
        <Label>Names one below the other, or label and name, or a table with a head</Label>
        <Paper spellCheck={false} placeholder={`${labelOf(plan, 0)}\tFirst name\n${labelOf(plan, 1)}\tSecond name`} />
      </Field>
      <FileRow open={open} from={from} setFrom={setFrom} start={start} plan={plan} />
      <UseChoice use={use} setUse={setUse} />
      <Told problems={[...broken, ...(read?.problems ?? [])]} label="About the list" />
      <MadeChoice made={made} onPick={setMade} problems={read?.problems ?? []} />
      {names && names.length > 0 && (
        <Soft>
          First row: {names[0]!.name || 'no name'} on {labelOf(plan, names[0]!.index)}; last row:{' '}
          {names.at(-1)!.name || 'no name'} on {labelOf(plan, names.at(-1)!.index)}.
        </Soft>
      )}
      {names && use === 'names' && (
        <Soft role="status">
          {names.length} {names.length === 1 ? 'slot' : 'slots'} in the list, {changed.length} of them change.{' '}
          {read.controls.length > 0 && ` ${read.controls.length} controls come along.`}
        </Soft>
      )}
      {use === 'names' && other.length > 0 && (
        <Soft role="alert" style={{ color: desk.rust, fontWeight: 600 }}>
          {other.length === 1 ? '1 preset that songs use is' : `${other.length} presets that songs use are`} in the list
          under another number (
          {other
            .slice(0, 3)
            .map((s) => s.name)
            .join(', ')}
          {other.length > 3 && ' …'}). As names only, what calls them will sound other than before. If the unit's list
          was put in another order, choose “The list as it is in the unit now”: then songs follow.
        </Soft>
      )}
      <Last>
        <Button onPress={onClose}>Cancel</Button>
        <MainButton isDisabled={!names || start === undefined} onPress={() => void go()}>
          {use === 'names' ? 'Import names' : 'Compare with the map'}
        </MainButton>
      </Last>
    </Rows>
  );
}

interface FileRowProps {
  readonly open: (file: File) => Promise<void>;
  readonly from: string;
  readonly setFrom: (value: string) => void;
  readonly start: number | undefined;
  readonly plan: AddressPlan;
}

/** Takes the list from a file. */
function FileRow({ open, from, setFrom, start, plan }: FileRowProps) {
  return (
    <Row>
      <FileTrigger
        acceptedFileTypes={['.csv', '.txt', '.tsv', '.midnam', '.xml', 'text/plain', 'text/csv']}
        onSelect={(files) => files?.[0] && void open(files[0])}
      >
        <Button>Open a file</Button>
      </FileTrigger>
      <Field value={from} onChange={setFrom} isInvalid={start === undefined} style={{ width: 200 }}>
        <Label>First slot for names without a label</Label>
        <Input />
      </Field>
      {start === undefined && <Soft>{`Slots are written like ${labelOf(plan, 0)}.`}</Soft>}
    </Row>
  );
}

interface UseChoiceProps {
  readonly use: Use;
  readonly setUse: (value: Use) => void;
}

/** What the list is for. */
function UseChoice({ use, setUse }: UseChoiceProps) {
  return (
    <Choices<Use>
      label="What it is"
      value={use}
      onPick={setUse}
      choices={[
        {
          id: 'names',
          name: 'Names for these slots',
          about: 'Every slot keeps its number; only its name changes. Songs go on calling the same numbers.',
        },
        {
          id: 'reorder',
          name: 'The list as it is in the unit now',
          about: 'Presets were put in another order: they are matched by name, and every tone follows.',
        },
      ]}
    />
  );
}

type ListRead = Read<readonly ListedName[]> & {
  readonly controls: ReturnType<typeof namedControls>['value'] & object;
};

/** Reads what was pasted as what it looks like: a MIDI name document, or a list. */
function readList(text: string, unit: Unit, first: number, made: MadeNames): ListRead {
  const { plan, controls } = unit.profile;
  if (!text.trimStart().startsWith('<')) {
    const { name, slots } = unit;
    return { ...readPresetList(text, { plan, unit: name, slots, first, made }), controls: [] };
  }
  const document = readMidiNames(text);
  const [names] = document.value ?? [];
  if (!names) return { value: undefined, problems: document.problems, controls: [] };
  const slots = patchesToSlots(names, plan);
  const found = namedControls(names, [...controls, ...variantsAsControl(unit)], newId);
  const problems = [...slots.problems, ...found.problems];
  return { value: hasErrors(problems) ? undefined : slots.value, problems, controls: found.value ?? [] };
}

const variantsAsControl = ({ profile: { variants } }: Unit) =>
  variants
    ? [{ id: '', name: variants.word, encoding: variants.encoding, options: [], rest: null, houseId: null }]
    : [];
