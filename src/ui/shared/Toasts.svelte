<script lang="ts">
  import Close from 'carbon-icons-svelte/lib/Close.svelte';
  import { toasts } from './toasts.svelte.js';
</script>

<div class="toasts" role="status" aria-live="polite">
  {#each toasts.list as toast (toast.id)}
    <div class="toast {toast.kind}">
      <span>{toast.text}</span>
      {#if toast.action}
        <button
          class="quiet firm"
          onclick={() => {
            toast.action?.run();
            toasts.close(toast.id);
          }}>{toast.action.label}</button
        >
      {/if}
      <button class="quiet" aria-label="Close the message" onclick={() => toasts.close(toast.id)}><Close /></button>
    </div>
  {/each}
</div>

<style>
  .toasts {
    position: fixed;
    right: 1rem;
    top: 5rem;
    z-index: 50;
    display: grid;
    gap: 0.5rem;
    max-width: 28rem;
  }

  .toast {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    padding: 0.5rem 0.5rem 0.5rem 0.75rem;
    background: var(--paper-raised);
    border: 1px solid var(--line-strong);
    border-left: 4px solid var(--reed);
    box-shadow: 0 2px 8px rgb(0 0 0 / 15%);
  }

  .toast.error {
    border-left-color: var(--none);
  }

  .toast span {
    flex: 1;
  }
</style>
