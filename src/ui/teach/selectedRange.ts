/** Length of the text before a point, leaving out what only assistive technology reads. */
function textLength(fragment: DocumentFragment): number {
  for (const unseen of fragment.querySelectorAll('.unseen')) unseen.remove();
  return fragment.textContent.length;
}

/** Whole words around a range: a selection that cuts a word takes all of it, and no space at its ends. */
export function wholeWords(text: string, from: number, to: number): { start: number; end: number } | null {
  let [start, end] = [Math.min(from, to), Math.max(from, to)];
  while (start < end && /\s/u.test(text[start] ?? '')) start++;
  while (end > start && /\s/u.test(text[end - 1] ?? '')) end--;
  if (start === end) return null;
  const inWord = (at: number) => /[\p{L}\p{N}'’]/u.test(text[at] ?? '');
  while (start > 0 && inWord(start - 1) && inWord(start)) start--;
  while (end < text.length && inWord(end) && inWord(end - 1)) end++;
  return { start, end };
}

/** What of an element's text the pointer has selected, as offsets of whole words; `null` if nothing. */
export function selectedRange(element: HTMLElement, text: string): { start: number; end: number } | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  if (!element.contains(range.startContainer) || !element.contains(range.endContainer)) return null;
  const before = document.createRange();
  before.selectNodeContents(element);
  before.setEnd(range.startContainer, range.startOffset);
  const start = textLength(before.cloneContents());
  const length = textLength(range.cloneContents());
  return wholeWords(text, start, start + length);
}
