/** A time of day or a stretch of one, in minutes from midnight. */
export interface TimeRead {
  from: number;
  /** The same as `from` for a point in time. */
  to: number;
  /** Index after the last word. */
  next: number;
  /** Whether words said which half of the day is meant. */
  certain: boolean;
  /** A part of the day ("morning") rather than a time by the clock. */
  partOfDay: boolean;
  /** The two ends of a stretch, each as it reads alone: the words it stands in, and minutes from midnight. */
  ends?: readonly { at: number; next: number; time: number }[];
}

/** Minutes from midnight as `HH:MM`. */
export function isoTime(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
