<script lang="ts">
  import { moment } from './format.js';
  import Term from './Term.svelte';
  import { TERMS } from './terms.js';

  /** When something was read, by what the bot was then, and whether it has changed since. */
  const {
    word,
    at,
    revision,
    now,
  }: { word: string; at: string; revision: number; /** Of the bot as it is. */ now: number } = $props();
</script>

<span class="soft">
  {word}
  {moment(at)}, <Term means={TERMS.change}>change</Term>
  {revision}
  {#if revision !== now}<strong>· the bot has changed since</strong>{/if}
</span>

<style>
  strong {
    color: var(--asked);
    font-weight: 400;
  }
</style>
