import { Eraser, Pin, PinOff, Play, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { TRIGGERS, type Trigger, type Sender } from '../../../core/addressing';
import {
  BOAT_PORT,
  boatShow,
  entryOn,
  inTriggerOrder,
  switchSends,
  switchTitle,
  type SwitchSends,
} from '../../../core/feet';
import { MessageReader } from '../../../core/meaning';
import { toHex, type Bytes as MidiBytes } from '../../../core/midi';
import {
  fitText,
  feetOf,
  indexShow,
  newFootSwitch,
  putFootSwitches,
  type Doing,
  type FootSwitch,
  type LayerId,
  type Show,
  type Unit,
} from '../../../core/show';
import { TRIGGER_HEADS, doingWords, meaningWords } from '../../../wording';
import { ColourPick } from '../../features/ColourPick';
import { More } from '../../features/More';
import { Bytes, Button, SignButton, Soft } from '../../widgets/controls';
import { ControlField } from '../../features/ControlField';
import { DraftField } from '../../widgets/DraftField';
import { Find } from '../../widgets/Find';
import { Pick } from '../../widgets/Pick';
import { perform, playOut, say } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { doingOf, searchDoings } from './searchDoings';

const Fields = styled.div`
  display: grid;
  gap: 12px;
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  & h2 {
    flex: 1;
    font-size: 19px;
  }
`;

const TriggerBox = styled.section`
  display: grid;
  gap: 4px;
  & > h3 {
    font: 700 14px/1.2 ${font.display};
  }
`;

const Doings = styled.ul`
  display: grid;
  gap: 3px;
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    gap: 6px;
    padding: 2px 2px 2px 9px;
    border-left: 4px solid ${desk.lamp};
    background: ${desk.lampWash};
  }
`;

const Add = styled.div`
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 8px;
`;

const Life = styled.section`
  display: grid;
  gap: 4px;
  padding-top: 10px;
  border-top: 1px solid ${desk.line};
  & > h3 {
    font: 700 14px/1.2 ${font.display};
  }
  & > p {
    font-size: 13.5px;
  }
`;

const Lines = styled.ul`
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
  & > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    border-bottom: 1px solid ${desk.line};
  }
  & code {
    white-space: nowrap;
  }
`;

/** Id of the field in which something is put on the chosen switch by its name. */
export const DOES_FIELD = 'foot-does';

/** The keyboard goes back to a switch on the floor: the next one is an arrow away. */
export const toFloor = (switchId: string): void =>
  document.querySelector<HTMLElement>(`[data-switch="${switchId}"]`)?.focus();

interface Props {
  readonly unit: Unit;
  readonly layerId: LayerId;
  readonly switchId: string;
}

/** What one switch does: by name, in words and in bytes, with the computer and without it. */
export function SwitchPanel({ unit, layerId, switchId }: Props) {
  const show = useShow();
  const feet = feetOf(show, unit.id);
  const page = feet.pages.find((p) => p.id === layerId) ?? null;
  const entry = entryOn(feet, page, switchId);
  const own = layerId === null || page?.switches.some((s) => s.id === switchId) === true;
  const sends = switchSends(show, unit.id, layerId, switchId);
  const { senders } = unit.profile;
  const put = (next: FootSwitch, label: string): void =>
    void perform(putFootSwitches(show, unit.id, layerId, [{ ...next, id: switchId }]), label);
  const now = entry ?? newFootSwitch(switchId, []);
  const triggers = TRIGGERS.filter((t) => now.doings.some((d) => d.on === t));
  const change = (doings: FootSwitch['doings'], label: string): void =>
    put({ ...now, doings: inTriggerOrder(doings) }, label);
  const everywhere = (): void => {
    if (!entry) return;
    const put = putFootSwitches(show, unit.id, null, [{ ...entry, pinned: false }]);
    perform(put, 'put a switch on every page');
  };
  return (
    <Fields>
      <SwitchHead
        senders={senders}
        switchId={switchId}
        sends={sends}
        unit={unit}
        layerId={layerId}
        now={now}
        entry={entry}
        put={put}
        own={own}
      />
      {entry && !own && (
        <Soft style={{ fontSize: 13 }}>This stands on every page. What is changed here holds for this page alone.</Soft>
      )}
      {triggers.map((trigger) => (
        <TriggerDoings key={trigger} unit={unit} trigger={trigger} entry={now} onChange={change} />
      ))}
      {/* A new field for each: the list of the one before is gone with it. */}
      <AddDoing key={now.doings.length} unit={unit} entry={now} onChange={change} />
      <DraftField
        label="Name on the display (empty for its own)"
        value={now.name}
        placeholder={switchTitle(show, now)}
        commit={(name) => (put({ ...now, name: fitText(name, 'name') }, 'name a switch'), null)}
      />
      {layerId !== null && entry && own && <Button onPress={everywhere}>Put it on every page</Button>}
      {entry && (
        <More place="switch" used={now.colour !== null}>
          <ColourPick
            label="Colour"
            value={now.colour}
            onPick={(colour) => put({ ...now, colour }, 'colour a switch')}
          />
        </More>
      )}
      {sends.sends.length > 0 && <Lives unit={unit} sends={sends} />}
    </Fields>
  );
}

interface SwitchHeadProps {
  readonly senders: readonly Sender[];
  readonly switchId: string;
  readonly sends: SwitchSends;
  readonly unit: Unit;
  readonly layerId: LayerId;
  readonly now: FootSwitch;
  readonly entry: FootSwitch | null;
  readonly put: (next: FootSwitch, label: string) => void;
  readonly own: boolean;
}

/** The name of the switch, tried out, pinned or cleared. */
function SwitchHead({ senders, switchId, sends, unit, layerId, now, entry, put, own }: SwitchHeadProps) {
  return (
    <Head>
      <h2>{senders.find((s) => s.id === switchId)?.name}</h2>
      <SignButton
        aria-label="Try it: the stand-in sends what the switch sends"
        isDisabled={sends.sends.length === 0 || unit.returns === null}
        onPress={() =>
          void playOut(unit.id, sends.sends.find((s) => s.trigger === 'press')?.messages.map((m) => m.bytes) ?? [])
        }
      >
        <Play size={17} aria-hidden />
      </SignButton>
      {layerId !== null && (
        <SignButton
          aria-label={now.pinned ? 'Unpin: a proposal may move it' : 'Pin: a proposal leaves it here'}
          aria-pressed={now.pinned}
          isDisabled={!entry}
          onPress={() => put({ ...now, pinned: !now.pinned }, now.pinned ? 'unpin a switch' : 'pin a switch')}
        >
          {now.pinned ? <PinOff size={17} aria-hidden /> : <Pin size={17} aria-hidden />}
        </SignButton>
      )}
      <SignButton
        aria-label="Clear the switch"
        isDisabled={!own || !entry}
        onPress={() => put(newFootSwitch(switchId, []), 'clear a switch')}
      >
        <Eraser size={17} aria-hidden />
      </SignButton>
    </Head>
  );
}

interface EntryProps {
  readonly unit: Unit;
  readonly entry: FootSwitch;
  readonly onChange: (doings: FootSwitch['doings'], label: string) => void;
}

/** What a switch does on one trigger. */
function TriggerDoings({ unit, trigger, entry, onChange }: EntryProps & { readonly trigger: Trigger }) {
  const show = useShow();
  const own = entry.doings.filter((d) => d.on === trigger);
  const name = TRIGGER_HEADS[trigger];
  return (
    <TriggerBox>
      <h3>{name}</h3>
      <Doings aria-label={`What it does: ${name.toLowerCase()}`}>
        {own.map((d, i) => (
          <li key={i}>
            <DoingLine
              unit={unit}
              does={d.does}
              onChange={(does) =>
                onChange(
                  entry.doings.map((x) => (x === d ? { ...x, does } : x)),
                  'change what a switch does',
                )
              }
            />
            <SignButton
              aria-label={`Take away: ${doingWords(show, unit.id, d.does)}`}
              onPress={() =>
                onChange(
                  entry.doings.filter((x) => x !== d),
                  'take something off a switch',
                )
              }
            >
              <Trash2 size={15} aria-hidden />
            </SignButton>
          </li>
        ))}
      </Doings>
    </TriggerBox>
  );
}

/** A field to put something on a switch by its name, and on what of the switch. */
function AddDoing({ unit, entry, onChange }: EntryProps) {
  const show = useShow();
  const [trigger, setTrigger] = useState<Trigger>('press');
  const [text, setText] = useState('');
  const known = unit.profile.controller!.triggers;
  const add = (id: string): void => {
    const does = doingOf(show, unit.id, id);
    setText('');
    if (does) onChange([...entry.doings, { on: trigger, does }], 'put something on a switch');
    toFloor(entry.id);
  };
  const addFirst = (): void => {
    const typed = text.trim();
    const [best] = searchDoings(show, unit.id, text);
    if (best && typed !== '') add(best.id);
    else if (typed !== '') {
      say(`Nothing is called "${typed}". Type a part of a tone, a move, a page, or bytes as in C0 05.`);
    }
  };
  return (
    <Add>
      <Pick
        label="On"
        value={trigger}
        choices={TRIGGERS.filter((t) => known.includes(t)).map((t) => ({ id: t, name: TRIGGER_HEADS[t] }))}
        onPick={(t) => setTrigger(t)}
      />
      <Find
        label="Does"
        inputId={DOES_FIELD}
        placeholder={entry.doings.length === 0 ? 'tone, move, stop, page …' : 'and also …'}
        search={(t) => searchDoings(show, unit.id, t)}
        text={text}
        onText={setText}
        onPick={add}
        onEnter={addFirst}
      />
    </Add>
  );
}

interface DoingProps {
  readonly unit: Unit;
  readonly does: Doing;
  readonly onChange: (does: Doing) => void;
}

/** One thing that a switch does; of a control also the value. */
function DoingLine({ unit, does, onChange }: DoingProps) {
  const show = useShow();
  if (does.kind !== 'control') return <span>{doingWords(show, unit.id, does)}</span>;
  const other = indexShow(show).units.get(does.unitId);
  const control = other?.profile.controls.find((c) => c.id === does.controlId);
  if (!control) return <span>a control that is gone</span>;
  return (
    <ControlField
      control={control}
      label={`${other!.name}: ${control.name}`}
      value={does.value}
      required
      width={200}
      onValue={(value) => value !== null && onChange({ ...does, value })}
    />
  );
}

/** What comes of a switch with the computer, and without it. */
function Lives({ unit, sends }: { readonly unit: Unit; readonly sends: SwitchSends }) {
  const show = useShow();
  const entry = sends.entry!;
  const heard = entry.doings.filter((d) => d.does.kind !== 'message' && d.does.kind !== 'page');
  const calls = feetOf(show, unit.id).calls;
  const boat = boatShow(show, unit.id);
  const reader = new MessageReader(boat);
  const alone = sends.sends.flatMap(({ trigger, messages }) =>
    messages
      .filter((m) => m.doing !== null)
      .map((m) => ({ trigger, bytes: m.bytes, words: aloneWords(boat, reader, m.bytes) })),
  );
  const unreached = sends.wrong.find((w) => w.what === 'unreached');
  const names = (unreached?.what === 'unreached' ? unreached.units : []).map(
    (id) => indexShow(show).units.get(id)?.name ?? id,
  );
  return (
    <>
      <LivesWith heard={heard} calls={calls} unit={unit} sends={sends} />
      <Life aria-label="Without the computer">
        <h3>Without the computer</h3>
        {alone.length === 0 ? (
          <p>It does nothing: only the computer can do that, or no cable leads to a unit then.</p>
        ) : (
          <Lines aria-label="What it sends to the units">
            {alone.map(({ trigger, bytes, words }, i) => (
              <li key={i}>
                <span>
                  {trigger !== 'press' && <Soft>{TRIGGER_HEADS[trigger]}: </Soft>}
                  {words}
                </span>
                <Bytes>{toHex(bytes, ' ').toUpperCase()}</Bytes>
              </li>
            ))}
          </Lines>
        )}
        {names.length > 0 && <p>Not reached then: {names.join(', ')}.</p>}
      </Life>
    </>
  );
}

interface LivesWithProps {
  readonly heard: FootSwitch['doings'];
  readonly calls: boolean;
  readonly unit: Unit;
  readonly sends: SwitchSends;
}

/** What the computer is told, and does by it. */
function LivesWith({ heard, calls, unit, sends }: LivesWithProps) {
  const show = useShow();
  return (
    <Life aria-label="With the computer">
      <h3>With the computer</h3>
      {heard.length === 0 ? (
        <p>Nothing: it turns pages, or sends bytes as they stand.</p>
      ) : !calls || unit.returns === null ? (
        <p>Nothing: the computer is not told.</p>
      ) : (
        <p>The computer hears it and does: {heard.map((d) => doingWords(show, unit.id, d.does)).join(', ')}.</p>
      )}
      <Lines aria-label="What tells the computer">
        {sends.sends.flatMap(({ trigger, messages }) =>
          messages
            .filter((m) => m.doing === null)
            .map((m) => (
              <li key={trigger}>
                <span>{TRIGGER_HEADS[trigger]}: call</span>
                <Bytes>{toHex(m.bytes, ' ').toUpperCase()}</Bytes>
              </li>
            )),
        )}
      </Lines>
    </Life>
  );
}

function aloneWords(boat: Show, reader: MessageReader, bytes: MidiBytes): string {
  const meanings = reader.read('out', BOAT_PORT, bytes);
  return meanings.length > 0 ? meanings.map((m) => meaningWords(boat, m)).join(' · ') : 'nobody listens';
}
