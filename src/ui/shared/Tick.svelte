<script lang="ts">
  import { Checkbox } from 'carbon-components-svelte';

  /** A tick, kept as soon as it is set. One that was refused goes back to what is kept. */
  const {
    checked,
    label,
    hideLabel = false,
    tabindex,
    keep,
  }: {
    checked: boolean;
    label: string;
    hideLabel?: boolean;
    tabindex?: number;
    /** @returns `false`, or a promise of it, if it was refused */
    keep: (checked: boolean) => unknown;
  } = $props();

  async function changed(event: Event) {
    const box = event.target as HTMLInputElement;
    if ((await keep(box.checked)) === false) box.checked = checked;
  }
</script>

<Checkbox {checked} labelText={label} {hideLabel} {tabindex} on:change={changed} />
