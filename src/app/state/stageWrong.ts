import type { Show } from '../../core/show';
import type { Lantern } from '../../core/simulate';

/** What somebody on stage has to know is wrong, in one line: what is gone now before what will go wrong. */
export function stageWrong(show: Show, mark: Lantern, lost: readonly string[]): string | null {
  const names = show.ports.filter((p) => lost.includes(p.id)).map((p) => p.name);
  if (names.length > 0) return `${names.join(', ')}: the real port is not there.`;
  return mark === 'cracked' ? 'Something in this song does not land: see the dry run before it is played.' : null;
}
