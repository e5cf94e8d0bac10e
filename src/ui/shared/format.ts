/** A share as a whole percentage, or a dash where there is none. */
export const percent = (share: number | null | undefined): string =>
  share === null || share === undefined ? '–' : `${Math.round(share * 100)} %`;

/** A share as it stands in a sheet: `.97`, `1.00`. */
export const share = (value: number | null | undefined): string =>
  value === null || value === undefined ? '–' : value >= 0.995 ? '1.00' : value.toFixed(2).slice(1);

/** A number of two decimals, with the sign that is printed for less than nothing. */
export const decimals = (value: number): string => value.toFixed(2).replace('-', '−');

/** A count with its noun. */
export const counted = (number: number, one: string, many = `${one}s`): string =>
  `${number.toLocaleString('en-GB')} ${number === 1 ? one : many}`;

/** When something was, in the reader's own time. */
export const moment = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
