<script lang="ts">
  import type { Fault } from '$core/shape/fault.js';
  import { InlineNotification } from 'carbon-components-svelte';
  import { counted } from './format.js';

  /** Shows everything that is wrong with a file, each fault with its place. */
  const { message, faults, close }: { message: string; faults: Fault[]; close: () => void } = $props();
</script>

<section class="faults" role="alert">
  <InlineNotification
    kind="error"
    lowContrast
    role="status"
    subtitle={message}
    closeButtonDescription="Close"
    on:close={close}
  />
  {#if faults.length > 0}
    <p class="soft">{counted(faults.length, 'fault')} shown:</p>
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
    border-left-width: 3px;
    background: var(--none-wash);
    margin: 0.75rem 0;
  }

  .faults :global(.bx--inline-notification.bx--inline-notification) {
    margin: 0;
    border-left: 0;
  }

  p,
  li {
    padding: 0.15rem 0.75rem;
  }

  ul {
    max-height: 16rem;
    overflow-y: auto;
    margin-top: 0.25rem;
  }

  .figure {
    margin-right: 0.5rem;
  }
</style>
