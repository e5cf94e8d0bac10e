<script lang="ts">
  /** Why lines that were written or pasted stayed where they were. */
  const { reasons }: { reasons: readonly string[] } = $props();
</script>

{#if reasons.length > 0}
  <div class="reasons" role="alert" aria-label="Lines that were not added">
    <ul>
      {#each reasons as reason, index (index)}<li>{reason}</li>{/each}
    </ul>
  </div>
{/if}

<style>
  .reasons {
    max-height: 6rem;
    overflow-y: auto;
    padding: 0.3rem 0.75rem;
    border-top: 1px solid var(--line);
    font-size: 0.8125rem;
    color: var(--none);
  }
</style>
