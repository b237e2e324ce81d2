import type { PDFPage } from '@cantoo/pdf-lib';
import type { SheetTable } from '../../sheets';
import type { Block } from './blocks';
import { UNBROKEN, needsOf, widthsOf } from './columns';
import type { Weight } from './faces';
import { MARGIN, isTurned, rule, type Ink } from './ink';
import type { Tag, Tags } from './tags';
import { wrap } from './wrap';

/** What a sheet is drawn with. */
export interface Tools {
  readonly ink: Ink;
  readonly tags: Tags;
  /** The part of the document that the sheet is. */
  readonly within: () => Tag;
  /** Points of its type, and between its margins. */
  readonly size: number;
  readonly inner: number;
}

type Lines = readonly (readonly string[])[];

/** Of a size of type: between lines, between columns, around rows, heads, names of tables. */
export const leadingOf = (size: number): number => size * 1.32 - Math.max(0, size - 11) * 0.14;
const padOf = (size: number): number => Math.max(4, size * 0.5);
const roomOf = (size: number): number => Math.min(size * 0.55, 8);
const headOf = (size: number): number => Math.max(9, Math.min(size * 0.62, 14));

/** A table as blocks: its name where it has one, its head, which stands again on each page, and its rows. */
export function tableBlocks({ name, columns, rows }: SheetTable, tools: Tools, named: boolean): readonly Block[] {
  const { ink, tags, within, size, inner } = tools;
  const { fonts } = ink;
  const weightOf = (i: number): Weight => (columns[i]!.strong === true ? 'bold' : 'regular');
  const [pad, room, headSize, leading] = [padOf(size), roomOf(size), headOf(size), leadingOf(size)];
  // A head may be broken between its words.
  const headWords = columns.map((c) => Math.max(...c.head.split(' ').map((w) => fonts.width(w, 'bold', headSize))));
  const needs = needsOf(columns, rows, (text, i) => fonts.width(text, weightOf(i), 1));
  const widths = widthsOf(columns, needs, headWords, size, pad, inner);

  let tag: Tag | undefined;
  const cells = (
    page: PDFPage,
    top: number,
    lines: Lines,
    own: number,
    weight: (i: number) => Weight,
    row?: Tag,
  ): void => {
    let x = MARGIN;
    for (const [i, texts] of lines.entries()) {
      const draw = (): void => {
        for (const [k, line] of texts.entries()) {
          ink.text(page, line, x, top - 2 - own - k * (own === size ? leading : own + 2), own, weight(i));
        }
      };
      if (row) {
        const cell = tags.add(weight(i) === 'bold' && own !== size ? 'TH' : 'TD', row);
        const text = texts.join(' ');
        if (text !== '') tags.mark(page, cell, draw, texts.some(isTurned) ? text : undefined);
      } else draw();
      x += widths[i]!;
    }
  };
  const heads = columns.map((c, i) => wrap(c.head, widths[i]! - pad, (t) => fonts.width(t, 'bold', headSize), 0));
  const headHeight = Math.max(...heads.map((l) => l.length)) * (headSize + 2) + 6;
  const head: Block = {
    height: headHeight,
    withNext: true,
    draw: (page, top, isAgain) => {
      const bold = (): Weight => 'bold';
      if (isAgain) tags.artifact(page, () => cells(page, top, heads, headSize, bold));
      else cells(page, top, heads, headSize, bold, tags.add('TR', (tag = tags.add('Table', within()))));
      tags.artifact(page, () => rule(page, top - headHeight, 1.2));
    },
  };
  const naming: Block = {
    height: 12 + size,
    withNext: true,
    draw: (page, top, isAgain) => {
      const draw = (text: string) => (): void =>
        ink.text(page, text, MARGIN, top - size - 4, Math.min(size + 1, 16), 'bold');
      if (isAgain) tags.artifact(page, draw(`${name}, continued`));
      else tags.mark(page, tags.add('H2', within()), draw(name), isTurned(name) ? name : undefined);
    },
  };
  const again = named ? [naming, head] : [head];
  const row = (lines: Lines): Block => {
    const high = Math.max(1, ...lines.map((l) => l.length));
    const height = high * leading + room;
    return {
      height,
      again,
      draw: (page, top) => {
        cells(page, top, lines, size, weightOf, tags.add('TR', (tag ??= tags.add('Table', within()))));
        tags.artifact(page, () => rule(page, top - height, 0.5));
      },
      split: (left) => {
        const most = Math.floor((left - room) / leading);
        if (most < 1 || most >= high) return undefined;
        return [row(lines.map((l) => l.slice(0, most))), row(lines.map((l) => l.slice(most)))];
      },
    };
  };
  const laid = rows.map((cellsOfRow) =>
    row(cellsOfRow.map((cell, i) => wrap(cell, widths[i]! - pad, (t) => fonts.width(t, weightOf(i), size), UNBROKEN))),
  );
  return [...again, ...laid, { height: 12, draw: () => undefined }];
}
