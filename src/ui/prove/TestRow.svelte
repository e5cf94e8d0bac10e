<script lang="ts">
  import type { SheetLine } from '$core/contract/prove.js';
  import { proposedLabel, type LineFlag } from '$core/measure/testLines.js';
  import type { Recognition } from '$core/recognise/recognition.js';
  import Gloss from '../shared/Gloss.svelte';
  import Pick from '../shared/Pick.svelte';
  import { share } from '../shared/format.js';
  import { grow } from '../shared/grow.js';

  const {
    line,
    row,
    intents,
    current,
    proposal,
    draft,
    focused,
    label,
    keep,
    cancel,
  }: {
    line: SheetLine;
    row: number;
    intents: string[];
    /** Whether keys act on it. */
    current: boolean;
    /** What the bot takes it for, while it has no label. */
    proposal: Recognition | undefined;
    /** What is being written in it. */
    draft: { text: string } | null;
    focused: () => void;
    label: (intent: string | null) => void;
    keep: () => void;
    cancel: () => void;
  } = $props();

  const OUTSIDE = ' out of scope';
  const FLAGS: Record<LineFlag, string> = {
    'no label': 'no label',
    taught: 'also taught',
    twice: 'stands twice',
    disagrees: 'another like it says otherwise',
  };
  const inWords = (intent: string | null | undefined) => (intent === null ? 'out of scope' : (intent ?? ''));
  const proposed = $derived(proposal && proposedLabel(proposal));
  let leaving = false;

  const opened = (node: HTMLTextAreaElement) => {
    leaving = false;
    node.focus();
  };

  function pressed(event: KeyboardEvent) {
    if (event.key !== 'Enter' && event.key !== 'Escape') return;
    leaving = true;
    (event.key === 'Enter' ? keep : cancel)();
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div
  class="row"
  role="row"
  tabindex={current ? 0 : -1}
  data-row={row}
  aria-rowindex={row + 1}
  class:current
  onfocusin={focused}
>
  <span role="gridcell" class="figure soft">{row + 1}</span>
  <span role="gridcell" class="text">
    {#if draft}
      <textarea
        class="cell customer"
        rows="1"
        aria-label="Test line {row + 1}"
        bind:value={draft.text}
        {@attach opened}
        {@attach grow}
        onkeydown={pressed}
        onblur={() => {
          if (!leaving) keep();
        }}></textarea>
    {:else}
      <Gloss text={line.text} spans={(line.slots ?? []).map(({ start, end, slot }) => ({ start, end, label: slot }))} />
    {/if}
  </span>
  <span role="gridcell" class="label">
    {#if current}
      <Pick
        label="Intent of line {row + 1}"
        placeholder={proposed === undefined ? 'Intent …' : `${inWords(proposed)}?`}
        value={line.intent === null ? OUTSIDE : (line.intent ?? null)}
        options={[{ value: OUTSIDE, text: 'out of scope' }, ...intents]}
        choose={(value) => label(value === OUTSIDE ? null : value)}
      />
    {:else if line.intent !== undefined}
      {inWords(line.intent)}
    {:else if proposed !== undefined}
      <span class="proposed">{inWords(proposed)}? <span class="figure">{share(proposal!.confidence)}</span></span>
    {/if}
  </span>
  <span role="gridcell" class="soft tags"
    >{[line.style, ...Object.values(line.tags ?? {})].filter(Boolean).join(' · ')}</span
  >
  <span role="gridcell" class="flag">{line.flag === null ? '' : FLAGS[line.flag]}</span>
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 2.5rem minmax(0, 1fr) 15rem 8rem 9rem;
    gap: 0.5rem;
    align-items: center;
    min-height: 2.1rem;
    padding: 0.1rem 0.25rem;
    border-bottom: 1px solid var(--line);
    font-size: 0.8125rem;
  }

  .row:focus-visible {
    outline: 2px solid var(--reed);
    outline-offset: -2px;
  }

  .current {
    background: var(--reed-wash);
  }

  .text {
    font-size: 0.9375rem;
  }

  .proposed {
    color: var(--ink-soft);
    font-style: italic;
  }

  .flag {
    color: var(--asked);
  }
</style>
