import { joined, type Word } from '../word.js';
import { readCount, readFractionOf } from './numbers.js';

/** Units of measure by every way they are written, singular. */
const UNITS: ReadonlyMap<string, string> = new Map(
  `mm:mm millimetre:mm millimeter:mm cm:cm centimetre:cm centimeter:cm m:m metre:m meter:m km:km kilometre:km kilometer:km
  inch:in in:in inche:in foot:ft feet:ft ft:ft yard:yd yd:yd mile:mi
  mg:mg g:g gram:g gramme:g kg:kg kilo:kg kilogram:kg kilogramme:kg tonne:t ton:t oz:oz ounce:oz lb:lb lbs:lb stone:st
  ml:ml millilitre:ml milliliter:ml cl:cl l:l litre:l liter:l pint:pt gallon:gal
  gsm:gsm watt:W w:W kw:kW volt:V v:V gb:GB mb:MB`
    .split(/\s+/)
    .map((entry) => entry.split(':') as [string, string]),
);
/** Short forms that are words or letters of their own, and count only where they are glued to the figure. */
const GLUED_ONLY = /^(?:m|g|l|in|w|v|st|t)$/;

function unitAt(words: readonly Word[], at: number): { unit: string; next: number } | null {
  const word = words[at];
  if (!word || (!joined(word) && !word.glued)) return null;
  const square = /^(?:square|cubic|sq)$/.test(word.said) ? word.said : '';
  const place = square === '' ? at : at + 1;
  const name = words[place]?.said ?? '';
  const unit = UNITS.get(name) ?? (name.endsWith('s') ? UNITS.get(name.slice(0, -1)) : undefined);
  if (unit === undefined || (GLUED_ONLY.test(name) && !words[place]!.glued)) return null;
  return { unit: square === '' ? unit : square === 'cubic' ? `${unit}³` : `${unit}²`, next: place + 1 };
}

/** An amount with its unit, as text: "two and a half kilos" is "2.5 kg". */
export function readQuantity(words: readonly Word[], at: number): { value: string; next: number } | null {
  const article = /^an?$/.test(words[at]!.said) ? { value: 1, next: at + 1 } : null;
  const count = readFractionOf(words, at) ?? readCount(words, at) ?? article;
  const unit = count && unitAt(words, count.next);
  return unit && { value: `${count.value} ${unit.unit}`, next: unit.next };
}
