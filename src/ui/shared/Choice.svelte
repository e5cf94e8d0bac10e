<script lang="ts">
  import { Select, SelectItem } from 'carbon-components-svelte';
  import { optionsWithText, type Option } from './options.js';

  /** A choice of one from a few, kept as soon as it is made. One that was refused goes back to what is kept. */
  const {
    value,
    options,
    label,
    showLabel = false,
    keep,
  }: {
    value: string;
    options: readonly Option[];
    label: string;
    showLabel?: boolean;
    /** @returns `false`, or a promise of it, if the choice was refused */
    keep: (value: string) => unknown;
  } = $props();

  /** What is chosen, until it is kept or refused. */
  let chosen = $derived(value);

  async function changed(event: Event) {
    const done = await keep((event.target as HTMLSelectElement).value);
    if (done === false) chosen = value;
  }
</script>

<div class="choice" class:labelled={showLabel}>
  <Select labelText={label} hideLabel={!showLabel} size="sm" bind:selected={chosen} on:change={changed}>
    {#each optionsWithText(options) as option (option.value)}<SelectItem {...option} />{/each}
  </Select>
</div>
