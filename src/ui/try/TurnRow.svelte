<script lang="ts">
  import { heldOf } from '$core/text/named.js';
  import type { StoredTurn } from '$core/contract/try.js';
  import { sameValue, showValue } from '$core/recognise/value.js';
  import { decisionInWords } from '../probe/decision.js';
  import { share } from '../shared/format.js';
  import Gloss from '../shared/Gloss.svelte';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import Explanation from '../shared/Explanation.svelte';
  import { actInWords } from './actInWords.js';
  import Term from '../shared/Term.svelte';
  import { TERMS } from '../shared/terms.js';
  import Says from './Says.svelte';
  import Act from '../shared/Act.svelte';

  /** A turn in three columns: said, read as, holds. */
  const {
    botId,
    turn,
    last,
    back,
    choose,
  }: { botId: number; turn: StoredTurn; last: boolean; back: () => void; choose: (intent: string) => void } = $props();

  let why = $state(false);
  const recognition = $derived(turn.trace.recognition);
  const held = $derived(Object.entries(turn.trace.after));
  const acts = $derived(turn.acts.flatMap((act) => actInWords(act) ?? []));
  const said = $derived(
    turn.said.type === 'text'
      ? turn.said.text
      : turn.said.type === 'choice'
        ? `(chose ${turn.said.intent})`
        : turn.said.type === 'handBack'
          ? '(the desk handed back)'
          : '(said nothing)',
  );
</script>

<tr data-turn={turn.position}>
  <td>
    <p class="customer said"><span class="unseen">Customer: </span>{said}</p>
    <Says says={turn.says} live={last} {choose} />
    <span class="back"><Act onclick={back} title="Take this turn back and change it">Go back here</Act></span>
  </td>
  <td class="read">
    <p class="what">
      <span class="reader">{turn.trace.reader}</span>
      {turn.trace.why}
    </p>
    {#if recognition}
      {#if recognition.slots.length > 0}
        <p>
          <Gloss
            text={recognition.text}
            spans={recognition.slots.map(({ start, end, slot, value }) => ({
              start,
              end,
              label: slot,
              title: showValue(value),
            }))}
          />
        </p>
      {/if}
      <p class="soft ranking">
        <OutcomeMark decision={recognition.decision} />
        <span class="unseen">{decisionInWords(recognition)};</span>
        {#each recognition.ranking.slice(0, 3) as item (item.intent)}
          <span>{item.intent} <span class="figure">{share(item.confidence)}</span></span>
        {/each}
      </p>
    {/if}
    <p class="soft small">
      <Term means={TERMS.model}>model</Term> <span class="figure revision">{turn.revision}</span>
      {#if turn.said.type === 'text'}
        <Act aria-expanded={why} onclick={() => (why = !why)}>Why</Act>
      {/if}
    </p>
    {#if why && turn.said.type === 'text'}<Explanation {botId} text={turn.said.text} />{/if}
  </td>
  <td>
    <dl>
      {#each held as [slot, value] (slot)}
        {@const before = heldOf(turn.trace.before, slot)}
        <div class:fresh={!sameValue(before, value)}>
          <dt>{slot}</dt>
          <dd class="figure">
            {#if before !== undefined && !sameValue(before, value)}<s>{showValue(before)}</s>{/if}
            {showValue(value)}
          </dd>
        </div>
      {/each}
    </dl>
    {#each acts as act, index (index)}<p class="act">{act}</p>{/each}
  </td>
</tr>

<style>
  .revision {
    white-space: nowrap;
  }

  td {
    padding: 0.4rem 0.75rem;
  }

  .back {
    margin-left: -0.45rem;
  }

  .said {
    font-size: 1rem;
  }

  .read p {
    padding-bottom: 0.2rem;
  }

  .what {
    font-weight: 600;
  }

  .reader {
    font-size: 0.75rem;
    font-weight: 400;
    color: var(--ink-soft);
    border: 1px solid var(--line-strong);
    border-radius: 2px;
    padding: 0 0.25rem;
  }

  .ranking,
  .small {
    font-size: 0.75rem;
  }

  .ranking span {
    margin-right: 0.6rem;
    display: inline-block;
  }

  dl div {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
  }

  dt {
    color: var(--ink-soft);
    min-width: 5rem;
  }

  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }

  .fresh dd {
    color: var(--reed);
    font-weight: 600;
  }

  s {
    color: var(--ink-soft);
    font-weight: 400;
  }

  .act {
    padding-top: 0.25rem;
    font-weight: 600;
  }
</style>
