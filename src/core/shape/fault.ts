import { ValidationError, type Schema } from './yup.js';

/** A fault in what was given: where it is and a sentence about it. */
export interface Fault {
  /** E.g. `forms[0].slots[2].entity`; empty for the whole. */
  path: string;
  message: string;
  /** How many faults it stands for, where that is more than one: of very many alike only the first are told. */
  times?: number;
}

/** How many faults there are, with those that others stand for. */
export const numberOfFaults = (faults: readonly Fault[]): number =>
  faults.reduce((sum, { times = 1 }) => sum + times, 0);

/** Every fault that a library's error holds. */
function faultsIn(error: ValidationError): Fault[] {
  const single = error.inner.length > 0 ? error.inner : [error];
  return single
    .flatMap((fault) => (fault.inner.length > 0 ? fault.inner : [fault]))
    .map(({ path, message, params }) => {
      const times: unknown = params?.['times'];
      return { path: path ?? '', message, ...(typeof times === 'number' ? { times } : {}) };
    });
}

export type Checked<T> = { ok: true; value: T } | { ok: false; faults: Fault[] };

/** Holds a value against a shape: the value, or every fault found. */
export function check<T>(shape: Schema<T>, value: unknown): Checked<T> {
  try {
    return { ok: true, value: shape.validateSync(value, { abortEarly: false }) };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return { ok: false, faults: faultsIn(error) };
  }
}
