import { Link } from 'react-router';
import { asUsual } from '../../core/show';
import { differsTonight, tonightOf } from '../../core/tonight';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { Button } from '../widgets/controls';
import { HeadSlip } from '../widgets/shellParts';

/** What differs tonight, in every view until the night is over: one press has all as usual again. */
export function TonightDiffers() {
  const show = useShow();
  const lines = differsTonight(tonightOf(show));
  if (lines.length === 0) return null;
  return (
    <HeadSlip role="status" aria-label="Tonight differs">
      <b>Tonight differs.</b>
      <span style={{ flex: '0 1 auto' }}>{lines.join(' ')}</span>
      <Link to={`/show/${show.id}/set/tonight`}>Tonight</Link>
      <Button onPress={() => perform(asUsual(show), 'all as usual', true)}>All as usual again</Button>
    </HeadSlip>
  );
}
