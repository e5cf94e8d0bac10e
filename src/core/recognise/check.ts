/** Long work that was given up, because what it works on is no longer wanted. */
export class GivenUpError extends Error {
  constructor() {
    super('This work was given up.');
  }
}

/** Called now and then by long work; throws {@link GivenUpError} where it is no longer wanted. */
export type Check = () => void;

export const goOn: Check = () => undefined;
