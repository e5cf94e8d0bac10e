import type { Act } from '$core/converse/state.js';

/** What the bot did, for the record; `null` for what the slots show already. */
export function actInWords(act: Act): string | null {
  switch (act.act) {
    case 'openForm':
      return `opens ${act.form}`;
    case 'resumeForm':
      return `comes back to ${act.form}`;
    case 'complete':
      return `completes ${act.form} (${act.reference})`;
    case 'cancel':
      return act.form === null ? 'starts over' : `leaves ${act.form}`;
    case 'handOver':
      return `hands over to ${act.desk}`;
    case 'handBack':
      return `comes back from ${act.desk}`;
    case 'setSlot':
    case 'clearSlot':
      return null;
  }
}
