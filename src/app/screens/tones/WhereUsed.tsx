import { Link } from 'react-router';
import { indexShow, toneUses } from '../../../core/show';
import { Soft } from '../../widgets/controls';
import { useShow } from '../../state/store';

/** The songs that a change of a tone reaches. */
export function WhereUsed({ toneId }: { readonly toneId: string }) {
  const show = useShow();
  const uses = toneUses(show, toneId);
  return (
    <Soft>
      {uses.length === 0 ? 'In no song yet.' : 'A change reaches '}
      {uses.map((id, i) => (
        <span key={id}>
          {i > 0 && ', '}
          <Link to={`/show/${show.id}/chart/${id}`}>{indexShow(show).songs.get(id)?.title}</Link>
        </span>
      ))}
    </Soft>
  );
}
