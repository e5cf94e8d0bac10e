import { TENS, UNITS } from './numbers.js';
import { joined, said, type Word } from '../word.js';
import type { TimeRead } from '../timeRead.js';

/** Parts of the day as people keep them, in minutes from midnight. */
const PARTS: ReadonlyMap<string, readonly [number, number]> = new Map([
  ['morning', [6 * 60, 12 * 60]],
  ['lunchtime', [12 * 60, 14 * 60]],
  ['lunch', [12 * 60, 14 * 60]],
  ['afternoon', [12 * 60, 18 * 60]],
  ['evening', [18 * 60, 22 * 60]],
  ['night', [20 * 60, 24 * 60 - 1]],
]);
export const periodOf = (word: string): readonly [number, number] | undefined =>
  PARTS.get(word) ?? PARTS.get(word.replace(/s$/, ''));

type Half = 'am' | 'pm' | null;

/** "am", "p.m.", "in the morning", "at night", "this evening" after a time. */
function halfAt(words: readonly Word[], at: number): { half: Half; next: number } {
  const word = words[at];
  if (!word) return { half: null, next: at };
  if (/^[ap]m$/.test(word.said)) return { half: word.said as Half, next: at + 1 };
  if (/^[ap]$/.test(word.said) && said(words, at + 1) === 'm' && words[at + 1]!.gap === '.')
    return { half: `${word.said}m` as Half, next: at + 2 };
  if (!joined(word)) return { half: null, next: at };
  let place = at;
  if (/^(?:in|at|during)$/.test(said(words, place))) place++;
  if (/^(?:the|this)$/.test(said(words, place))) place++;
  const part = periodOf(said(words, place)) ?? (said(words, at) === 'tonight' ? PARTS.get('evening') : undefined);
  if (!part || (place === at && said(words, at) !== 'tonight')) return { half: null, next: at };
  if (said(words, place).startsWith('lunch')) return { half: null, next: at };
  return { half: part[0] < 12 * 60 ? 'am' : 'pm', next: said(words, at) === 'tonight' ? at : place + 1 };
}

/** An hour in figures or words, 0 to 24. */
function hourAt(words: readonly Word[], at: number): number | null {
  const word = said(words, at);
  if (/^\d{1,2}$/.test(word)) return Number(word) <= 24 ? Number(word) : null;
  const unit = UNITS.get(word);
  return unit !== undefined && unit >= 1 && unit <= 12 ? unit : null;
}

/** Minutes in words or figures, as said after an hour: "thirty", "forty five", "oh five". */
function minutesAt(words: readonly Word[], at: number): { value: number; next: number } | null {
  const word = said(words, at);
  if (/^(?:oh|o)$/.test(word)) {
    const unit = UNITS.get(said(words, at + 1));
    return unit !== undefined && unit >= 1 && unit <= 9 ? { value: unit, next: at + 2 } : null;
  }
  const ten = TENS.get(word);
  if (ten !== undefined && ten < 60) {
    const unit = UNITS.get(said(words, at + 1));
    return unit !== undefined && unit >= 1 && unit <= 9 && joined(words[at + 1])
      ? { value: ten + unit, next: at + 2 }
      : { value: ten, next: at + 1 };
  }
  const unit = UNITS.get(word);
  if (unit !== undefined && unit >= 10) return { value: unit, next: at + 1 };
  return /^[0-5]\d$/.test(word) ? { value: Number(word), next: at + 1 } : null;
}

/** Hours said without a half of the day are taken from the working day: eight in the morning until seven at night. */
function inDay(hour: number, minute: number, half: Half, written: string): number {
  let full = hour;
  if (half === 'am') full = hour % 12;
  else if (half === 'pm') full = hour < 12 ? hour + 12 : hour;
  else if (hour >= 1 && hour <= 7 && !written.startsWith('0')) full = hour + 12;
  return (((full * 60 + minute) % 1440) + 1440) % 1440;
}

/** "at 1800", "0730 hours". */
const fourFigures = (words: readonly Word[], at: number): boolean =>
  /^(?:hours|hrs|h)$/.test(said(words, at + 1)) ||
  /^(?:at|by|around|about|until|from|before|after)$/.test(said(words, at - 1));

interface Clock {
  hour: number;
  minute: number;
  next: number;
  /** Whether the words can only be a time. */
  sure: boolean;
}

const BEFORE_TIME = /^(?:at|around|about|by|from|until|till|til|to|before|after|between|for|say|circa|past)$/;
const MAY_FOLLOW =
  /^(?:on|in|at|and|or|to|till|until|til|through|tomorrow|today|tonight|please|pls|if|would|then|when|ish|this|next|sharp|prompt|onwards|monday|tuesday|wednesday|thursday|friday|saturday|sunday|because|but|so|is|will|for|as|ok|okay|thanks|i|we|the|with|sat|sun|each|every|latest)$/;

function clockAt(words: readonly Word[], at: number): Clock | null {
  const first = said(words, at);
  if (first === 'half') {
    const place = said(words, at + 1) === 'past' ? at + 2 : at + 1;
    const hour = hourAt(words, place);
    return hour === null || hour < 1 ? null : { hour, minute: 30, next: place + 1, sure: true };
  }
  const few = minutesBeside(words, at);
  if (few) return few;
  const dotted = /^(\d{1,2})\.([0-5]\d)$/.exec(first);
  if (dotted && Number(dotted[1]) < 24) {
    const after = halfAt(words, at + 1).half !== null;
    const sure = after || BEFORE_TIME.test(said(words, at - 1));
    return { hour: Number(dotted[1]), minute: Number(dotted[2]), next: at + 1, sure };
  }
  const hour = hourAt(words, at);
  if (hour === null)
    return /^([01]\d|2[0-3])[0-5]\d$/.test(first) && fourFigures(words, at)
      ? {
          hour: Number(first.slice(0, 2)),
          minute: Number(first.slice(2)),
          next: /^(?:hours|hrs|h)$/.test(said(words, at + 1)) ? at + 2 : at + 1,
          sure: true,
        }
      : null;
  const second = words[at + 1];
  if (second?.glued && second.said === 'h' && /^[0-5]\d$/.test(said(words, at + 2)) && words[at + 2]!.glued)
    return { hour, minute: Number(said(words, at + 2)), next: at + 3, sure: true };
  if (second?.gap === ':' && /^[0-5]\d$/.test(second.said))
    return { hour, minute: Number(second.said), next: at + 2, sure: true };
  if (second && joined(second) && second.said === 'oclock') return { hour, minute: 0, next: at + 2, sure: true };
  if (second && joined(second) && second.said === 'o' && said(words, at + 2) === 'clock')
    return { hour, minute: 0, next: at + 3, sure: true };
  if (second?.said === 'ish' && (second.glued || second.gap === '-'))
    return { hour, minute: 0, next: at + 2, sure: true };
  const minutes = second && joined(second) && !second.glued && !/^\d/.test(first) ? minutesAt(words, at + 1) : null;
  if (minutes && hour >= 1 && hour <= 12)
    return {
      hour,
      minute: minutes.value,
      next: minutes.next,
      sure:
        halfAt(words, minutes.next).half !== null ||
        BEFORE_TIME.test(said(words, at - 1)) ||
        words.length === minutes.next,
    };
  return { hour, minute: 0, next: at + 1, sure: false };
}

/** "ten past two", "a quarter to nine", "twenty-five minutes to six", "quarter after nine". */
function minutesBeside(words: readonly Word[], at: number): Clock | null {
  const from = said(words, at) === 'a' ? at + 1 : at;
  const quarter = said(words, from) === 'quarter';
  const unit = UNITS.get(said(words, from));
  const figure = /^\d{1,2}$/.test(said(words, from)) ? Number(said(words, from)) : undefined;
  const minutes = quarter
    ? { value: 15, next: from + 1 }
    : (minutesAt(words, from) ??
      (unit !== undefined || figure !== undefined ? { value: (unit ?? figure)!, next: from + 1 } : null));
  if (!minutes || minutes.value > 59) return null;
  let place = minutes.next;
  const counted = /^(?:minutes?|mins?)$/.test(said(words, place));
  if (counted) place++;
  const link = said(words, place);
  const past = link === 'past' || link === 'after';
  const to = link === 'to' || link === 'before' || (link === 'of' && quarter);
  if (!past && !to) return null;
  const round = quarter || counted || (minutes.value % 5 === 0 && minutes.value > 0);
  const hour = hourAt(words, place + 1);
  if (!round || hour === null || hour < 1 || hour > 12 || !joined(words[place + 1])) return null;
  if (
    (link === 'after' || link === 'before' || link === 'to') &&
    !quarter &&
    !counted &&
    /^\d/.test(said(words, place + 1)) &&
    /^\d/.test(said(words, from))
  )
    return null;
  if (link === 'to' && !quarter && !counted && said(words, at - 1) === 'from') return null;
  return { hour, minute: past ? minutes.value : -minutes.value, next: place + 2, sure: true };
}

const FIXED: ReadonlyMap<string, number> = new Map([
  ['noon', 12 * 60],
  ['midday', 12 * 60],
  ['midnight', 0],
]);

/** A point in time by the clock. @param bare whether a figure alone will do, as between "from" and "to" */
function readPoint(words: readonly Word[], at: number, { bare }: { bare: boolean }): TimeRead | null {
  const from = said(words, at) === '12' || said(words, at) === 'twelve' ? at + 1 : at;
  const fixed =
    FIXED.get(said(words, at).replace(/ish$/, '')) ?? (from > at ? FIXED.get(said(words, from)) : undefined);
  if (fixed !== undefined) {
    const next = from === at || FIXED.has(said(words, at)) ? at + 1 : from + 1;
    return { from: fixed, to: fixed, next, certain: true, partOfDay: false };
  }
  const clock = clockAt(words, at);
  if (!clock) return null;
  const ish = words[clock.next]?.said === 'ish' ? clock.next + 1 : clock.next;
  const { half, next } = halfAt(words, ish);
  if (half !== null && clock.hour > 12 && half === 'am') return null;
  const alone = !clock.sure && half === null;
  if (alone && !bare) {
    const marked = /^(?:at|around|about|by|before|after|until|till|til)$/.test(said(words, at - 1));
    const after = words[clock.next];
    const free = !after || !joined(after) || after.gap === ',' || MAY_FOLLOW.test(after.said);
    if (!marked || !free || clock.hour === 0 || (/^\d/.test(said(words, at)) && after?.glued)) return null;
  }
  const minutes = inDay(clock.hour, clock.minute, half, said(words, at));
  return {
    from: minutes,
    to: minutes,
    next: Math.max(next, ish),
    certain: half !== null || clock.hour > 12,
    partOfDay: false,
  };
}

const dash = (word: Word | undefined): boolean => word !== undefined && /^[-–—]$/.test(word.gap);

/** "between 2 and 4", "from nine to five", "2-4pm", "10am until noon". */
function readTimeRange(words: readonly Word[], at: number): TimeRead | null {
  const opening = /^(?:between|from)$/.test(said(words, at)) ? at + 1 : at;
  const first = readPoint(words, opening, { bare: true });
  if (!first) return null;
  const link = first.next;
  const between = said(words, at) === 'between';
  const linked = dash(words[link])
    ? link
    : /^(?:to|until|till|til|through)$/.test(said(words, link)) || (between && said(words, link) === 'and')
      ? link + 1
      : -1;
  if (linked < 0) return null;
  const second = readPoint(words, linked, { bare: true });
  if (!second) return null;
  const sure =
    opening > at ||
    first.certain ||
    second.certain ||
    readPoint(words, opening, { bare: false }) !== null ||
    readPoint(words, linked, { bare: false }) !== null;
  if (!sure) return null;
  // Between "between" and "and" may stand any two figures; followed by a thing they are no times.
  const after = words[second.next];
  const plain =
    readPoint(words, opening, { bare: false }) === null && readPoint(words, linked, { bare: false }) === null;
  if (plain && after && joined(after) && !MAY_FOLLOW.test(after.said)) return null;
  let from = first.from;
  if (!first.certain && second.certain && second.from >= 12 * 60 && from < 12 * 60 && from + 12 * 60 < second.from)
    from += 12 * 60;
  if (!first.certain && second.certain && second.from < 12 * 60 && from >= 12 * 60) from -= 12 * 60;
  let to = second.from;
  const ends = [
    { at: opening, next: first.next, time: from },
    { at: linked, next: second.next, time: to },
  ];
  if (to <= from && !second.certain) to += 12 * 60;
  // "Ten to twelve in the morning" ends at noon.
  if (to === 0 && from < 12 * 60) to = 12 * 60;
  return { from, to: to % 1440, next: second.next, certain: true, partOfDay: false, ends };
}

/** "in the morning", "mornings only", "any evening", "this afternoon", "lunchtime"; never a greeting. */
function readPartOfDay(words: readonly Word[], at: number): TimeRead | null {
  if (said(words, at) === 'first' && said(words, at + 1) === 'thing') return firstThing(words, at);
  let place = at;
  if (/^(?:in|during|at|over)$/.test(said(words, place))) place++;
  if (/^(?:the|this|any|every|each|an|some|my)$/.test(said(words, place))) place++;
  const early = said(words, place) === 'early';
  const late = said(words, place) === 'late';
  if (early || late) place++;
  const word = said(words, place);
  const part = periodOf(word);
  if (!part || (place > at && !joined(words[place]))) return null;
  const before = said(words, at - 1);
  if (/^(?:good|hi|hello|last|per|a|one|first)$/.test(before) && place === at) return null;
  const plural = word.endsWith('s');
  const only = said(words, place + 1) === 'only';
  const dated =
    /^(?:today|tomorrow|yesterday|monday|tuesday|wednesday|thursday|friday|saturday|sunday|weekday|weekend|sat|sun)$/.test(
      before,
    ) || /^\d|^(?:st|nd|rd|th)$/.test(before);
  const clocked = /^(?:at|around|about)$/.test(said(words, place + 1)) && hourAt(words, place + 2) !== null;
  if (place === at && !plural && !only && !dated && !clocked && words.length > 1 && word !== 'lunchtime') return null;
  if (/^(?:lunch|night|nights)$/.test(word) && place === at && !only && !dated) return null;
  const [from, to] = part;
  const length = to - from;
  return {
    from: late ? from + length / 2 : from,
    to: early ? from + length / 2 : to,
    next: only ? place + 2 : place + 1,
    certain: true,
    partOfDay: true,
  };
}

/** "first thing", "first thing in the morning"; but not "the first thing I saw". */
function firstThing(words: readonly Word[], at: number): TimeRead | null {
  const after = words[at + 2];
  if (said(words, at - 1) === 'the' || (after && joined(after) && !MAY_FOLLOW.test(after.said))) return null;
  const { next } = halfAt(words, at + 2);
  return { from: 6 * 60, to: 9 * 60, next, certain: true, partOfDay: true };
}

/** The time that the words at a place name, the longest reading of them; `null` where they name none. */
export function readTime(words: readonly Word[], at: number): TimeRead | null {
  const readings = [readTimeRange(words, at), readPoint(words, at, { bare: false }), readPartOfDay(words, at)];
  return readings.reduce((best, reading) => (reading && reading.next > (best?.next ?? at) ? reading : best), null);
}
