import { randomFillSync } from 'node:crypto';
import type { RowId } from '../core/bot/document.js';

/** Bytes of an id: enough that no two are ever the same. */
const SIZE = 9;

/** Random bytes in stock: getting them one id at a time takes longer than all else about it. */
const stock = Buffer.alloc(SIZE * 512);
let used = stock.length;

/** An id that no row has. */
export function newId(): RowId {
  if (used === stock.length) {
    randomFillSync(stock);
    used = 0;
  }
  used += SIZE;
  return stock.toString('base64url', used - SIZE, used);
}
