/** A word as the readers of numbers, dates and times take it. Offsets are UTF-16 code units of the original text. */
export interface Word {
  /** Folded, put right where it was misspelt; digits as written. */
  said: string;
  start: number;
  end: number;
  /** What stands between it and the word before, blanks taken off: '' where they are glued or only blanks stand there. */
  gap: string;
  /** Whether nothing at all stands between it and the word before. */
  glued: boolean;
}

/** Whether two neighbours belong to one phrase: at most a blank, a comma or a hyphen stands between them. */
export const joined = (word: Word | undefined): boolean => word !== undefined && /^[,-]?$/.test(word.gap);

/** The word at a place as it is said; empty beyond either end. */
export const said = (words: readonly Word[], at: number): string => words[at]?.said ?? '';

/** A number read from words that begin somewhere. */
export interface Count {
  value: number;
  /** Index after the last word. */
  next: number;
}
