import type { Show } from '../show';
import type { Finding } from './finding';

/** What makes a finding the same one: its kind and its place. */
export const findingKey = ({ code, place }: Finding): string => JSON.stringify([code, place]).slice(0, 400);

/** What it says: when that changes, it has to be looked at again. What would mend it is no part of that. */
export const findingSays = ({ data }: Finding): string =>
  JSON.stringify('fix' in data ? { ...data, fix: null } : data).slice(0, 4000);

/** Whether somebody may let it be, with a reason: errors not, but for a change that comes late, which may be meant so. */
export const canAccept = ({ code, severity }: Finding): boolean => severity !== 'error' || code === 'song.late';

/** Why a finding is ignored; undefined where it is not, or where it has changed since. */
export function acceptedReason(show: Show, finding: Finding): string | undefined {
  if (!canAccept(finding) || show.accepted.length === 0) return undefined;
  const key = findingKey(finding);
  const found = show.accepted.find((a) => a.key === key);
  return found?.says === findingSays(finding) ? found.reason : undefined;
}
