import type { Candidate } from './finders/finder.js';
import type { Decision } from './gate.js';
import type { RankedIntent } from './intentModel.js';
import type { Mending } from './reading.js';
import type { PassedOver, SlotReading } from './slots.js';

/** What a message was read as. */
export interface Recognition {
  text: string;
  /** The best intent, or `null` when the gate lets nothing through. */
  intent: string | null;
  /** Confidence of the best intent in the ranking, whatever the decision. */
  confidence: number;
  decision: Decision;
  /** The intents in reach when the decision is to ask. */
  candidates: string[];
  /** Every intent, best first. */
  ranking: RankedIntent[];
  /** Slots of the first intent in the ranking. */
  slots: SlotReading[];
  /** Values that were found and not taken for a slot of the first intent. */
  passedOver: PassedOver[];
  /** Every value found, of whatever entity; of those that overlap the one that counts in the bot as a whole. */
  entities: Candidate[];
  /** Values that gave way to those, which count for a form that has no slot for what they gave way to. */
  overlapped: Candidate[];
  /** Entities that could not be looked for in this text, because something in it defeats the search. */
  failed: string[];
  /** Words that were read as others. */
  mendings: Mending[];
}
