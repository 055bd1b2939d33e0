import type { Block } from '@/core/design/block.ts';
import { blockShape } from '@/core/design/block.ts';

/** Where a copied block is kept: in this browser, for all its tabs. */
const PLACE = 'bontel.block';

/** Keeps a block, with all within it, until another one is kept. */
export function keepBlock(block: Block): void {
  localStorage.setItem(PLACE, JSON.stringify(block));
}

/** The block that was kept last; null where none was. */
export function keptBlock(): Block | null {
  try {
    return blockShape.parse(JSON.parse(localStorage.getItem(PLACE) ?? 'null'));
  } catch {
    return null;
  }
}
