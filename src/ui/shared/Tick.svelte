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

  /** Whether it is set, until it is kept or refused. */
  let set = $derived(checked);

  async function changed(event: Event) {
    if ((await keep((event.target as HTMLInputElement).checked)) === false) set = checked;
  }
</script>

<Checkbox bind:checked={set} labelText={label} {hideLabel} {tabindex} on:change={changed} />
