<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A choice edited in place. One that was refused goes back to what is kept. */
  const {
    value,
    label,
    keep,
    children,
  }: {
    value: string;
    /** The name for assistive technology where no label stands around it. */
    label?: string;
    /** @returns `false`, or a promise of it, if the choice was refused */
    keep: (value: string) => unknown;
    /** The options. */
    children: Snippet;
  } = $props();

  let element: HTMLSelectElement;

  async function changed() {
    const done = await keep(element.value);
    if (done === false) element.value = value;
  }
</script>

<select bind:this={element} class="cell" {value} aria-label={label} onchange={changed}>{@render children()}</select>
