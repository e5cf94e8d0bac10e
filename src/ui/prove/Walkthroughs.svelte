<script lang="ts">
  import type { WalkthroughResult } from '$core/converse/walkthrough.js';

  /** What became of the walkthroughs, those that fail first. */
  const { botId, results }: { botId: number; results: WalkthroughResult[] | null } = $props();

  const inOrder = $derived([...(results ?? [])].sort((a, b) => Number(a.passed) - Number(b.passed)));
  const passed = $derived(inOrder.filter((result) => result.passed).length);
</script>

{#if results === null}
  <p class="soft">They have not run yet.</p>
{:else if results.length === 0}
  <p class="soft">
    None yet. <a href="/bots/{botId}/try">Keep a conversation in Try</a>, or one with a simulated customer.
  </p>
{:else}
  <p><strong>{passed}</strong> of {results.length} pass with the model as it is.</p>
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">walkthrough</th>
        <th scope="col">passes</th>
        <th scope="col">ends</th>
        <th scope="col" class="number">turns</th>
        <th scope="col">what is not as it must be</th>
      </tr>
    </thead>
    <tbody>
      {#each inOrder as { name, passed: whether, outcome, transcript, faults } (name)}
        <tr>
          <th scope="row">{name}</th>
          <td class={whether ? 'passed' : 'failed'}>{whether ? '✓ passes' : '✕ fails'}</td>
          <td>{outcome.replace('_', ' ')}</td>
          <td class="number">{transcript.filter(({ from }) => from === 'user').length}</td>
          <td>{faults.join('; ')}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}

<style>
  .failed {
    color: var(--none);
  }
</style>
