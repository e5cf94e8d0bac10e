/** Nesting that no file or request needs; readers of deeper ones run to the end of the stack. */
export const DEEPEST = 100;
/** The same for what may be YAML, where brackets in texts count too, closed or not. */
export const DEEPEST_YAML = 400;

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

/** The deepest nesting by indentation, and by markers of lists within a line: what YAML nests without brackets. */
function indentationOf(text: string): number {
  const open: number[] = [];
  let deepest = 0;
  for (const line of text.split('\n')) {
    const [lead = ''] = /^(?:\s|[-?](?=\s))*/.exec(line) ?? [];
    if (lead.length === line.trimEnd().length) continue;
    const markers = lead.replace(/\s/g, '').length;
    const column = lead.search(/[-?]|$/);
    while (open.length > 0 && open.at(-1)! >= column) open.pop();
    open.push(column);
    for (let marker = 1; marker <= markers; marker++) open.push(column + marker);
    deepest = Math.max(deepest, open.length);
  }
  return deepest;
}

/** How deep a text nests that may be YAML: at least as deep as a reader of it would go. */
export function nestingOfYaml(text: string): number {
  let depth = 0;
  let brackets = 0;
  // Quotes mean other things there, so brackets in them count too.
  for (let at = 0; at < text.length; at++) {
    const sign = text.charCodeAt(at);
    if (sign === 0x5b || sign === 0x7b) brackets = Math.max(brackets, ++depth);
    else if ((sign === 0x5d || sign === 0x7d) && depth > 0) depth--;
  }
  return brackets + indentationOf(text);
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
