import { LRUCache } from 'lru-cache';

/** Formatters kept, by time zone: making one takes longer than all else that a short request does. */
const MOST_ZONES = 50;

const formatters = new LRUCache<string, Intl.DateTimeFormat>({
  max: MOST_ZONES,
  memoMethod: (timeZone) =>
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    }),
});

/** The present moment as local ISO time in a time zone, e.g. `2026-03-04T09:30`. */
export function localNow(timeZone: string, at = new Date()): string {
  const parts = formatters.memo(timeZone).formatToParts(at);
  const part = (type: string): string => parts.find((item) => item.type === type)?.value ?? '00';
  return `${part('year')}-${part('month')}-${part('day')}T${part('hour')}:${part('minute')}`;
}
