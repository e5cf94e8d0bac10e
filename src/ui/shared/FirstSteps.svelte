<script lang="ts">
  import { page } from '$app/state';
  import Checkmark from 'carbon-components-svelte/src/icons/Checkmark.svelte';
  import type { BotFrame, FirstSteps } from '$core/contract/bot.js';

  /** What a new bot needs, in the order of the work; it goes when most is there. */
  const { botId }: { botId: number } = $props();

  /** With fewer open the steps are known. */
  const LEAST_OPEN = 2;

  const STEPS: { key: keyof FirstSteps; to: string; words: string; about: string }[] = [
    { key: 'intent', to: 'teach', words: 'An intent', about: 'what somebody wants, with five utterances or more' },
    { key: 'entity', to: 'teach/entities', words: 'An entity', about: 'a kind of value that people mention' },
    { key: 'form', to: 'say', words: 'A form', about: 'what the bot must know before it can act' },
    { key: 'tried', to: 'try', words: 'A try', about: 'talk to it as a customer would' },
    { key: 'test', to: 'prove', words: 'A test set', about: 'messages that it was not taught' },
  ];

  const { steps } = $derived((page.data as { frame: BotFrame }).frame);
  const open = $derived(STEPS.filter(({ key }) => !steps[key]));
</script>

{#if open.length >= LEAST_OPEN}
  <section aria-label="First steps">
    <h2>First steps</h2>
    <ol>
      {#each STEPS as { key, to, words, about } (key)}
        <li>
          <span class="mark"
            >{#if steps[key]}<Checkmark />{/if}</span
          >
          <span>
            {#if steps[key]}<span class="unseen">Done: </span>{words}{:else}<a href="/bots/{botId}/{to}">{words}</a
              >{/if}
            <span class="soft">{about}</span>
          </span>
        </li>
      {/each}
    </ol>
  </section>
{/if}

<style>
  section {
    margin-bottom: 1.25rem;
  }

  li {
    display: grid;
    grid-template-columns: 1.25rem 1fr;
    padding: 0.2rem 0;
  }

  .mark {
    color: var(--accepted);
  }

  .mark :global(svg) {
    fill: currentcolor;
    vertical-align: -2px;
  }

  li span span {
    display: block;
  }
</style>
