import { useOffline } from '../adapters/offline';
import { saveNow } from '../state/desk';
import { useNews } from '../state/news';
import { useApp } from '../state/store';
import { MainButton } from './controls';
import { HeadSlip } from './shellParts';

/** A newer version of the application waits: it comes when somebody says so, with all that was typed saved first, and never while a song plays. */
export function Renew() {
  const renew = useOffline((s) => s.renew);
  const playing = useNews((s) => s.news.playing);
  const stored = useApp((s) => (s.open?.save ?? 'saved') === 'saved');
  if (!renew || playing) return null;
  const go = async (): Promise<void> => {
    await saveNow();
    // What the browser would not store is not given up for a new version.
    if ((useApp.getState().open?.save ?? 'saved') === 'saved') await renew();
  };
  return (
    <HeadSlip role="status" aria-label="New version">
      <span>A new version of Hollow Lantern is here.</span>
      <MainButton isDisabled={!stored} onPress={() => void go()}>
        Load it
      </MainButton>
    </HeadSlip>
  );
}
