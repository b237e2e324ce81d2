import type { PDFPage } from '@cantoo/pdf-lib';

/** Something that stands on a page whole. */
export interface Block {
  /** Points. */
  readonly height: number;
  /** It is not left alone at the foot of a page. */
  readonly withNext?: boolean;
  /** Stands again at the head of a page that begins within what this belongs to. */
  readonly again?: readonly Block[];
  /** The parts of it that fit into so much room, and the rest. Undefined where it stays whole. */
  readonly split?: (room: number) => readonly [Block, Block] | undefined;
  /** Draws it below a height of the page. */
  readonly draw: (page: PDFPage, top: number, isAgain: boolean) => void;
}

/** One block at its place. */
interface Standing {
  readonly block: Block;
  /** Points below the first block of its page. */
  readonly at: number;
  readonly isAgain: boolean;
}

/** Blocks on pages that have room for so many points below their heads. No block is cut that fits a page, and no page stays empty. */
export function paginate(blocks: readonly Block[], room: number): readonly (readonly Standing[])[] {
  const pages: Standing[][] = [[]];
  let at = 0;
  const stand = (block: Block, isAgain = false): void => {
    pages.at(-1)!.push({ block, at, isAgain });
    at += block.height;
  };
  const turn = (again: readonly Block[] = []): void => {
    pages.push([]);
    at = 0;
    for (const block of again) stand(block, true);
  };
  for (const [i, first] of blocks.entries()) {
    let block = first;
    // A head goes with what it heads, a name with the head below it.
    let needed = block.height;
    for (let k = i; blocks[k]!.withNext && k + 1 < blocks.length; k++) needed += blocks[k + 1]!.height;
    const again = (block.again ?? []).reduce((sum, b) => sum + b.height, 0);
    for (;;) {
      const left = room - at;
      if (needed <= left) break;
      if (block.height + again > room) {
        const parts = block.split?.(left);
        if (parts) {
          stand(parts[0]);
          [, block] = parts;
          turn(block.again);
          needed = block.height;
          continue;
        }
      }
      const isFresh = pages.at(-1)!.every((s) => s.isAgain);
      // What is higher than a page and cannot be cut stands where it begins, also beyond the foot.
      if (isFresh || (block.withNext === true && block.height <= left && needed > room)) break;
      turn(block.again);
    }
    stand(block);
  }
  return pages;
}
