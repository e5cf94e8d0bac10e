<script lang="ts">
  import { Select, SelectItem } from 'carbon-components-svelte';

  /** A choice of one from a few, kept as soon as it is made. One that was refused goes back to what is kept. */
  const {
    value,
    options,
    label,
    showLabel = false,
    keep,
  }: {
    value: string;
    /** Names, or names with what is shown for them. */
    options: readonly (string | { value: string; text: string })[];
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
    {#each options as option (typeof option === 'string' ? option : option.value)}
      {#if typeof option === 'string'}
        <SelectItem value={option} text={option} />
      {:else}
        <SelectItem value={option.value} text={option.text} />
      {/if}
    {/each}
  </Select>
</div>
