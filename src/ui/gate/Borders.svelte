<script lang="ts">
  import type { GateMessage } from '$core/contract/gate.js';
  import type { GateFigures } from '$core/measure/gateFigures.js';
  import { decide, type Gate } from '$core/recognise/gate.js';
  import { share } from '../shared/format.js';
  import OutcomeMark from '../shared/OutcomeMark.svelte';

  /** The messages nearest to the two borders. */
  const { messages, figures, gate }: { messages: readonly GateMessage[]; figures: GateFigures; gate: Gate } = $props();

  const BORDERS = [
    { border: 'accept', title: 'Nearest to the accept level' },
    { border: 'ask', title: 'Nearest to the ask level' },
  ] as const;

  const shown = (places: readonly number[]) =>
    places
      .flatMap((place) => messages[place] ?? [])
      .toSorted((a, b) => (b.top[0]?.confidence ?? 0) - (a.top[0]?.confidence ?? 0));
</script>

<section aria-label="Messages at the borders">
  {#each BORDERS as { border, title } (border)}
    <div>
      <h2>{title}</h2>
      <ul>
        {#each shown(figures.nearest[border]) as message, at (at)}
          {@const [first] = message.top}
          <li>
            <OutcomeMark decision={decide(message.top, gate).decision} />
            <span class="figure">{share(first?.confidence ?? 0)}</span>
            <span class="customer" title={message.text}>{message.text}</span>
            <span class="soft">
              {#if message.expected === null}out of scope, read as {first?.intent ?? 'nothing'}
              {:else if first?.intent === message.expected}{message.expected}
              {:else}<strong>{message.expected}</strong>, read as {first?.intent ?? 'nothing'}{/if}
            </span>
          </li>
        {/each}
      </ul>
    </div>
  {/each}
</section>

<style>
  section {
    grid-column: 1 / -1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 2rem;
  }

  ul {
    display: grid;
    margin-bottom: 0.5rem;
  }

  li {
    display: grid;
    grid-template-columns: auto 2.2rem minmax(0, 1fr) auto;
    gap: 0.4rem;
    align-items: baseline;
    padding-block: 0.1rem;
    border-bottom: 1px solid var(--line);
  }

  .customer {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .soft {
    font-size: 0.8125rem;
  }
</style>
