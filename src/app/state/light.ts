import { useSyncExternalStore } from 'react';
import { useApp } from './store';

const night = (): MediaQueryList => window.matchMedia('(prefers-color-scheme: dark)');

const watchNight = (changed: () => void): (() => void) => {
  const query = night();
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
};

/** Whether the desk is dark now: by choice, or because the computer is. */
export function useDark(): boolean {
  const light = useApp((s) => s.light);
  const system = useSyncExternalStore(watchNight, () => night().matches);
  return light === 'dark' || (light === 'system' && system);
}
