<script lang="ts">
  import { variants, withVariants } from '$core/bot/localised.js';
  import type { Localised } from '$core/bot/document.js';
  import Cell from '../shared/Cell.svelte';

  /** A text that the bot says: a line for each variant, kept when the field is left. */
  const {
    label,
    text,
    language,
    keep,
    placeholder = '',
    hideLabel = false,
  }: {
    label: string;
    text: Localised | undefined;
    language: string;
    /** @param text `null` where all was taken away */
    keep: (text: Localised | null) => unknown;
    placeholder?: string;
    hideLabel?: boolean;
  } = $props();

  const shown = $derived(variants(text, language).join('\n'));

  const changed = (value: string) => keep(value.trim() === '' ? null : withVariants(text, language, value.split('\n')));
</script>

<label class:alone={!hideLabel}>
  <span class={hideLabel ? 'unseen' : 'soft'}>{label}</span>
  <Cell value={shown} {placeholder} lines keep={changed} />
</label>

<style>
  label {
    display: block;
  }

  .alone {
    display: grid;
    grid-template-columns: 6.5rem 1fr;
    align-items: baseline;
    gap: 0.5rem;
  }

  .alone :global(textarea) {
    border-color: var(--line);
  }
</style>
