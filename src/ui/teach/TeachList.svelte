<script lang="ts">
  import type { TeachView } from '$core/contract/teach.js';
  import Bar from '../shared/Bar.svelte';
  import { percent } from '../shared/format.js';
  import ListHead from '../shared/ListHead.svelte';
  import Term from '../shared/Term.svelte';
  import { TERMS } from '../shared/terms.js';

  let {
    botId,
    view,
    naming = $bindable(),
    create,
  }: {
    botId: number;
    view: TeachView;
    /** Whether a new intent is being named. */
    naming: boolean;
    create: (name: string) => Promise<boolean>;
  } = $props();

  /** Below this held-out recall an intent needs work. */
  const POOR = 0.6;
</script>

<ListHead
  heading="Intents"
  count={view.intents.length}
  kind="intent"
  placeholder="What the customer wants"
  bind:naming
  {create}
/>
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
  <p class="about">
    <Term means={TERMS.heldOut}>Held out</Term>
    {percent(share)} <span class="soft interval">({percent(low)} to {percent(high)})</span>
  </p>
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

  .interval {
    white-space: nowrap;
  }

  .entities {
    margin-top: 0.75rem;
    padding-top: 0.6rem;
    border-top: 1px solid var(--line);
  }
</style>
