import { Ear, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { goesAlong, heardOf } from '../../../../core/meaning';
import { fitText, putReaction, removeReaction, type Reaction } from '../../../../core/show';
import { HEARD_WORDS } from '../../../../wording';
import { Check } from '../../../widgets/Check';
import { Button, Soft } from '../../../widgets/controls';
import { DraftField } from '../../../widgets/DraftField';
import { LearnMessage } from '../../../features/LearnMessage';
import { Pick, choicesOf } from '../../../widgets/Pick';
import { perform } from '../../../state/desk';
import { useShow } from '../../../state/store';
import { DoesFields } from './DoesFields';

const Fields = styled.div`
  display: grid;
  gap: 11px;
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: start;
`;

const ANY = 'any';
const KINDS = choicesOf(HEARD_WORDS);
const CHANNELS = [
  { id: ANY, name: 'any' },
  ...Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) })),
];

/** A data byte that was typed; undefined for anything else. */
const typed = (text: string): number | undefined =>
  /^\s*\d{1,3}\s*$/.test(text) && Number(text) <= 127 ? Number(text) : undefined;

interface Props {
  readonly reaction: Reaction;
  readonly onGone: () => void;
}

/** What a reaction waits for, what becomes of the message, and what it does. */
export function ReactionPanel({ reaction, onGone }: Props) {
  const show = useShow();
  const { hears, does } = reaction;
  const set = (change: Partial<Reaction>): void =>
    void perform(putReaction(show, { ...reaction, ...change }), 'change a reaction');
  const hear = (change: Partial<Reaction['hears']>): void => set({ hears: { ...hears, ...change } });
  const numbered = hears.kind === 'note' || hears.kind === 'control' || hears.kind === 'program';
  const valued = hears.kind !== 'program';
  return (
    <Fields>
      <h2 style={{ fontSize: 19 }}>Reaction</h2>
      <DraftField
        label="Name (may be left empty)"
        value={reaction.name}
        commit={(name) => (set({ name: fitText(name, 'title') }), null)}
      />
      <Check isSelected={reaction.on} onChange={(on) => set({ on })}>
        On
      </Check>
      <h3 style={{ fontSize: 15 }}>When this arrives</h3>
      <HearsFields does={does} set={set} hears={hears} hear={hear} numbered={numbered} valued={valued} />
      <Pick
        label="While"
        value={reaction.songId ?? ANY}
        choices={[
          { id: ANY, name: 'always, whatever the song' },
          ...show.songs.map((s) => ({ id: s.id, name: s.title })),
        ]}
        onPick={(id) => set({ songId: id === ANY ? null : id })}
      />
      <Check isSelected={reaction.swallow} onChange={(swallow) => set({ swallow })}>
        The message goes no further
      </Check>
      <h3 style={{ fontSize: 15 }}>Do this</h3>
      <DoesFields reaction={reaction} onChange={(next) => set({ does: next })} />
      <Button
        style={{ justifySelf: 'start', marginTop: 6 }}
        onPress={() => {
          perform(removeReaction(show, reaction.id), 'delete a reaction');
          onGone();
        }}
      >
        <Trash2 size={15} aria-hidden /> Delete the reaction
      </Button>
      {hears.portId === null && (
        <Soft style={{ fontSize: 13 }}>From any port: a keyboard may press it as well as the pads.</Soft>
      )}
    </Fields>
  );
}

interface HearsFieldsProps {
  readonly does: Reaction['does'];
  readonly set: (change: Partial<Reaction>) => void;
  readonly hears: Reaction['hears'];
  readonly hear: (change: Partial<Reaction['hears']>) => void;
  readonly numbered: boolean;
  readonly valued: boolean;
}

/** The message that a reaction waits for. */
function HearsFields({ does, set, hears, hear, numbered, valued }: HearsFieldsProps) {
  const show = useShow();
  return (
    <>
      <LearnIt does={does} set={set} />
      <Pick
        label="Port"
        value={hears.portId ?? ANY}
        choices={[{ id: ANY, name: 'any port' }, ...show.ports]}
        onPick={(id) => hear({ portId: id === ANY ? null : id })}
      />
      <Pair>
        <Pick
          label="Message"
          value={hears.kind}
          choices={KINDS}
          onPick={(kind) =>
            hear({
              kind,
              number: kind === 'pressure' || kind === 'bend' ? null : hears.number,
            })
          }
        />
        <Pick
          label="Channel"
          value={hears.channel === null ? ANY : String(hears.channel)}
          choices={CHANNELS}
          onPick={(id) => hear({ channel: id === ANY ? null : Number(id) })}
        />
      </Pair>
      {numbered && (
        <DraftField
          label="Number, from 0 (empty for any)"
          numeric
          value={hears.number === null ? '' : String(hears.number)}
          commit={(text) => {
            const number = text.trim() === '' ? null : typed(text);
            if (number === undefined) return '0 to 127, or nothing';
            hear({ number });
            return null;
          }}
        />
      )}
      {valued && <ValueRange hears={hears} hear={hear} />}
    </>
  );
}

interface LearnItProps {
  readonly does: Reaction['does'];
  readonly set: (change: Partial<Reaction>) => void;
}

/** Learns the message from what is pressed. */
function LearnIt({ does, set }: LearnItProps) {
  return (
    <LearnMessage
      face={
        <>
          <Ear size={15} aria-hidden /> Learn
        </>
      }
      label="Learn what it waits for"
      ask="Press the switch, pad or key, or move the pedal."
      fits={(bytes) => heardOf(bytes) !== null}
      onTake={(portId, press) => {
        const { kind, channel, number } = heardOf(press.bytes)!;
        // What goes along with a pedal does so in all of its way; anything else is a press.
        const along = goesAlong(does);
        const { low, high } = along ? { low: 0, high: 127 } : press;
        set({ hears: { portId, kind, channel, number, low, high } });
      }}
    />
  );
}

interface ValueRangeProps {
  readonly hears: Reaction['hears'];
  readonly hear: (change: Partial<Reaction['hears']>) => void;
}

/** Which values of the message count. */
function ValueRange({ hears, hear }: ValueRangeProps) {
  return (
    <Pair>
      <DraftField
        label="Value from"
        numeric
        value={String(hears.low)}
        commit={(text) => {
          const low = typed(text);
          if (low === undefined || low > hears.high) return `0 to ${hears.high}`;
          hear({ low });
          return null;
        }}
      />
      <DraftField
        label="to"
        numeric
        value={String(hears.high)}
        commit={(text) => {
          const high = typed(text);
          if (high === undefined || high < hears.low) return `${hears.low} to 127`;
          hear({ high });
          return null;
        }}
      />
    </Pair>
  );
}
