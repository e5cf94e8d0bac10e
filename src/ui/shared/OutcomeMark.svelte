<script lang="ts">
  import type { Decision } from '$core/recognise/gate.js';

  /** Accepted, asked about, not matched: each by its shape as well as its colour. */
  const { decision, label }: { decision: Decision; label?: string } = $props();

  const words: Record<Decision, string> = { accept: 'accepted', ask: 'asked about', none: 'not matched' };
</script>

<svg viewBox="0 0 12 12" width="12" height="12" class={decision} role="img" aria-label={label ?? words[decision]}>
  <title>{label ?? words[decision]}</title>
  {#if decision === 'accept'}
    <circle cx="6" cy="6" r="5" fill="currentColor" />
  {:else if decision === 'ask'}
    <circle cx="6" cy="6" r="4.5" fill="none" stroke="currentColor" stroke-width="1.2" />
    <path d="M6 1.5a4.5 4.5 0 0 0 0 9z" fill="currentColor" />
  {:else}
    <circle cx="6" cy="6" r="4.4" fill="none" stroke="currentColor" stroke-width="1.5" />
  {/if}
</svg>

<style>
  svg {
    flex: none;
    vertical-align: -1px;
  }

  .accept {
    color: var(--accepted);
  }

  .ask {
    color: var(--asked);
  }

  .none {
    color: var(--none);
  }
</style>
