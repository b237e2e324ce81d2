import type { Finding, FindingPlace } from '../../core/checks';
import type { Show } from '../../core/show';
import { fixWords } from '../../wording';

/** What mends several findings at one place is the same mending. */
export const mendKey = (f: Finding): string => JSON.stringify([f.place, fixWords(f)]);

export type Group = readonly [first: Finding, ...others: Finding[]];

const songOf = (f: Finding): string | null => (f.place.in === 'song' ? f.place.songId : null);

/** Findings of one kind in one song, or in the rig and its tones, are one entry. */
export function groupsOf(findings: readonly Finding[]): readonly Group[] {
  const groups = new Map<string, [Finding, ...Finding[]]>();
  for (const f of findings) {
    const key = JSON.stringify([f.code, songOf(f)]);
    const group = groups.get(key);
    if (group) group.push(f);
    else groups.set(key, [f]);
  }
  return [...groups.values()];
}

/** The song that a group is of, or null for the rig and its tones. */
export const songOfGroup = ([first]: Group): string | null => songOf(first);

/** The address that a finding is mended at. */
export function placePath({ id }: Show, place: FindingPlace, code?: Finding['code']): string {
  switch (place.in) {
    case 'song': {
      const chosen = place.cueId ? `&cue=${place.cueId}` : place.sweepId ? `&sweep=${place.sweepId}` : '';
      return `/show/${id}/chart/${place.songId}?at=${place.at}${chosen}`;
    }
    case 'tone':
      return `/show/${id}/tones/${place.toneId}`;
    case 'port':
      return `/show/${id}/rig?port=${place.portId}`;
    case 'feet': {
      const page = place.pageId === null ? 'everywhere' : place.pageId;
      return `/show/${id}/feet/${place.unitId}?page=${page}${place.senderId ? `&switch=${place.senderId}` : ''}`;
    }
    case 'entry':
      return `/show/${id}/set`;
    case 'reaction':
      return `/show/${id}/rig/reactions?reaction=${place.reactionId}`;
    case 'unit':
      // The panel of a stored state is described where its checklist is.
      if (code === 'map.state-undescribed') return `/show/${id}/map/${place.unitId}/relays`;
      if (place.controlId !== undefined) return `/show/${id}/map/${place.unitId}/controls`;
      if (place.slotId !== undefined) return `/show/${id}/map/${place.unitId}`;
      return `/show/${id}/rig?unit=${place.unitId}`;
  }
}
