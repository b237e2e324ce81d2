import { describe, expect, it } from 'vitest';
import { differenceSentence } from '../../wording';
import { libraryEntry, libraryProfile } from '../library';
import { compareProfiles } from './compareProfiles';
import type { Profile } from './profile';

const before = libraryProfile('letter-modeler');
const said = (after: Profile, from = before): string[] => compareProfiles(from, after).map(differenceSentence);

describe('two profiles of one unit', () => {
  it('do not differ from themselves', () => {
    expect(said({ ...before, firmware: '9' })).toEqual([]);
  });

  it('show that a recall engages with other firmware, and how times change', () => {
    const { profile, versions } = libraryEntry('position-delay');
    expect(said(versions[0]!, profile)).toEqual([
      'A recall also engages: Engage need not be sent any more.',
      'A preset takes 55 ms instead of 70 ms.',
    ]);
    expect(said(profile, versions[0])[0]).toBe('A recall no longer engages: Engage has to be sent after it.');
  });

  it('show slots that are written or called otherwise', () => {
    const [user, factory] = before.plan.groups;
    expect(said({ ...before, plan: { ...before.plan, groups: [{ ...user!, count: 119 }, factory!] } })).toEqual([
      'There are 179 slots instead of 180.',
      'Slots are written otherwise: T6 becomes factory A1.',
    ]);
    expect(said({ ...before, plan: { ...before.plan, bank: { send: 'lsb', when: 'differs' } } })).toEqual([
      'Slots are called otherwise: A1 was B0 00 00 · C0 00, now B0 20 00 · C0 00.',
    ]);
  });

  it('show controls that came, went, moved or got another name', () => {
    const [first, second, ...rest] = before.controls;
    const moved = { ...second!, encoding: { kind: 'tap', number: 99, values: [1] } as const };
    const sentences = said({
      ...before,
      controls: [{ ...first!, name: 'Bite' }, moved, ...rest.slice(1), { ...first!, id: 'new', name: 'New' }],
    });
    expect(sentences).toEqual([
      `${first!.name} is called Bite.`,
      expect.stringContaining(`${second!.name} is on control 99 (tap), before on`),
      `${rest[0]!.name} is gone.`,
      'New is new.',
    ]);
  });

  it('show variants and habits', () => {
    expect(
      said({
        ...before,
        variants: { ...before.variants!, names: ['1'], encoding: { kind: 'program', first: 0, count: 8 } },
        whileSettling: before.whileSettling === 'queue' ? 'ignore' : 'queue',
        recallLoads: { variant: !before.recallLoads.variant, controls: before.recallLoads.controls },
        silentInGap: !before.silentInGap,
        silence: { usual: false, bytes: 'b07b00' },
      }),
    ).toHaveLength(6);
  });
});
