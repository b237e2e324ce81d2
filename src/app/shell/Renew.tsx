import { useOffline } from '../adapters/offline';
import { saveNow } from '../state/desk';
import { useNews } from '../state/news';
import { useApp } from '../state/store';
import { MainButton } from '../widgets/controls';
import { HeadSlip } from '../widgets/shellParts';

/** A newer version of the application waits: it comes when somebody says so, with all that was typed saved first, and never while a song plays. */
export function Renew() {
  const renew = useOffline((s) => s.renew);
  const playing = useNews((s) => s.news.playing);
  // What was typed just now is saved first; what cannot be saved is not given up for a new version.
  const refused = useApp((s) => s.open !== null && s.open.save !== 'saved' && s.open.save !== 'unsaved');
  if (!renew || playing) return null;
  const go = async (): Promise<void> => {
    await saveNow();
    if ((useApp.getState().open?.save ?? 'saved') === 'saved') await renew();
  };
  return (
    <HeadSlip role="status" aria-label="New version">
      <span>A new version of Hollow Lantern is here.</span>
      <MainButton isDisabled={refused} onPress={() => void go()}>
        Load it
      </MainButton>
    </HeadSlip>
  );
}
