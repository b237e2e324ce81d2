import { Ear, Trash2 } from 'lucide-react';
import { Slider, SliderOutput, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { heardOf } from '../../../core/meaning';
import { RANGES, putReaction, removeStem, type Reaction } from '../../../core/show';
import { HEARD_WORDS, hearsWords } from '../../../wording';
import { Check } from '../../widgets/Check';
import { SignButton } from '../../widgets/controls';
import { LearnMessage } from '../../features/LearnMessage';
import { newId, perform } from '../../state/desk';
import { BOTH, FADER, setRoutes, setTrim, trimOf, turn, useMix } from '../../state/mix';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { RoutePick, Row, type RouteChoice } from './mixParts';

const Out = styled.div`
  display: grid;
  align-content: start;
  gap: 10px;
  padding: 12px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > b {
    font: 700 16px/1.2 ${font.display};
  }
`;

const Trim = styled(Slider)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 52px;
  align-items: center;
  gap: 10px;
  height: 26px;
`;

const Track = styled(SliderTrack)`
  position: relative;
  height: 4px;
  border-radius: 2px;
  background: ${desk.lineStrong};
`;

const Thumb = styled(SliderThumb)`
  top: 2px;
  width: 14px;
  height: 24px;
  border: 1.5px solid ${desk.ink};
  border-radius: 3px 7px 3px 7px;
  background: ${desk.lamp};
  &[data-focus-visible] {
    outline: 3px solid ${desk.tide};
  }
`;

/** A source: where it goes, how loud just now, and what moves it from a controller. */
export function SourceCard({
  source: { id, name },
  choices,
}: {
  readonly source: { readonly id: string; readonly name: string };
  readonly choices: readonly RouteChoice[];
}) {
  const show = useShow();
  const mix = useMix();
  const stem = show.stems.find((s) => s.id === id);
  const trim = trimOf(mix, id);
  const off = mix.off.includes(id);
  const route = mix.routes[id] ?? BOTH;
  return (
    <Out role="group" aria-label={name}>
      <Row style={{ flexWrap: 'nowrap', alignItems: 'center', gap: 6 }}>
        <b style={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</b>
        {stem && (
          <SignButton
            aria-label={`Remove the stem ${name}`}
            onPress={() => perform(removeStem(show, id), `remove the stem ${name}`)}
          >
            <Trash2 size={15} />
          </SignButton>
        )}
        <Check isSelected={!off} onChange={(on) => turn(id, on ? 'on' : 'off')} aria-label={`${name} on`}>
          {off ? 'off' : 'on'}
        </Check>
      </Row>
      <RoutePick
        label={`${name} goes to`}
        route={route}
        choices={choices}
        onPick={(to) => setRoutes({ ...mix.routes, [id]: to })}
      />
      <Trim
        aria-label={`${name} now, in dB`}
        minValue={FADER[0]}
        maxValue={RANGES.gain[1]}
        value={trim}
        onChange={(gain) => setTrim(id, Number(gain))}
      >
        <Track>
          <Thumb />
        </Track>
        <SliderOutput>
          {trim <= FADER[0] ? 'silent' : `${trim > 0 ? '+' : ''}${Math.round(trim * 10) / 10} dB`}
        </SliderOutput>
      </Trim>
      <Row style={{ gap: 6 }}>
        <Hand id={id} name={name} what="fader" />
        <Hand id={id} name={name} what="switch" />
      </Row>
    </Out>
  );
}

/** What of a controller moves a source, or turns it on and off: learnt by moving or pressing it. */
function Hand({ id, name, what }: { readonly id: string; readonly name: string; readonly what: 'fader' | 'switch' }) {
  const show = useShow();
  const kind = what === 'fader' ? 'level' : 'turn';
  const known = show.reactions.find((r) => r.does.kind === kind && 'of' in r.does && r.does.of === id);
  const does: Reaction['does'] =
    kind === 'level' ? { kind, of: id, from: FADER[0], to: FADER[1] } : { kind, of: id, how: 'flip' };
  const label = what === 'fader' ? `Learn a fader for ${name}` : `Learn a switch for ${name}`;
  return (
    <LearnMessage
      face={
        <>
          <Ear size={14} aria-hidden /> {known ? `${what}: ${numberOf(known)}` : what}
        </>
      }
      label={known ? `${label}, in place of ${hearsWords(show, known.hears)}` : label}
      ask={what === 'fader' ? 'Move the fader, knob or pedal.' : 'Press the switch, pad or key.'}
      fits={(bytes) => {
        const heard = heardOf(bytes);
        return heard !== null && (what === 'switch' || heard.value !== null);
      }}
      onTake={(portId, press) => {
        const { kind: heard, channel, number } = heardOf(press.bytes)!;
        const { low, high } = what === 'fader' ? { low: 0, high: 127 } : press;
        const hears = { portId, kind: heard, channel, number, low, high };
        const base = { id: known?.id ?? newId(), name: '', on: true, songId: null, swallow: true };
        perform(putReaction(show, { ...base, hears, does }), `${what} for ${name}`);
      }}
    />
  );
}

/** Of a message that is waited for, what tells it apart in few letters. */
const numberOf = ({ hears: { kind, number } }: Reaction): string =>
  `${kind === 'note' ? 'note' : kind === 'control' ? 'CC' : kind === 'program' ? 'PC' : HEARD_WORDS[kind]}${number === null ? '' : ` ${number}`}`;
