import type { Show } from '../show';
import type { Finding } from './finding';

/** What makes a finding the same one: its kind and its place. */
export const findingKey = ({ code, place }: Finding): string => JSON.stringify([code, place]).slice(0, 400);

/** What it says: when that changes, it has to be looked at again. */
export const findingSays = ({ data }: Finding): string => JSON.stringify(data).slice(0, 4000);

/** Why a finding is ignored; undefined where it is not, or where it has changed since. Errors cannot be ignored. */
export function acceptedReason(show: Show, finding: Finding): string | undefined {
  if (finding.severity === 'error' || show.accepted.length === 0) return undefined;
  const key = findingKey(finding);
  const found = show.accepted.find((a) => a.key === key);
  return found?.says === findingSays(finding) ? found.reason : undefined;
}
