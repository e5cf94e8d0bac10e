<script lang="ts">
  import type { Say } from '$core/converse/state.js';
  import Act from '../shared/Act.svelte';

  /** What the bot said. Choices can be taken while the turn is the last one. */
  const { says, live, choose }: { says: Say[]; live: boolean; choose: (intent: string) => void } = $props();
</script>

{#each says as say, index (index)}
  <p>
    <span class="unseen">Bot: </span>{say.text}
    {#if say.choices && live}
      {#each say.choices as choice (choice.intent)}
        <Act look="firm" onclick={() => choose(choice.intent)}>{choice.label}</Act>
      {/each}
    {/if}
  </p>
{/each}

<style>
  p {
    padding: 0.15rem 0 0.15rem 1.25rem;
    color: var(--ink-soft);
  }
</style>
