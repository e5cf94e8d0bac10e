<script lang="ts">
  import type { TryView } from '$core/contract/try.js';
  import type { Fault } from '$core/shape/fault.js';
  import { tell } from '../shared/acts.js';
  import { ApiError, send, sendFile } from '../shared/api.js';
  import FaultList from '../shared/FaultList.svelte';
  import FileButton from '../shared/FileButton.svelte';
  import JobProgress from '../shared/JobProgress.svelte';
  import { live, refresh } from '../shared/live.svelte.js';
  import Act from '../shared/Act.svelte';

  /** Walkthroughs with what they came to when the model was last taught. */
  const { botId, walkthroughs }: { botId: number; walkthroughs: TryView['walkthroughs'] } = $props();

  const running = $derived(live.jobs.find(({ kind, state }) => kind === 'walkthroughs' && state === 'running'));

  let refused = $state<{ message: string; faults: Fault[] } | null>(null);

  async function bringIn(file: File) {
    refused = null;
    try {
      await sendFile(`/api/bots/${botId}/walkthroughs`, file);
      live.expectChange();
      await refresh();
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      refused = { message: `${file.name}: ${error.message}`, faults: error.faults };
    }
  }

  async function remove(id: number) {
    try {
      await send('DELETE', `/api/bots/${botId}/walkthroughs/${id}`);
      live.expectChange();
      await refresh();
    } catch (error) {
      tell(error);
    }
  }
</script>

<div class="head">
  <h2>Walkthroughs</h2>
  <FileButton label="Import" accept={['.json']} choose={bringIn} firm />
</div>
{#if refused}<FaultList {...refused} close={() => (refused = null)} />{/if}
{#if running}<JobProgress job={running} label="Running the walkthroughs" unit="run" stopped="Stopped." />{/if}
{#if walkthroughs.length === 0}
  <p class="soft">None yet. Keep a conversation that went right, and it is run again after each change.</p>
{/if}
<ul>
  {#each walkthroughs as { id, name, result } (id)}
    <li>
      <details>
        <summary>
          <span class={result?.passed ? 'passed' : 'failed'}>{result === null ? '…' : result.passed ? '✓' : '✕'}</span>
          <span class="unseen">{result === null ? 'not run yet' : result.passed ? 'passes' : 'fails'}:</span>
          {name}
        </summary>
        {#if result}
          {#each result.faults as fault, index (index)}<p class="failed">{fault}</p>{/each}
          <ol>
            {#each result.transcript as line, index (index)}
              <li class={line.from} class:customer={line.from === 'user'}>{line.text}</li>
            {/each}
          </ol>
        {/if}
        <Act icon="delete" look="grave" label="Delete the walkthrough {name}" onclick={() => remove(id)} />
      </details>
    </li>
  {/each}
</ul>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }

  summary {
    cursor: pointer;
    padding: 0.25rem 0;
  }

  .passed {
    color: var(--accepted);
  }

  .failed {
    color: var(--none);
  }

  ol .user {
    padding: 0.15rem 0 0.15rem 1rem;
    font-style: italic;
  }

  ol .bot {
    color: var(--ink-soft);
  }
</style>
