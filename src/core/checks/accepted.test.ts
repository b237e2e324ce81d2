import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { acceptFinding, applyEdit, type Show } from '../show';
import { acceptedReason, findingKey, findingSays } from './accepted';
import { finding, type Finding } from './finding';

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

  it('is known by kind and place, not by what it says', () => {
    expect(findingKey(full(60))).toBe(findingKey(full(99)));
    expect(findingSays(full(60))).not.toBe(findingSays(full(99)));
    const other = finding('rig.no-port', 'warning', { in: 'unit', unitId: 'tarn' }, { unit: 'Tarn' });
    expect(findingKey(other)).not.toBe(findingKey(full(60)));
  });
});
