/** A text a customer sees: one wording, several variants, or either by language. */
export type Localised = string | string[] | Record<string, string | string[]>;

/** The variants of a text in a language; falls back to the text's first language. Empty when nothing is written. */
export function variants(text: Localised | undefined, language: string): string[] {
  if (text === undefined) return [];
  if (typeof text === 'string') return text.trim() === '' ? [] : [text];
  if (Array.isArray(text)) return text.filter((variant) => variant.trim() !== '');
  return variants(text[language] ?? Object.values(text)[0], language);
}

/** Every wording of a text, in all languages. */
export function allWordings(text: Localised | undefined): string[] {
  if (text === undefined) return [];
  if (typeof text === 'string') return [text];
  if (Array.isArray(text)) return text;
  return Object.values(text).flatMap((part) => (typeof part === 'string' ? [part] : part));
}

/** The text with each wording put through `change`, in all languages. */
export function mapWordings(text: Localised, change: (wording: string) => string): Localised {
  if (typeof text === 'string') return change(text);
  if (Array.isArray(text)) return text.map(change);
  return Object.fromEntries(
    Object.entries(text).map(([language, part]) => [language, mapWordings(part, change) as string | string[]]),
  );
}

/** Lines as they are edited on a screen: one variant a line. Other languages are kept. */
export function withVariants(text: Localised | undefined, language: string, lines: readonly string[]): Localised {
  const kept = lines.map((line) => line.trim()).filter((line) => line !== '');
  const single = kept.length === 1 ? kept[0]! : kept;
  if (text !== undefined && typeof text === 'object' && !Array.isArray(text)) return { ...text, [language]: single };
  return single;
}
