import { numberOfFaults, type Fault } from '../core/shape/fault.js';

/** Something that was sent is not as it must be. */
export class InputError extends Error {
  constructor(
    message: string,
    /** The first of them. */
    readonly faults: readonly Fault[] = [],
    /** How many there are. */
    readonly number = numberOfFaults(faults),
  ) {
    super(message);
  }
}

/** What was asked for is not there. */
export class NotFoundError extends Error {}

/** The actor may not do this. */
export class ForbiddenError extends Error {
  constructor() {
    super('You may not do this.');
  }
}

/** An answer that a person waited for took longer than it may. */
export class TooLongError extends Error {
  constructor(seconds: number, options?: ErrorOptions) {
    super(
      `This took longer than ${seconds} seconds and was stopped; nothing was changed. Try it with fewer words, or again when less is going on.`,
      options,
    );
  }
}
