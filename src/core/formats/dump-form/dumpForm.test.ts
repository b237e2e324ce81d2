import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { LIBRARY } from '../../library';
import { runs } from '../../testing/runs';
import { readDumpForm, writeDumpForm } from './';

const forms = LIBRARY.flatMap(({ profile }) => profile.controller?.memory ?? []);
const [form] = forms;
const text = writeDumpForm('Four small switches', form!);
const said = (of: string): string => readDumpForm(of).problems.map(problemLine).join();

describe('how a controller keeps its pages, as a file', () => {
  it('comes back as it was', () => {
    expect(forms.length).toBeGreaterThanOrEqual(3);
    for (const one of forms) expect(readDumpForm(writeDumpForm('x', one))).toEqual({ value: one, problems: [] });
  });

  it('is refused with the place where it is none, newer, or lies over itself', () => {
    expect(said('{}')).toMatch(/expected the format "hollow-lantern-dump-form", found none/);
    expect(said('{')).toMatch(/line 1/);
    expect(said(text.replace('"version": 1', '"version": 2'))).toMatch(/expected version 1, found 2/);
    expect(said(text.replace('"packing": "', '"packing": "un'))).toMatch(/form\.packing: /);
    const over = { ...form!, switches: { ...form!.switches, size: form!.pages.size } };
    expect(said(writeDumpForm('x', over))).toMatch(/form\.switches: It ends at byte/);
  });

  it('answers any damaged text', () => {
    fc.assert(
      fc.property(fc.nat(text.length), fc.string({ maxLength: 4 }), (at, put) => {
        const bad = text.slice(0, at) + put + text.slice(at + put.length);
        const { value, problems } = readDumpForm(bad);
        expect(value !== undefined || problems.length > 0).toBe(true);
      }),
      runs(2211, 120),
    );
  });
});
