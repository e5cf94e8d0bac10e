/** What a test line may tell of where it comes from, besides its style. */
export const TAGS = ['channel', 'source', 'language'] as const;

export type TagName = (typeof TAGS)[number];
