<script lang="ts">
  import type { Fault } from '$core/shape/fault.js';
  import { counted } from './format.js';

  /** Shows everything that is wrong with a file, each fault with its place. */
  const { message, faults, close }: { message: string; faults: Fault[]; close: () => void } = $props();
</script>

<section class="faults" role="alert">
  <div class="head">
    <p>{message}</p>
    <button class="quiet" onclick={close}>Close</button>
  </div>
  {#if faults.length > 0}
    <p class="soft">{counted(faults.length, 'fault')}:</p>
    <ul>
      {#each faults as fault, index (index)}
        <li><span class="figure">{fault.path || 'file'}</span> {fault.message}</li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  .faults {
    border: 1px solid var(--none);
    border-left-width: 4px;
    background: var(--none-wash);
    padding: 0.75rem;
    margin: 0.75rem 0;
  }

  .head {
    display: flex;
    justify-content: space-between;
    align-items: start;
    gap: 1rem;
  }

  ul {
    max-height: 16rem;
    overflow-y: auto;
    margin-top: 0.25rem;
  }

  li {
    padding: 0.15rem 0;
  }

  .figure {
    margin-right: 0.5rem;
  }
</style>
