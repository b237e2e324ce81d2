import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../../testing/runs';
import { paginate, type Block } from './blocks';
import { needsOf, widthsOf } from './columns';

interface Named extends Block {
  readonly name: string;
}

const block = (name: string, height: number, rest: Partial<Block> = {}): Named => ({
  name,
  height,
  draw: () => undefined,
  ...rest,
});
const names = (blocks: readonly Block[], room: number): string[][] =>
  paginate(blocks, room).map((page) => page.map((s) => (s.block as Named).name));

describe('blocks on pages', () => {
  it('go to the next page whole, with what stands again at its head', () => {
    const head = block('head', 20, { withNext: true });
    const row = (n: number): Named => block(`row ${n}`, 30, { again: [head] });
    expect(names([head, row(1), row(2), row(3)], 80)).toEqual([
      ['head', 'row 1', 'row 2'],
      ['head', 'row 3'],
    ]);
    expect(names([block('text', 50), head, row(1)], 90)).toEqual([['text'], ['head', 'row 1']]);
  });

  it('are cut where they are higher than a page, from where they stand: no page stays empty', () => {
    const tall = (height: number, nth: number): Named =>
      block(`piece ${nth}`, height, { split: (left) => [block(`piece ${nth}`, left), tall(height - left, nth + 1)] });
    expect(names([block('about', 20), tall(250, 1)], 100)).toEqual([['about', 'piece 1'], ['piece 2'], ['piece 3']]);
    const head = block('head', 10, { withNext: true });
    expect(names([block('about', 20), head, tall(150, 1)], 100)).toEqual([['about', 'head', 'piece 1'], ['piece 2']]);
  });

  it('all stand once and in their order, within the page where they fit one', () => {
    const heights = fc.array(fc.record({ height: fc.integer({ min: 1, max: 140 }), withNext: fc.boolean() }));
    fc.assert(
      fc.property(heights, (all) => {
        const blocks = all.map((b, i) => block(String(i), b.height, { withNext: b.withNext && b.height < 30 }));
        const pages = paginate(blocks, 100);
        expect(pages.flatMap((p) => p.map((s) => s.block))).toEqual(blocks);
        for (const [nth, page] of pages.entries()) {
          if (blocks.length > 0) expect(page.length, `page ${nth}`).toBeGreaterThan(0);
          for (const { block: own, at } of page)
            if (own.height <= 100) expect(at + own.height).toBeLessThanOrEqual(100);
        }
      }),
      runs(8101, 300),
    );
  });
});

describe('columns', () => {
  const columns = [
    { head: 'A', width: 1 },
    { head: 'B', width: 3 },
    { head: 'C', width: 1 },
  ];
  const measure = (text: string): number => text.length;
  const needs = (rows: readonly (readonly string[])[]) => needsOf(columns, rows, measure);

  it('have the room that their cells need, and share what is left', () => {
    expect(widthsOf(columns, needs([['aa', 'bbbb', 'c']]), [1, 1, 1], 10, 5, 185)).toEqual([45, 105, 35]);
  });

  it('break no word while there is room for it', () => {
    const rows = [['1', 'a note of many words that is long', 'Lighthouse']];
    const widths = widthsOf(columns, needs(rows), [1, 1, 1], 10, 0, 200);
    expect(widths[2]).toBeGreaterThanOrEqual(100);
    expect(widths[0]).toBeGreaterThanOrEqual(10);
    expect(widths[1]).toBeGreaterThanOrEqual(50);
  });

  it('fill the page, and keep every word whole where all fit', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', 'b', ' ', ','), maxLength: 60 });
    const cells = fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(cells, fc.integer({ min: 10, max: 900 }), (rows, inner) => {
        const own = needs(rows);
        const widths = widthsOf(columns, own, [3, 3, 3], 1, 2, inner);
        expect(widths.reduce((a, b) => a + b)).toBeCloseTo(inner, 6);
        const least = own.map((n) => Math.max(n.word, 3) + 2);
        if (least.reduce((a, b) => a + b) <= inner) {
          for (const [i, w] of widths.entries()) expect(w).toBeGreaterThanOrEqual(least[i]! - 1e-9);
        }
      }),
      runs(8102, 300),
    );
  });
});
