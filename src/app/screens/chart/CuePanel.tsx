import { Trash2, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import {
  changeCue,
  indexShow,
  removeCue,
  songTime,
  type Cue,
  type Song,
  RANGES,
  figureIn,
  rangeWords,
  type Tone,
  type Unit,
} from '../../../core/show';
import { formatPosition, parsePosition } from '../../../core/time';
import { cueWords, marginWords, sentenceOf, verdictSentence } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { FindingList } from '../../features/FindingList';
import { LanternMark, lanternWords } from '../../widgets/LanternMark';
import { RoomPart } from '../../features/RoomPart';
import { More } from '../../features/More';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { findingsOf, useSongFindings } from '../../state/findings';
import { useCueProof, useWantsSomething } from '../../state/marks';
import { useShow } from '../../state/store';
import { LeavesPart } from './LeavesPart';
import { desk } from '../../theme/tokens';
import { worstFirst, type Lantern, type Verdict } from '../../../core/simulate';
import type { CueProof } from '../../../core/proof';

const Panel = styled.section`
  display: grid;
  gap: 12px;
  padding: 16px;
  & h2 {
    font-size: 21px;
  }
`;

const Top = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  & > div {
    flex: 1;
    min-width: 0;
  }
`;

const Verdicts = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13.5px;
  & li {
    padding: 6px 0;
    border-top: 1px solid ${desk.line};
    display: flex;
    gap: 8px;
  }
`;

interface Props {
  readonly song: Song;
  readonly cue: Cue;
  readonly onClose: () => void;
  /** What puts something else in its place. */
  readonly exchange: ReactNode;
}

/** One cue: where, how it lands, and what the dry run found on each unit. */
export function CuePanel({ song, cue, onClose, exchange }: Props) {
  const show = useShow();
  const { units, tones } = indexShow(show);
  const proof = useCueProof(song.id, cue.id);
  const wants = useWantsSomething(song.id, cue.id);
  const found = findingsOf(useSongFindings(show, song), cue.id);
  const { bars } = songTime(song);
  const { action } = cue;
  const tone = action.kind === 'tone' ? tones.get(action.toneId) : undefined;
  const nearest = cue.muted ? undefined : worstFirst(proof?.verdicts ?? []).find((v) => units.has(v.unitId));
  const misses = nearest !== undefined && nearest.outcome !== 'on-time';
  const mark = cue.muted ? 'hollow' : (proof?.lantern ?? 'hollow');
  const change = (to: Partial<Cue>, label: string): void => {
    perform(changeCue(show, song.id, cue.id, to), label);
  };
  return (
    <Panel aria-label="Chosen cue">
      <CueTitle mark={mark} tone={tone} action={action} cue={cue} onClose={onClose} />
      {exchange}
      {found.length > 0 && <FindingList findings={found} well="" inSong />}
      {nearest && misses && <RoomPart song={song} verdict={nearest} />}
      {tone && !cue.muted && <LeavesPart song={song} cue={cue} />}
      <DraftField
        label="Bar|beat"
        value={formatPosition(bars, cue.at, song.bars)}
        commit={(text) => {
          const at = parsePosition(bars, text, song.bars);
          if (!at.ok) return 'bar|beat, as in 17|3';
          change({ at: at.ticks }, 'move a cue');
          return null;
        }}
      />
      <Landing cue={cue} action={action} change={change} />
      <Check isSelected={cue.muted} onChange={(muted) => change({ muted }, muted ? 'mute a cue' : 'unmute a cue')}>
        Muted
      </Check>
      <Button onPress={() => perform(removeCue(show, song.id, cue.id), 'remove a cue')}>
        <Trash2 size={16} aria-hidden /> Remove this cue
      </Button>
      <CueProofs song={song} cue={cue} proof={proof} nearest={nearest} wants={wants} units={units} />
    </Panel>
  );
}

interface CueProofsProps {
  readonly song: Song;
  readonly cue: Cue;
  readonly proof: CueProof | undefined;
  readonly nearest: Verdict | undefined;
  readonly wants: boolean;
  readonly units: ReadonlyMap<string, Unit>;
}

/** What the dry run found of the cue, unit by unit. */
function CueProofs({ song, cue, proof, nearest, wants, units }: CueProofsProps) {
  if (cue.muted) return null;
  return (
    <div>
      <b>{proof ? 'The dry run found' : wants ? 'Not proven yet' : 'Nothing to prove'}</b>
      {proof ? (
        <Verdicts>
          {proof.verdicts.map((v) => {
            const unit = units.get(v.unitId);
            return unit ? (
              <li key={v.unitId}>
                <LanternMark mark={v.outcome === 'on-time' ? 'lit' : 'cracked'} size={18} />
                <span>
                  {verdictSentence(v, unit)}
                  {marginWords(v) !== '' && <Soft> {sentenceOf(marginWords(v))}</Soft>}
                </span>
              </li>
            ) : null;
          })}
          {nearest?.margin && nearest.outcome === 'on-time' && (
            <li>
              <RoomPart song={song} verdict={nearest} />
            </li>
          )}
        </Verdicts>
      ) : (
        <p>
          <Soft>
            {wants
              ? 'The song is being played to a simulated rig, which judges each change.'
              : 'It wants nothing of any unit: give the tone a preset, a variant or a value.'}
          </Soft>
        </p>
      )}
    </div>
  );
}

interface LandingProps {
  readonly cue: Cue;
  readonly action: Cue['action'];
  readonly change: (to: Partial<Cue>, label: string) => void;
}

/** How the cue lands. */
function Landing({ cue, action, change }: LandingProps) {
  return (
    <More place="cue" used={cue.landing === 'sent' || cue.shift !== 0 || (action.kind === 'tone' && action.reload)}>
      <Pick
        label="Landing"
        choices={[
          { id: 'complete', name: 'Sound ready on the beat' },
          { id: 'sent', name: 'Send on the beat' },
        ]}
        value={cue.landing}
        onPick={(id) => change({ landing: id }, 'change a landing')}
      />
      <DraftField
        label="Shift in ms (minus is earlier)"
        value={String(cue.shift)}
        commit={(text) => {
          const shift = figureIn(RANGES.shiftMillis, text);
          if (shift === undefined) return rangeWords(RANGES.shiftMillis);
          change({ shift }, 'shift a cue');
          return null;
        }}
      />
      {action.kind === 'tone' && (
        <Check
          isSelected={action.reload}
          onChange={(reload) => change({ action: { ...action, reload } }, 'change reloading')}
        >
          Load presets again that are on already
        </Check>
      )}
    </More>
  );
}

interface CueTitleProps {
  readonly mark: Lantern;
  readonly tone: Tone | undefined;
  readonly action: Cue['action'];
  readonly cue: Cue;
  readonly onClose: () => void;
}

/** What the cue is, and its lantern. */
function CueTitle({ mark, tone, action, cue, onClose }: CueTitleProps) {
  const show = useShow();
  return (
    <Top>
      <LanternMark mark={mark} size={38} silent />
      <div>
        <h2>
          {tone ? (
            <Link to={`/show/${show.id}/tones/${tone.id}`} style={{ color: 'inherit' }}>
              {tone.name}
            </Link>
          ) : (
            cueWords(show, action)
          )}
        </h2>
        <Soft>{cue.muted ? 'muted' : lanternWords(mark)}</Soft>
      </div>
      <SignButton aria-label="Close" onPress={onClose}>
        <X size={17} />
      </SignButton>
    </Top>
  );
}
