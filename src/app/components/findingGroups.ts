import { findingKey, findingPrint, type Finding, type FindingPlace } from '../../core/checks';
import type { Show } from '../../core/show';
import { fixWords } from '../../wording';

/** What mends several findings at one place is the same mending. */
export const mendKey = (f: Finding): string => JSON.stringify([f.place, fixWords(f)]);

export type Group = readonly [first: Finding, ...others: Finding[]];

/** Findings that say the same of one song in several places are one entry; those with a fix stand alone. */
export function groupsOf(findings: readonly Finding[]): readonly Group[] {
  const groups = new Map<string, [Finding, ...Finding[]]>();
  for (const f of findings) {
    const alone = f.fix !== null || f.severity !== 'error' || f.place.in !== 'song' || !('at' in f.data);
    const key = alone
      ? findingKey(f) + findingPrint(f)
      : JSON.stringify([f.code, f.place.in === 'song' && f.place.songId, { ...f.data, at: '' }]);
    const group = groups.get(key);
    if (group) group.push(f);
    else groups.set(key, [f]);
  }
  return [...groups.values()];
}

/** The address that a finding is mended at. */
export function placePath({ id }: Show, place: FindingPlace): string {
  switch (place.in) {
    case 'song': {
      const chosen = place.cueId ? `&cue=${place.cueId}` : place.sweepId ? `&sweep=${place.sweepId}` : '';
      return `/show/${id}/chart/${place.songId}?at=${place.at}${chosen}`;
    }
    case 'tone':
      return `/show/${id}/tones/${place.toneId}`;
    case 'port':
      return `/show/${id}/rig?port=${place.portId}`;
    case 'unit':
      if (place.controlId !== undefined) return `/show/${id}/map/${place.unitId}/controls`;
      if (place.slotId !== undefined) return `/show/${id}/map/${place.unitId}`;
      return `/show/${id}/rig?unit=${place.unitId}`;
  }
}
