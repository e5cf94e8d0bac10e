/** A remark on something that is weak, missing or doubled. */
export interface Note {
  /** In a sentence. */
  text: string;
  /** How much it matters: something is missing, or could be better. */
  weight: 'missing' | 'weak';
  /** Row of the sheet that it speaks of. */
  row?: number;
  /** Name of the slot that it speaks of. */
  slot?: string;
}
