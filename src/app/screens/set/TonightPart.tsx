import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import {
  indexShow,
  setMissing,
  setOf,
  setTonight,
  setTonightAll,
  type Player,
  type Show,
  type Tonight,
  type Unit,
} from '../../../core/show';
import { changesFor, otherUnitOf } from '../../../core/tonight';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { UnitBadge } from '../../widgets/UnitBadge';
import { readFile } from '../../adapters/readFile';
import { perform, say } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { ChooseOther, OtherUnitPart } from './OtherUnitPart';

const Page = styled.div`
  display: grid;
  gap: 26px;
  align-content: start;
  overflow: auto;
  height: 100%;
  padding: 18px 24px 30px;
  & h2 {
    font-size: 19px;
    margin-bottom: 4px;
  }
`;

const List = styled.ul`
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
  border: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  & > li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 14px;
    min-height: 50px;
    padding: 7px 14px;
    border-bottom: 1px solid ${desk.line};
  }
  & > li:last-child {
    border-bottom: 0;
  }
  & b {
    font: 700 15px/1.3 ${font.display};
  }
`;

const HOWS = [
  { id: 'there', name: 'as usual' },
  { id: 'off', name: 'off' },
  { id: 'spare', name: 'replaced by its spare' },
  { id: 'other', name: 'another unit' },
];
const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: `channel ${i + 1}` }));

/** Who and what is not there tonight, and what that changes. The show itself stays as it is. */
export function TonightPart() {
  const show = useShow();
  return (
    <Page>
      <section>
        <h2>Players</h2>
        <Soft>A missing player’s recorded part is added to the backing.</Soft>
        {show.players.length === 0 ? (
          <p>The show names no players: add them in Rig, Players.</p>
        ) : (
          <List aria-label="Players tonight">
            {show.players.map((p) => (
              <PlayerRow key={p.id} player={p} />
            ))}
          </List>
        )}
      </section>
      <section>
        <h2>Units</h2>
        <Soft>
          A unit that is off is sent nothing. A spare is sent to on its own channel, from an unknown state on. Another
          unit is sent what its own map has for the names that tones want.
        </Soft>
        <WholeRig />
        {show.units.length === 0 ? (
          <p>The rig has no unit yet.</p>
        ) : (
          <List aria-label="Units tonight">
            {show.units
              .filter((u) => u.profile.senders.length === 0)
              .map((u) => (
                <UnitRow key={u.id} unit={u} />
              ))}
          </List>
        )}
      </section>
    </Page>
  );
}

/** The rig of another show in place of ours: each unit of the same name. */
function WholeRig() {
  const show = useShow();
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const opened = await readFile(file);
    if (opened.kind === 'refused') return say(opened.problem);
    const there = opened.bundle.show;
    const hows = sameNamed(show, there);
    const left = show.units.filter((u) => u.profile.senders.length === 0 && !hows.some((h) => h.unitId === u.id));
    perform(setTonightAll(show, hows), `the rig of ${there.title} tonight`, true);
    const names = left.map((u) => u.name).join(', ');
    say(
      hows.length === 0
        ? `${there.title} has no unit of the same name as one here: choose them one by one.`
        : `${hows.length === 1 ? '1 unit is' : `${hows.length} units are`} taken from ${there.title}. ${names === '' ? '' : `None of the same name for ${names}.`}`,
    );
  };
  return (
    <div style={{ marginTop: 8 }}>
      <FileTrigger onSelect={(files) => void take(files?.[0])}>
        <Button>Another rig tonight, from a show file …</Button>
      </FileTrigger>
    </div>
  );
}

/** Units of another show in place of ours of the same name, on our port of the same name as theirs. */
function sameNamed(show: Show, there: Show): readonly Tonight[] {
  const { ports } = indexShow(there);
  return show.units.flatMap((unit) => {
    if (unit.profile.senders.length > 0) return [];
    const same = there.units.find((u) => u.name.trim().toLowerCase() === unit.name.trim().toLowerCase());
    if (!same) return [];
    const port = same.input?.from === 'port' ? ports.get(same.input.portId)?.name : undefined;
    const portId = show.ports.find((p) => p.name === port)?.id ?? null;
    return [otherUnitOf(unit.id, same, portId)];
  });
}

function PlayerRow({ player }: { readonly player: Player }) {
  const show = useShow();
  const missing = setOf(show).missing.includes(player.id);
  const songs = show.songs.filter((s) => s.tracks.some((t) => t.role === 'part' && t.playerId === player.id));
  return (
    <li>
      <b style={{ minWidth: 150 }}>{player.name}</b>
      <Check
        isSelected={missing}
        onChange={(away) =>
          perform(
            setMissing(show, player.id, away),
            away ? `${player.name} is missing` : `${player.name} is there`,
            true,
          )
        }
      >
        missing tonight
      </Check>
      <Soft>
        {songs.length === 0
          ? "No part is recorded: in a song, Sound, a recording can be this player's part."
          : `Part recorded in ${songs.length === 1 ? '1 song' : `${songs.length} songs`}.`}
      </Soft>
    </li>
  );
}

function UnitRow({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const now = setOf(show).tonight.find((t) => t.unitId === unit.id);
  const set = (how: Tonight | null): void =>
    void perform(setTonight(show, unit.id, how), `change ${unit.name} for tonight`, true);
  const [asks, setAsks] = useState(false);
  const firmwares = [unit.profile, ...unit.versions].map((p) => p.firmware);
  return (
    <li>
      <UnitBadge monogram={unit.monogram} index={show.units.indexOf(unit)} />
      <b style={{ minWidth: 130 }}>{unit.name}</b>
      <Pick
        label={`${unit.name} tonight`}
        hideLabel
        width="200px"
        value={asks ? 'other' : (now?.how ?? 'there')}
        choices={HOWS}
        onPick={(id) => {
          if (id === 'off') set({ how: 'off', unitId: unit.id });
          else if (id === 'spare')
            set({ how: 'spare', unitId: unit.id, channel: unit.channel, firmware: unit.profile.firmware });
          else if (id === 'there') set(null);
          setAsks(id === 'other');
        }}
      />
      {asks && now?.how !== 'other' && <ChooseOther unit={unit} />}
      {now?.how === 'other' && <OtherUnitPart unit={unit} other={now} />}
      {now?.how === 'spare' && (
        <>
          <Pick
            label={`Channel of the spare for ${unit.name}`}
            hideLabel
            width="130px"
            value={String(now.channel)}
            choices={CHANNELS}
            onPick={(id) => set({ ...now, channel: Number(id) })}
          />
          {unit.versions.length > 0 && (
            <Pick
              label={`Firmware of the spare for ${unit.name}`}
              hideLabel
              width="150px"
              value={now.firmware}
              choices={firmwares.map((f) => ({ id: f, name: `firmware ${f}` }))}
              onPick={(firmware) => set({ ...now, firmware })}
            />
          )}
          {unit.spare !== '' && <Soft>{unit.spare}</Soft>}
        </>
      )}
      {now?.how === 'off' && <Missed unit={unit} />}
    </li>
  );
}

/** What of the set is not heard while a unit is off. */
function Missed({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const missed = changesFor(show, unit.id);
  const { songs } = indexShow(show);
  const changes = missed.reduce((sum, m) => sum + m.changes, 0);
  if (missed.length === 0) return <Soft>Nothing in the set wants it.</Soft>;
  return (
    <span style={{ color: desk.rust, fontWeight: 600 }}>
      {changes === 1 ? '1 change is' : `${changes} changes are`} left out, in{' '}
      {missed.length > 3 ? `${missed.length} songs` : missed.map((m) => songs.get(m.songId)?.title).join(', ')}.
    </span>
  );
}
