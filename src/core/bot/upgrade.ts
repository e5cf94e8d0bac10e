import type { BotDocument } from './document.js';

/** The version of documents as they are stored. */
const DOCUMENT_VERSION = 2;

/** A document that was stored by a later version of the program, or is damaged. */
class DocumentVersionError extends Error {
  constructor() {
    super('This bot was stored by another version of the program.');
  }
}

/** A document as it is stored: with its version. */
export const storedDocument = (document: BotDocument): object => ({ version: DOCUMENT_VERSION, document });

const isDocument = (value: unknown): value is BotDocument =>
  typeof value === 'object' &&
  value !== null &&
  (value as Partial<BotDocument>).reedGate === 1 &&
  ['entities', 'intents', 'forms', 'desks'].every((key) => Array.isArray((value as Record<string, unknown>)[key]));

/** Reads a stored document. @throws DocumentVersionError */
export function upgradeDocument(value: unknown): BotDocument {
  const { version, document } = (value ?? {}) as { version?: unknown; document?: unknown };
  if (version !== DOCUMENT_VERSION || !isDocument(document)) throw new DocumentVersionError();
  return document;
}
