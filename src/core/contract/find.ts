/** What can be gone to. */
export type FoundKind =
  | 'intent'
  | 'form'
  | 'slot'
  | 'entity'
  | 'desk'
  | 'setting'
  | 'sentence'
  | 'value'
  | 'utterance'
  | 'walkthrough'
  | 'test set';

export interface Found {
  kind: FoundKind;
  label: string;
  /** Where it belongs, or more of its words. */
  hint: string;
  /** Its address below that of the bot. */
  to: string;
}
