/** Small letters, no accents or apostrophes, punctuation to spaces. */
export function foldPhrase(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\p{M}'’]/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}?]+/gu, ' ')
    .trim();
}
