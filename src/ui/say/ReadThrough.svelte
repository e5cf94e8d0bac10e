<script lang="ts">
  import type { TranscriptLine } from '$core/converse/walkthrough.js';

  /** The conversation that the form gives as it stands, written out. */
  const { lines, stale, opened }: { lines: TranscriptLine[] | null; stale: boolean; opened: boolean } = $props();
</script>

<section aria-label="Read-through">
  <h2>Read-through</h2>
  {#if lines}
    {#if stale}<p class="soft">As before the last change; the model is catching up.</p>{/if}
    <ol>
      {#each lines as line, index (index)}
        <li class={line.from} class:customer={line.from === 'user'}>
          <span class="unseen">{line.from === 'user' ? 'Customer: ' : 'Bot: '}</span>{line.text}
        </li>
      {/each}
    </ol>
  {:else if opened}
    <p class="soft">The model is being trained; the conversation appears when it is.</p>
  {:else}
    <p class="soft">No intent opens this form yet, so there is no conversation to show.</p>
  {/if}
</section>

<style>
  section {
    margin-top: 1rem;
  }

  ol {
    margin-top: 0.35rem;
  }

  li {
    padding: 0.2rem 0;
  }

  .user {
    padding-left: 1.25rem;
    color: var(--ink);
    font-style: italic;
  }

  .bot {
    color: var(--ink-soft);
  }
</style>
