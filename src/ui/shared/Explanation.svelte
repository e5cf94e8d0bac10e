<script lang="ts">
  import type { Explanation, NearUtterance } from '$core/recognise/explain.js';
  import { showValue } from '$core/recognise/value.js';
  import Act from './Act.svelte';
  import { edit } from './acts.js';
  import { send } from './api.js';
  import { share } from './format.js';
  import Term from './Term.svelte';
  import { TERMS } from './terms.js';

  /** Why a message is read as it is, asked of the model that answers now. */
  const {
    botId,
    text,
    expected = null,
  }: {
    botId: number;
    text: string;
    /** The intent that it is of, where that is known: utterances of others that are like it may be moved there. */
    expected?: string | null;
  } = $props();

  /** Log-odds below which a word hardly matters. */
  const LEAST = 0.15;
  const MOST_WORDS = 6;

  const explanation = $derived(send<Explanation>('POST', `/api/bots/${botId}/explain`, { text }));

  const move = ({ utterance, marked }: NearUtterance) =>
    void edit(
      botId,
      { do: 'moveUtterances', rows: [{ id: utterance, was: marked }], to: expected! },
      `Moved to ${expected}; the next run tells what that does.`,
    );

  const byWeight = ({ words }: Explanation, sign: 1 | -1) =>
    words
      .filter(({ weight }) => sign * weight >= LEAST)
      .sort((a, b) => sign * (b.weight - a.weight))
      .slice(0, MOST_WORDS);
  const figure = (weight: number) => `${weight > 0 ? '+' : '−'}${Math.abs(weight).toFixed(1)}`;
</script>

<!-- What scrolls must be reachable by keys. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="why" role="region" aria-label="Why it was read so" tabindex="0">
  {#await explanation}
    <p class="soft">Leaving each word out in turn …</p>
  {:then found}
    {@const { recognition } = found}
    {@const best = recognition.ranking[0]}
    <dl>
      {#if best}
        <dt>For {best.intent}</dt>
        <dd>
          {#each byWeight(found, 1) as word (word.start)}
            <span class="word"
              ><span class="customer">{word.text}</span> <span class="figure">{figure(word.weight)}</span></span
            >
          {:else}<span class="soft">no word alone: it is the whole that counts</span>{/each}
        </dd>
        <dt>Against it</dt>
        <dd>
          {#each byWeight(found, -1) as word (word.start)}
            <span class="word"
              ><span class="customer">{word.text}</span> <span class="figure">{figure(word.weight)}</span></span
            >
          {:else}<span class="soft">no word</span>{/each}
        </dd>
      {/if}
      <dt>Nearest utterances</dt>
      <dd>
        {#each found.nearest as near (near.intent + String(near.utterance))}
          <p>
            <span class="figure">{share(near.similarity)}</span> <span class="customer">{near.text}</span>
            <span class="soft">{near.intent}</span>
            {#if expected !== null && near.intent !== expected}
              <Act label="Move “{near.text}” to {expected}" onclick={() => move(near)}>Move to {expected}</Act>
            {/if}
          </p>
        {:else}<span class="soft">there is none</span>{/each}
      </dd>
      {#if recognition.mendings.length > 0}
        <dt>Spelling help</dt>
        <dd>
          {#each recognition.mendings as mending (mending.start)}
            <span class="word"
              ><span class="customer">{mending.text}</span> read as <span class="customer">{mending.to}</span></span
            >
          {/each}
        </dd>
      {/if}
      {#if recognition.slots.length > 0}
        <dt>Slots taken</dt>
        <dd>
          {#each recognition.slots as slot (`${slot.slot} ${String(slot.start)}`)}
            <p>
              <span class="customer">{slot.text}</span> is {slot.slot}
              <span class="figure">{showValue(slot.value)}</span>: {slot.why}
            </p>
          {/each}
        </dd>
      {/if}
      {#if recognition.passedOver.length > 0}
        <dt>Values not taken</dt>
        <dd>
          {#each recognition.passedOver as value, index (index)}
            <p><span class="customer">{value.text}</span> as {value.entity}: {value.why}</p>
          {/each}
        </dd>
      {/if}
    </dl>
    <p class="soft">
      A figure tells by how much the <Term means={TERMS.logOdds}>log-odds</Term> of the intent fall when the word is left
      out; nearness runs from 0 to 1.
    </p>
  {:catch error}
    <p class="refused">{error instanceof Error ? error.message : 'The explanation could not be made.'}</p>
  {/await}
</div>

<style>
  .why {
    font-size: 0.8125rem;
    padding: 0.4rem 0;
  }

  dl {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 0.25rem 1rem;
  }

  dt {
    color: var(--ink-soft);
  }

  dd {
    margin: 0;
  }

  .word {
    display: inline-block;
    margin-right: 1rem;
  }

  .refused {
    color: var(--none);
  }
</style>
