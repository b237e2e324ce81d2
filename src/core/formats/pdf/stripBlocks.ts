import type { PDFPage } from '@cantoo/pdf-lib';
import type { SheetPart } from '../../sheets';
import type { Block } from './blocks';
import { BLACK, GREY, MARGIN, MILLIMETRE, isTurned } from './ink';
import type { Tag } from './tags';
import type { Tools } from './tableBlocks';
import { wrap } from './wrap';

type Strips = Extract<SheetPart, { kind: 'strips' }>;
type Cell = Strips['rows'][number][number];

const HEIGHT = 14 * MILLIMETRE;
const GAP = 1.5 * MILLIMETRE;
/** Of what a display shows. */
const SHOWN = 7.5;
/** A name is set as large as two lines of it go into a strip. */
const SIZES = [15, 13, 12, 11, 10, 9, 8, 7] as const;

/** Strips for the switches of a page in their true size, a row a block. */
export function stripBlocks({ name, pitch, rows }: Strips, { ink, tags, within }: Tools): readonly Block[] {
  const { fonts } = ink;
  const step = pitch * MILLIMETRE;
  const cell = (page: PDFPage, { name: own, shown, clash }: Cell, x: number, bottom: number): void => {
    const room = step - 2 * MILLIMETRE;
    const linesAt = (z: number): readonly string[] => wrap(own, room, (t) => fonts.width(t, 'bold', z), 0);
    const size = SIZES.find((z) => linesAt(z).length <= 2) ?? SIZES.at(-1)!;
    const lines = linesAt(size).slice(0, 2);
    const leading = size * 1.1;
    const below = shown === '' ? 0 : SHOWN * 1.5;
    // The block of lines stands in the middle; a line's base is four fifths down.
    let top = bottom + (HEIGHT + lines.length * leading + below) / 2;
    for (const line of lines) {
      ink.text(page, line, x + (step - fonts.width(line, 'bold', size)) / 2, top - size * 0.85, size, 'bold');
      top -= leading;
    }
    if (shown === '') return;
    const wide = fonts.width(shown, 'regular', SHOWN);
    const at = x + (step - wide) / 2;
    const base = top - SHOWN * 1.25;
    ink.text(page, shown, at, base, SHOWN, 'regular');
    const y = base - 1.8;
    if (clash) page.drawLine({ start: { x: at, y }, end: { x: at + wide, y }, thickness: 0.8, color: BLACK });
  };
  let list: Tag | undefined;
  const row = (cells: readonly Cell[]): Block => ({
    height: HEIGHT + GAP,
    draw: (page, top) => {
      const bottom = top - HEIGHT;
      tags.artifact(page, () => {
        page.drawRectangle({
          x: MARGIN,
          y: bottom,
          width: step * cells.length,
          height: HEIGHT,
          borderColor: BLACK,
          borderWidth: 0.85,
        });
        for (let i = 1; i < cells.length; i++) {
          const x = MARGIN + i * step;
          page.drawLine({
            start: { x, y: bottom },
            end: { x, y: top },
            thickness: 0.5,
            color: GREY,
            dashArray: [2, 2],
          });
        }
      });
      list ??= tags.add('L', within());
      for (const [i, own] of cells.entries()) {
        if (own.name === '' && own.shown === '') continue;
        const said = `${own.name} ${own.shown}`.trim();
        const draw = (): void => cell(page, own, MARGIN + i * step, bottom);
        tags.mark(page, tags.add('LI', list), draw, isTurned(said) ? said : undefined);
      }
    },
  });
  const head: Block = {
    height: 19,
    withNext: true,
    draw: (page, top) =>
      tags.mark(page, tags.add('H2', within()), () => ink.text(page, name, MARGIN, top - 13, 12, 'bold')),
  };
  return [head, ...rows.map(row), { height: 8, draw: () => undefined }];
}
