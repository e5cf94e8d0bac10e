import type { InferType, Schema } from '../../shape/yup.js';
import type { Fault } from '../../shape/fault.js';
import type { BotDocument, RowId } from '../document.js';

/** An act that cannot be done, with a sentence for the person who asked for it. */
export class ActError extends Error {
  constructor(
    message: string,
    readonly faults: Fault[] = [],
  ) {
    super(message);
  }
}

/** Another name for a slot of a form, for a value of the slots of an entity or for an intent, which tests follow. */
export type Renaming =
  | { what: 'slot'; from: string; to: string; intents: string[]; ownSlots: string[]; otherSlots: string[] }
  | { what: 'value'; from: string; to: string; slots: string[] }
  | { what: 'intent'; from: string; to: string };

/** What an act makes of a document. */
export interface Outcome {
  /** Parts that the act does not touch are the same objects as before. */
  document: BotDocument;
  /** What was done, for the lists of what can be undone: "add order_tea". */
  label: string;
  /** What tests and walkthroughs follow. */
  renaming?: Renaming;
}

/** What an act cannot know by itself. */
export interface ActContext {
  /** Gives an id that no row of the bot has, for rows that the act makes and does not name. */
  newId: () => RowId;
}

/** One kind of act upon a bot. */
export interface ActKind<Name extends string, Shape extends Schema> {
  readonly name: Name;
  /** Everything that is known of the act's parts: it checks them, gives their type and their JSON Schema. */
  readonly shape: Shape;
  /** @throws ActError */
  readonly apply: (document: BotDocument, parts: InferType<Shape>, context: ActContext) => Outcome;
}

export const actKind = <const Name extends string, Shape extends Schema>(
  name: Name,
  shape: Shape,
  apply: ActKind<Name, Shape>['apply'],
): ActKind<Name, Shape> => ({ name, shape, apply });
