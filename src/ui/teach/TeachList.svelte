<script lang="ts">
  import type { TeachView } from '$core/contract/teach.js';
  import Bar from '../shared/Bar.svelte';
  import { percent } from '../shared/format.js';

  const { botId, view, create }: { botId: number; view: TeachView; create: () => void } = $props();

  /** Below this held-out recall an intent needs work. */
  const POOR = 0.6;
</script>

<div class="head">
  <h2>Intents <span class="soft figure">{view.intents.length}</span></h2>
  <button class="quiet firm" onclick={create}>New</button>
</div>
<nav aria-label="Intents">
  {#each view.intents as intent (intent.name)}
    <a
      class="entry"
      href="/bots/{botId}/teach?intent={encodeURIComponent(intent.name)}"
      aria-current={intent.name === view.current?.name ? 'true' : undefined}
      title="{intent.utterances} utterances, {percent(intent.recall)} recognised when held out"
    >
      <span class="name">{intent.name}</span>
      <span class="figure soft">{intent.utterances}</span>
      <span class="short"
        ><Bar value={intent.recall} tone={intent.recall !== null && intent.recall < POOR ? 'none' : 'reed'} /></span
      >
      <span class="unseen">{percent(intent.recall)} recognised when held out</span>
    </a>
  {/each}
</nav>
{#if view.heldOut}
  {@const { share, low, high } = view.heldOut}
  <details class="about">
    <summary>Held out {percent(share)} <span class="soft interval">({percent(low)} to {percent(high)})</span></summary>
    <p class="soft">
      Each utterance is read by a model that was not taught it, nor one of the same words. Utterances are written to
      differ from each other, so this lies below what customers’ messages get: compare it with itself, and ask Prove how
      good the bot is. With so few utterances it may lie anywhere between the two bounds.
    </p>
  </details>
{/if}
<div class="head entities"><a href="/bots/{botId}/teach/entities">Entities and values</a></div>

<style>
  .short :global(.bar) {
    width: 1.6rem;
  }

  .about {
    padding: 0.6rem 0.75rem 0;
    font-size: 0.8125rem;
  }

  .about summary {
    cursor: pointer;
  }

  .interval {
    white-space: nowrap;
  }

  .entities {
    margin-top: 0.75rem;
    padding-top: 0.6rem;
    border-top: 1px solid var(--line);
  }
</style>
