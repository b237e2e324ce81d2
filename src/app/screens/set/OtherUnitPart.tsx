import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link } from 'react-router';
import useSWR from 'swr';
import styled from 'styled-components';
import { labelOf } from '../../../core/addressing';
import { readUnitFile } from '../../../core/formats/unit-file';
import { indexShow, setTonight, type Slot, type Unit } from '../../../core/show';
import { lackingSongs, matchOther, otherUnitOf, type OtherMatch, type OtherUnit } from '../../../core/tonight';
import { unitLibrary } from '../../adapters/constants';
import { readFile } from '../../adapters/readFile';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { DialogButton } from '../../widgets/DialogButton';
import { DraftField } from '../../widgets/DraftField';
import { Fold } from '../../widgets/Fold';
import { Pick } from '../../widgets/Pick';
import { Button, FormProblem, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { LeastRoom } from './LeastRoom';

const Table = styled.table`
  border-collapse: collapse;
  & th,
  & td {
    padding: 3px 12px 3px 0;
    text-align: left;
    font-weight: 400;
  }
  & tr[data-none='true'] th {
    color: ${desk.rust};
    font-weight: 700;
  }
`;

const Whole = styled.div`
  flex: 1 0 100%;
  display: grid;
  gap: 8px;
  padding: 4px 0 6px 44px;
`;

const NONE = 'none';

type Candidate = Pick<Unit, 'name' | 'profile' | 'slots' | 'channel'>;

/** Units that a file holds: those of a show, or one alone. */
interface FileOfUnits {
  readonly title: string;
  readonly units: readonly (Candidate & { readonly id: string })[];
}

/** Larger files are shows. */
const UNIT_BYTES = 4_000_000;

/** Chooses the unit that is in the place of ours tonight: of the library, of this show, or of a file. */
export function ChooseOther({ unit }: { readonly unit: Unit }) {
  return (
    <DialogButton
      face="Choose it …"
      label={`Choose the unit in place of ${unit.name}`}
      title={`In place of ${unit.name}`}
      width={560}
    >
      {(close) => <ChooseForm unit={unit} close={close} />}
    </DialogButton>
  );
}

/** What can be chosen, by an id of its own: units of the show and of the library, and those of a file that was read. */
function useCandidates(
  unit: Unit,
  file: FileOfUnits | null,
): readonly { readonly id: string; readonly of: Candidate; readonly name: string }[] {
  const show = useShow();
  const library = useSWR('unit library', unitLibrary);
  return [
    ...(file?.units ?? []).map((u) => ({ id: `file ${u.id}`, of: u, name: `${u.name}, of ${file?.title}` })),
    ...show.units
      .filter((u) => u.id !== unit.id && u.profile.senders.length === 0)
      .map((u) => ({ id: `show ${u.id}`, of: { ...u, slots: u.slots }, name: `one like ${u.name}` })),
    ...(library.data ?? [])
      .filter((e) => e.profile.senders.length === 0)
      .map((e) => ({
        id: `library ${e.id}`,
        of: { name: e.profile.name, profile: e.profile, slots: [], channel: unit.channel },
        name: `${e.profile.name} (library)`,
      })),
  ];
}

function ChooseForm({ unit, close }: { readonly unit: Unit; readonly close: () => void }) {
  const show = useShow();
  const [file, setFile] = useState<FileOfUnits | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const candidates = useCandidates(unit, file);
  const of = candidates.find((c) => c.id === chosen)?.of;
  const read = async (given: File | undefined): Promise<void> => {
    if (!given) return;
    // A unit's map by itself is small: what is larger is a show.
    const alone = given.size < UNIT_BYTES ? readUnitFile(await given.text()).value : undefined;
    if (alone) {
      const { name, profile, slots } = alone.unit;
      setProblem(null);
      setFile({ title: given.name, units: [{ id: 'unit', name, profile, slots, channel: unit.channel }] });
      return;
    }
    const opened = await readFile(given);
    setProblem(opened.kind === 'refused' ? opened.problem : null);
    if (opened.kind === 'read') setFile(opened.bundle.show);
  };
  return (
    <Rows>
      <Pick
        label="Its map"
        value={chosen ?? NONE}
        choices={[{ id: NONE, name: 'choose a unit' }, ...candidates]}
        onPick={(id) => setChosen(id === NONE ? null : id)}
      />
      <div style={{ display: 'flex', alignItems: 'center', gap: 10 }}>
        <FileTrigger onSelect={(files) => void read(files?.[0])}>
          <Button>From a file …</Button>
        </FileTrigger>
        <Soft>A show or a unit’s map: what is in it is then in the list.</Soft>
      </div>
      {problem !== null && <FormProblem>{problem}</FormProblem>}
      <Last>
        <Button onPress={close}>Cancel</Button>
        <MainButton
          isDisabled={!of}
          onPress={() => {
            if (of)
              perform(setTonight(show, unit.id, otherUnitOf(unit.id, of, null)), `another unit for ${unit.name}`, true);
            close();
          }}
        >
          It is there tonight
        </MainButton>
      </Last>
    </Rows>
  );
}

const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: `channel ${i + 1}` }));

/** The unit that is in the place of ours: how it is reached, what stands for what, and what comes of it. */
export function OtherUnitPart({ unit, other }: { readonly unit: Unit; readonly other: OtherUnit }) {
  const show = useShow();
  const set = (change: Partial<OtherUnit>): void =>
    void perform(setTonight(show, unit.id, { ...other, ...change }), `change what is there for ${unit.name}`, true);
  const match = matchOther(show, unit, other);
  return (
    <>
      <DraftField
        label={`Name of what is there for ${unit.name}`}
        hideLabel
        value={other.name}
        style={{ width: 150 }}
        commit={(text) => {
          if (text.trim() === '') return 'a name';
          set({ name: text.trim().slice(0, 60) });
          return null;
        }}
      />
      <Pick
        label={`Channel of what is there for ${unit.name}`}
        hideLabel
        width="130px"
        value={String(other.channel)}
        choices={CHANNELS}
        onPick={(id) => set({ channel: Number(id) })}
      />
      <Pick
        label={`Port of what is there for ${unit.name}`}
        hideLabel
        width="150px"
        value={other.portId ?? NONE}
        choices={[{ id: NONE, name: 'on the same cable' }, ...show.ports]}
        onPick={(id) => set({ portId: id === NONE ? null : id })}
      />
      <ChooseOther unit={unit} />
      <Whole>
        <Consequences other={other} />
        <Fold summary={matchWords(match)}>
          {() => <MatchTable unit={unit} other={other} match={match} set={set} />}
        </Fold>
      </Whole>
    </>
  );
}

/** How many of our presets, variants and controls nothing stands for yet. */
function matchWords({ slots, variants, controls }: OtherMatch): string {
  const all = [...slots.values(), ...variants.values(), ...controls.values()];
  const none = all.filter((theirs) => theirs === null).length;
  return none === 0
    ? 'What stands for what: all is said'
    : `What stands for what: nothing for ${none} of ${all.length}`;
}

/** Which songs want something that nothing stands for, and how much room the set has then. */
function Consequences({ other }: { readonly other: OtherUnit }) {
  const show = useShow();
  const { songs } = indexShow(show);
  const lacking = lackingSongs(show, other);
  const cues = lacking.reduce((sum, l) => sum + l.cues, 0);
  if (lacking.length === 0) {
    return (
      <span>
        Everything that the set wants has something that stands for it. <LeastRoom />
      </span>
    );
  }
  return (
    <span>
      <b style={{ color: desk.rust }}>{cues === 1 ? '1 change has' : `${cues} changes have`} nothing in their place:</b>{' '}
      {lacking.map(({ songId, cues: own }, i) => (
        <span key={songId}>
          {i > 0 && ', '}
          <Link to={`/show/${show.id}/dry-run/${songId}`}>{songs.get(songId)?.title}</Link> ({own})
        </span>
      ))}
      . <LeastRoom />
    </span>
  );
}

interface MatchProps {
  readonly unit: Unit;
  readonly other: OtherUnit;
  readonly match: OtherMatch;
  readonly set: (change: Partial<OtherUnit>) => void;
}

/** What nothing stands for first. */
const open = <K, V>(map: ReadonlyMap<K, V | null>): readonly (readonly [K, V | null])[] =>
  [...map].toSorted(([, a], [, b]) => Number(a !== null) - Number(b !== null));

/** Our presets, variants and controls, each with what stands for it, to be said otherwise. */
function MatchTable({ unit, other, match, set }: MatchProps) {
  const { matches, profile } = other;
  const named = (slot: Slot): string => `${labelOf(profile.plan, slot.index)} ${slot.name}`.trim();
  const nothing = { id: NONE, name: 'nothing stands for it' };
  const slotName = (id: string): string => {
    const slot = unit.slots.find((own) => own.id === id);
    return slot ? `${labelOf(unit.profile.plan, slot.index)} ${slot.name}`.trim() : id;
  };
  return (
    <Table aria-label={`What stands for what of ${unit.name}`}>
      <thead>
        <tr>
          <th scope="col">{unit.name}</th>
          <th scope="col">{other.name}</th>
        </tr>
      </thead>
      <tbody>
        {open(match.slots).map(([id, theirs]) => (
          <MatchRow
            key={id}
            ours={slotName(id)}
            value={theirs?.id ?? NONE}
            choices={[nothing, ...other.slots.map((s) => ({ id: s.id, name: named(s) }))]}
            onPick={(to) =>
              set({ matches: { ...matches, slots: { ...matches.slots, [id]: to === NONE ? null : to } } })
            }
          />
        ))}
        {open(match.variants).map(([at, theirs]) => (
          <MatchRow
            key={`variant ${at}`}
            ours={`${unit.profile.variants?.word ?? ''} ${unit.profile.variants?.names[at] || at + 1}`}
            value={theirs === null ? NONE : String(theirs)}
            choices={[
              nothing,
              ...(profile.variants?.names ?? []).map((n, i) => ({ id: String(i), name: n || String(i + 1) })),
            ]}
            onPick={(to) =>
              set({
                matches: {
                  ...matches,
                  variants: { ...matches.variants, [String(at)]: to === NONE ? null : Number(to) },
                },
              })
            }
          />
        ))}
        {open(match.controls).map(([id, theirs]) => (
          <MatchRow
            key={`control ${id}`}
            ours={unit.profile.controls.find((c) => c.id === id)?.name ?? ''}
            value={theirs?.id ?? NONE}
            choices={[nothing, ...profile.controls.map((c) => ({ id: c.id, name: c.name }))]}
            onPick={(to) =>
              set({ matches: { ...matches, controls: { ...matches.controls, [id]: to === NONE ? null : to } } })
            }
          />
        ))}
      </tbody>
    </Table>
  );
}

interface MatchRowProps {
  readonly ours: string;
  readonly value: string;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  readonly onPick: (id: string) => void;
}

function MatchRow({ ours, value, choices, onPick }: MatchRowProps) {
  return (
    <tr data-none={value === NONE}>
      <th scope="row">{ours}</th>
      <td>
        <Pick
          label={`What stands for ${ours}`}
          hideLabel
          width="230px"
          value={value}
          choices={choices}
          onPick={onPick}
        />
      </td>
    </tr>
  );
}
