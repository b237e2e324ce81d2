import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { followCode, pair } from '../state/desk';
import { useNews } from '../state/news';
import { useShow } from '../state/store';
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

/** What leads: the other computer, time code that comes in, or our own clock. One press changes it; where no code can come, our own does. */
export function LeadButton() {
  const show = useShow();
  const { code, followsCode, pair: two } = useNews((s) => s.news);
  if (two && !two.leads)
    return (
      <Lead
        $on={false}
        $wrong={two.other !== 'there'}
        aria-label={`The other computer leads${two.other === 'there' ? '' : ', and is not heard'}: lead here`}
        onPress={pair.lead}
      >
        Other leads
        <b>{two.other === 'there' ? 'follows it' : 'not heard'}</b>
      </Lead>
    );
  if (show.timeCode.portId === null) return null;
  const word = code === null ? 'none yet' : HOW[code.how];
  const said = [code?.text, word].filter((w) => w !== undefined && w !== '').join(', ');
  return (
    <Lead
      $on={followsCode}
      $wrong={followsCode && code !== null && code.how !== 'runs' && code.how !== 'stands'}
      aria-label={
        followsCode
          ? `Time code leads: ${said}. Take the lead`
          : `Our own clock leads; time code: ${said}. Give it the lead`
      }
      onPress={() => void followCode(!followsCode)}
    >
      {followsCode ? 'Code leads' : 'Own clock'}
      <b>{code?.text ?? '--:--:--:--'}</b>
      {word !== '' && <span>{word}</span>}
    </Lead>
  );
}
