import { indexShow, setOf } from '../show';
import { writtenOf, type ShowTonight } from './showTonight';

/** What of the rig and of who plays is not as usual tonight, in sentences; nothing on a usual night. */
export function differsTonight(show: ShowTonight): readonly string[] {
  const { units, players, ports } = indexShow(writtenOf(show));
  const { tonight, missing } = setOf(show);
  const nameOf = (id: string): string => units.get(id)?.name ?? '';
  const line = (head: string, names: readonly string[]): readonly string[] =>
    names.length === 0 ? [] : [`${head}: ${names.join(', ')}.`];
  const others = tonight.flatMap((t) => {
    if (t.how !== 'other') return [];
    const port = t.portId === null ? '' : `, ${ports.get(t.portId)?.name ?? ''}`;
    return [`${t.name} for ${nameOf(t.unitId)} (channel ${t.channel}${port})`];
  });
  return [
    ...line(
      'Off tonight',
      tonight.filter((t) => t.how === 'off').map((t) => nameOf(t.unitId)),
    ),
    ...line(
      'Replaced by a spare tonight',
      tonight.flatMap((t) => (t.how === 'spare' ? [`${nameOf(t.unitId)} (channel ${t.channel})`] : [])),
    ),
    ...line('Another unit tonight', others),
    ...line(
      'Missing tonight',
      missing.flatMap((id) => players.get(id)?.name ?? []),
    ),
  ];
}
