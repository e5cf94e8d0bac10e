import { randomBytes } from 'node:crypto';
import type { RowId } from '../core/bot/document.js';

/** An id that no row has. */
export const newId = (): RowId => randomBytes(9).toString('base64url');
