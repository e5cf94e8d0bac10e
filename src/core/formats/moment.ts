const MOMENT = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::(\d{2}))?$/;

/** Whether a text is a local ISO time that there is, such as `2026-03-04T09:30`. */
export function isMoment(text: string): boolean {
  const [, ...figures] = MOMENT.exec(text) ?? [];
  if (figures.length === 0) return false;
  const [year, month, day, hour, minute, second] = figures.map((figure) => Number(figure ?? 0));
  const date = new Date(Date.UTC(year!, month! - 1, day));
  const isDay = date.getUTCMonth() === month! - 1 && date.getUTCDate() === day!;
  return year! >= 1000 && isDay && hour! < 24 && minute! < 60 && second! < 60;
}
