declare global {
  namespace App {
    interface Locals {
      /** Number of the request, in the log and on error pages. */
      requestNumber: string;
    }
    interface Error {
      message: string;
      requestNumber?: string;
    }
  }
}

export {};
