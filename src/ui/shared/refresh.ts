import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/** Loads what the screen shows anew. A person on the way to another screen gets there first. */
export async function refresh(): Promise<void> {
  if (navigating.complete) await navigating.complete.catch(() => undefined);
  await invalidateAll();
}
