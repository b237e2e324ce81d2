import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { usePair } from '../state/pair';
import { useApp } from '../state/store';

/** Where the computer that leads opens another show, the one that follows goes there too. */
export function FollowShow() {
  const navigate = useNavigate();
  const showId = usePair((s) => s.showId);
  useEffect(() => {
    if (showId === null || showId === useApp.getState().open?.show.id) return;
    void navigate(`/show/${showId}/stage`);
  }, [navigate, showId]);
  return null;
}
