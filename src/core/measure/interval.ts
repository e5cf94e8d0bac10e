/** A share with the bounds between which it may well lie. */
export interface ShareInterval {
  share: number;
  low: number;
  high: number;
}

/** Standard deviations of 95 in 100. */
const Z = 1.959964;

/** The 95 % interval of a share by the score method (Wilson, 1927); `null` of none. */
export function shareInterval(part: number, whole: number): ShareInterval | null {
  if (whole === 0) return null;
  const share = part / whole;
  const spread = (Z * Math.sqrt((share * (1 - share)) / whole + Z ** 2 / (4 * whole ** 2))) / (1 + Z ** 2 / whole);
  const middle = (share + Z ** 2 / (2 * whole)) / (1 + Z ** 2 / whole);
  return { share, low: Math.max(0, middle - spread), high: Math.min(1, middle + spread) };
}
