import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { acceptFinding, applyEdit, type Show } from '../show';
import { acceptedReason, canAccept, findingKey, findingSays } from './accepted';
import { finding, type Finding } from './finding';
import type { Remedy } from './remedies';

const show = demoShow();
const full = (percent: number, at = 960, severity: Finding['severity'] = 'warning'): Finding =>
  finding(
    'song.port-full',
    severity,
    { in: 'song', songId: 'fog-bell', at },
    { song: 'Fog Bell', at: '1|2', port: 'Rack', percent },
  );
const accept = (s: Show, f: Finding, reason = 'a long patch is sent there'): Show =>
  applyEdit(s, acceptFinding(s, findingKey(f), findingSays(f), reason)!);

describe('a finding that is let be', () => {
  it('is quiet, with its reason', () => {
    expect(acceptedReason(show, full(60))).toBeUndefined();
    expect(acceptedReason(accept(show, full(60)), full(60))).toBe('a long patch is sent there');
  });

  it('comes back when it says something else, or stands elsewhere', () => {
    const quiet = accept(show, full(60));
    expect(acceptedReason(quiet, full(61))).toBeUndefined();
    expect(acceptedReason(quiet, full(60, 1920))).toBeUndefined();
    // Looked at again, it is quiet as it is now.
    expect(acceptedReason(accept(quiet, full(61)), full(61))).toBe('a long patch is sent there');
  });

  it('is never one that is grave', () => {
    const grave = full(60, 960, 'error');
    expect(acceptedReason(accept(show, grave), grave)).toBeUndefined();
  });

  it('may be a change that comes late, whatever would mend it', () => {
    const late = (millis: number, fix: Remedy | null): Finding =>
      finding(
        'song.late',
        'error',
        { in: 'song', songId: 'fog-bell', at: 960, cueId: 'c' },
        { song: 'Fog Bell', at: '1|2', unit: 'Tarn', millis, cause: { kind: 'unknown' }, fix },
      );
    const quiet = accept(show, late(40, null), 'the chord rings over it');
    expect(acceptedReason(quiet, late(40, { how: 'shift', millis: 40, name: '' }))).toBe('the chord rings over it');
    expect(acceptedReason(quiet, late(41, null))).toBeUndefined();
    expect(canAccept(late(40, null))).toBe(true);
    expect(canAccept(full(60, 960, 'error'))).toBe(false);
  });

  it('is known by kind and place, not by what it says', () => {
    expect(findingKey(full(60))).toBe(findingKey(full(99)));
    expect(findingSays(full(60))).not.toBe(findingSays(full(99)));
    const other = finding('rig.no-port', 'warning', { in: 'unit', unitId: 'tarn' }, { unit: 'Tarn' });
    expect(findingKey(other)).not.toBe(findingKey(full(60)));
  });
});
