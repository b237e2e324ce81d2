import { useParams } from 'react-router';
import styled from 'styled-components';
import { setOf } from '../../core/show';
import { PartLinks } from '../components/PartLinks';
import { useShow } from '../state/store';
import { useSight } from '../state/useSight';
import { desk } from '../theme/tokens';
import { MixPart } from './set/MixPart';
import { OrderPart } from './set/OrderPart';
import { ScreensPart } from './set/ScreensPart';
import { TonightPart } from './set/TonightPart';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Head = styled.header`
  display: flex;
  align-items: end;
  gap: 16px;
  padding: 12px 24px 0;
  border-bottom: 1.5px solid ${desk.line};
  & > h1 {
    font-size: 26px;
    padding-bottom: 8px;
  }
`;

const PARTS = [
  ['', 'Running order'],
  ['mix', 'Mix'],
  ['tonight', 'Tonight'],
  ['screens', 'Screens'],
] as const;

/** The set: the order in which it is played, what goes to which ears, and what is different tonight. */
export function SetScreen() {
  const show = useShow();
  const { part = '' } = useParams();
  useSight('set');
  return (
    <Page>
      <Head>
        <h1>{setOf(show).title}</h1>
        <PartLinks label="Parts of the set" base={`/show/${show.id}/set`} parts={PARTS} current={part} />
      </Head>
      {part === 'mix' ? (
        <MixPart />
      ) : part === 'tonight' ? (
        <TonightPart />
      ) : part === 'screens' ? (
        <ScreensPart />
      ) : (
        <OrderPart />
      )}
    </Page>
  );
}
