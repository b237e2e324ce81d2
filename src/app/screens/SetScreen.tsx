import { useParams } from 'react-router';
import { setOf } from '../../core/show';
import { PartedView } from '../widgets/PartedView';
import { useShow } from '../state/store';
import { useSight } from '../state/useSight';
import { MixPart } from './set/MixPart';
import { OrderPart } from './set/OrderPart';
import { ScreensPart } from './set/ScreensPart';
import { ShowPart } from './set/ShowPart';
import { TonightPart } from './set/TonightPart';

const PARTS = [
  ['', 'Running order'],
  ['mix', 'Mix'],
  ['tonight', 'Tonight'],
  ['screens', 'Screens'],
  ['show', 'Show'],
] as const;

/**
 * The set, which a show opens on: the order in which it is played and the songs beside it, what goes to which ears, what
 * is different tonight, and the show as a whole.
 */
export function SetScreen() {
  const show = useShow();
  const { part = '' } = useParams();
  useSight('set');
  return (
    <PartedView
      title={setOf(show).title}
      label="Parts of the set"
      base={`/show/${show.id}/set`}
      parts={PARTS}
      current={part}
    >
      {part === 'mix' ? (
        <MixPart />
      ) : part === 'tonight' ? (
        <TonightPart />
      ) : part === 'screens' ? (
        <ScreensPart />
      ) : part === 'show' ? (
        <ShowPart />
      ) : (
        <OrderPart />
      )}
    </PartedView>
  );
}
