declare global {
  namespace App {
    interface Locals {
      /** Number of the request, in the log and on error pages. */
      requestNumber: string;
      /** Whoever the browser says it is; `null` for callers that do not say. */
      person: string | null;
    }
    interface Error {
      message: string;
      requestNumber?: string;
    }
  }
}

export {};
