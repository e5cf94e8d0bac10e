/** What can be chosen: a name, or a name with what is shown for it. */
export type Option = string | { value: string; text: string };

export const optionsWithText = (options: readonly Option[]): { value: string; text: string }[] =>
  options.map((option) => (typeof option === 'string' ? { value: option, text: option } : option));
