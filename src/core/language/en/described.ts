const CUSTOMER = /^(?:the|a|an)\s+(?:customer|caller|user|person|visitor|client|guest|resident|member|patient)\s+/iu;
/** How a description in the third person begins, and what the customer would say. */
const SAID: readonly (readonly [RegExp, string])[] = [
  [/^(?:wants|wishes|needs|intends|is trying|tries) to\s+/iu, 'I want to '],
  [/^would like to\s+/iu, 'I would like to '],
  [/^(?:asks|is asking) for\s+/iu, 'I want '],
  [/^(?:asks|is asking) to\s+/iu, 'I want to '],
  [/^(?:asks|wonders|enquires|is asking)\s+/iu, 'I want to know '],
  [/^has\s+/iu, 'I have '],
  [/^is\s+/iu, 'I am '],
];

/** "places" → "place", "tries" → "try", "wishes" → "wish". */
function plainVerb(verb: string): string {
  if (/ies$/u.test(verb)) return verb.replace(/ies$/u, 'y');
  return /(?:sh|ch|x|ss|o)es$/u.test(verb) ? verb.slice(0, -2) : verb.replace(/s$/u, '');
}

/**
 * What a customer would say of whom a description of an intent tells: "The customer places a new order" is
 * "I want to place a new order". A description of another shape stays as it is.
 */
export function asSaid(description: string): string {
  const told = CUSTOMER.exec(description);
  if (!told) return description;
  const rest = description.slice(told[0].length);
  for (const [pattern, said] of SAID) if (pattern.test(rest)) return rest.replace(pattern, said);
  const verb = /^\p{Ll}+s(?=\s)/u.exec(rest);
  return verb ? `I want to ${plainVerb(verb[0])}${rest.slice(verb[0].length)}` : rest;
}
