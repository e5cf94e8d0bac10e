/** Nesting that no file or request needs; readers of deeper ones run to the end of the stack. */
export const DEEPEST = 100;

/**
 * How deep brackets of a text nest, outside of quotes where it is JSON. Of text that is none it tells at least as much as
 * there is.
 */
export function nestingOf(text: string): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const sign = text.charCodeAt(at);
    if (quoted) {
      if (sign === 0x5c) at++;
      else if (sign === 0x22) quoted = false;
    } else if (sign === 0x22) quoted = true;
    else if (sign === 0x5b || sign === 0x7b) deepest = Math.max(deepest, ++depth);
    else if (sign === 0x5d || sign === 0x7d) depth--;
  }
  return deepest;
}

/** Names that every object has from its making; data that uses them would reach into the program. */
const RESERVED: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

/** The first key of parsed JSON, at any depth, that data must not have; `null` where there is none. */
export function reservedKey(value: unknown): string | null {
  const waiting: unknown[] = [value];
  while (waiting.length > 0) {
    const next = waiting.pop();
    if (typeof next !== 'object' || next === null) continue;
    if (!Array.isArray(next)) {
      for (const key of Object.keys(next)) if (RESERVED.has(key)) return key;
    }
    for (const part of Object.values(next) as unknown[]) if (typeof part === 'object') waiting.push(part);
  }
  return null;
}
