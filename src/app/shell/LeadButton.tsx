import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { beLed, pair } from '../state/desk';
import { useNews } from '../state/news';
import { useShow } from '../state/store';
import { useSongStanding } from '../state/useSongStanding';
import { desk, font } from '../theme/tokens';

const Lead = styled(AriaButton)<{ $on: boolean; $wrong: boolean }>`
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 3px;
  flex: none;
  min-width: 92px;
  min-height: 58px;
  margin-left: auto;
  padding: 2px 6px;
  border: 1.5px ${(p) => (p.$wrong ? 'dashed' : 'solid')} ${(p) => (p.$on ? desk.lamp : desk.nightLine)};
  border-radius: 4px 12px 4px 12px;
  background: ${(p) => (p.$on ? desk.nightRaised : 'transparent')};
  color: ${(p) => (p.$on ? desk.lamp : desk.nightSoft)};
  font: 700 13px/1.1 ${font.text};
  cursor: pointer;
  & + * {
    margin-left: 0;
  }
  & b {
    font: 500 13px/1 ${font.bytes};
    font-variant-numeric: tabular-nums;
    color: ${desk.nightText};
  }
`;

/** What the code does, in a word where it does not run. */
const HOW = { runs: '', stands: 'stands', lost: 'silent', backwards: 'backwards', wound: 'wound' } as const;

/**
 * What leads: the other computer, time code, the clock of the song, or our own clock. One press changes it; where nothing
 * else can lead, our own does.
 */
export function LeadButton() {
  const show = useShow();
  const song = useSongStanding(show);
  const { code, outside, isLed, pair: two } = useNews((s) => s.news);
  if (two && !two.leads) return <OtherLeads isThere={two.other === 'there'} />;
  const isCode = show.timeCode.portId !== null;
  if (!isCode && (song?.followsPortId ?? null) === null) return null;
  const word = isCode ? (code === null ? 'none yet' : HOW[code.how]) : outside === null ? 'none yet' : '';
  const what = isCode ? 'time code' : 'clock';
  const figure = isCode ? code?.text : outside === null ? undefined : `♩ ${outside.toFixed(1)}`;
  const heard = [figure, word].filter((w) => w !== undefined && w !== '').join(', ');
  const isWrong = isCode && isLed && code !== null && code.how !== 'runs' && code.how !== 'stands';
  return (
    <Lead
      $on={isLed}
      $wrong={isWrong}
      aria-label={
        isLed
          ? `${isCode ? 'Time code' : 'A clock'} leads: ${heard}. Take the lead`
          : `Our own clock leads; ${what}: ${heard}. Give it the lead`
      }
      onPress={() => void beLed(!isLed)}
    >
      {!isLed ? 'Own clock' : isCode ? 'Code leads' : 'Clock leads'}
      <b>{figure ?? (isCode ? '--:--:--:--' : '♩ --')}</b>
      {word !== '' && <span>{word}</span>}
    </Lead>
  );
}

/** Of two computers this one follows: it leads from a press on. */
function OtherLeads({ isThere }: { readonly isThere: boolean }) {
  return (
    <Lead
      $on={false}
      $wrong={!isThere}
      aria-label={`The other computer leads${isThere ? '' : ', and is not heard'}: lead here`}
      onPress={pair.lead}
    >
      Other leads
      <b>{isThere ? 'we follow' : 'not heard'}</b>
    </Lead>
  );
}
