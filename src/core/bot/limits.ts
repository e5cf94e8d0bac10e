/** The most of everything that a bot takes; lengths are UTF-16 code units. Counts are looked at before what is counted. */
export const MOST = {
  /** Of names of intents, entities, slots, forms, desks and bots. */
  name: 100,
  description: 2000,
  utterance: 4000,
  /** Of one wording of a text that customers see. */
  wording: 4000,
  pattern: 500,
  /** Of a list value and of each of its synonyms. */
  value: 500,
  id: 40,
  intents: 2000,
  utterances: 100_000,
  entities: 1000,
  values: 20_000,
  synonyms: 200,
  forms: 1000,
  slots: 200,
  desks: 500,
  languages: 50,
  variants: 100,
  /** Of a mistake, in any unit. */
  cost: 1_000_000,
  /** Of lines added at once. */
  lines: 50_000,
} as const;
