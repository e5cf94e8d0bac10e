<script lang="ts">
  import type { RowId } from '$core/bot/document.js';
  import type { IntentSheet, UtteranceLine } from '$core/contract/teach.js';
  import Gloss from '../shared/Gloss.svelte';
  import { share } from '../shared/format.js';
  import { grow } from '../shared/grow.js';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import Tick from '../shared/Tick.svelte';
  import type { SheetSelection } from './selection.svelte.js';
  import { selectedRange } from './selectedRange.js';

  const {
    id,
    line,
    row,
    intent,
    selection,
    current,
    draft,
    edit,
    commit,
    cancel,
  }: {
    id: RowId;
    /** `undefined` while it is on its way. */
    line: UtteranceLine | undefined;
    row: number;
    intent: IntentSheet;
    selection: SheetSelection;
    /** Whether keys act on it. */
    current: boolean;
    /** What is being written in it, and why that was refused. */
    draft: { text: string; refused: string | null } | null;
    edit: () => void;
    /** @param next whether to go on to the next row */
    commit: (next: boolean) => void;
    cancel: () => void;
  } = $props();

  let words = $state<HTMLElement | null>(null);
  let leaving = false;

  const heldOutLabel = $derived.by(() => {
    const heldOut = line?.heldOut;
    if (!heldOut) return 'not measured yet';
    if (heldOut.predicted === intent.name)
      return heldOut.decision === 'accept' ? 'recognised when held out' : 'recognised, but not surely, when held out';
    return `taken for ${heldOut.predicted ?? 'out of scope'} when held out`;
  });

  const opened = (node: HTMLTextAreaElement) => {
    leaving = false;
    node.focus();
    node.setSelectionRange(node.value.length, node.value.length);
  };

  function pressed(event: KeyboardEvent & { currentTarget: HTMLTextAreaElement }) {
    if (event.key === 'Enter') {
      leaving = true;
      commit(!event.shiftKey);
    } else if (event.key === 'Escape') {
      leaving = true;
      cancel();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Takes up words that were selected with the pointer. */
  function takeWords() {
    const range = words && line && selectedRange(words, line.text);
    if (!range) return;
    selection.row = id;
    selection.words = { row: id, ...range };
  }
</script>

<div
  class="row"
  role="row"
  tabindex={current ? 0 : -1}
  data-row={row}
  aria-rowindex={row + 1}
  aria-selected={selection.rows.has(id)}
  class:current
  onfocusin={() => (selection.row = id)}
>
  <span role="gridcell" class="tick">
    <Tick
      tabindex={-1}
      label="Select row {row + 1}"
      hideLabel
      checked={selection.rows.has(id)}
      keep={() => selection.toggle(id)}
    />
  </span>
  <span role="gridcell" class="figure soft place">{row + 1}</span>
  <span role="gridcell" class="held" title={heldOutLabel}>
    {#if line?.heldOut}
      <OutcomeMark decision={line.heldOut.decision} label={heldOutLabel} />
      <span class="figure">{share(line.heldOut.confidence)}</span>
    {:else}
      <span class="soft">–</span>
    {/if}
  </span>
  <span role="gridcell" class="text">
    {#if draft}
      <textarea
        class="cell customer"
        rows="1"
        aria-label="Utterance {row + 1}"
        aria-invalid={draft.refused !== null || undefined}
        aria-describedby={draft.refused !== null ? `refused-${id}` : undefined}
        bind:value={draft.text}
        {@attach opened}
        {@attach grow}
        oninput={() => (draft.refused = null)}
        onkeydown={pressed}
        onblur={() => {
          if (!leaving && draft.refused === null) commit(false);
        }}></textarea>
      {#if draft.refused !== null}
        <span class="refused" id="refused-{id}" role="alert"
          >Not kept. {draft.refused} <kbd>Esc</kbd> brings back what is.</span
        >
      {/if}
    {:else if line}
      <!-- Selecting words and double-clicking have their keys on the row: M and Enter. -->
      <span bind:this={words} onpointerup={takeWords} ondblclick={edit} role="presentation">
        <Gloss text={line.text} spans={line.marks.map(({ start, end, slot }) => ({ start, end, label: slot }))} />
      </span>
    {:else}
      <span class="soft">…</span>
    {/if}
  </span>
  <span role="gridcell">
    {#if line?.heldOut && line.heldOut.predicted !== intent.name}
      <span class="taken">{line.heldOut.predicted ?? 'out of scope'}</span>
    {/if}
  </span>
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 1.25rem 2.2rem 3.2rem minmax(0, 1fr) auto;
    gap: 0.5rem;
    align-items: baseline;
    padding: 0.3rem 0.75rem;
    border-bottom: 1px solid var(--line);
  }

  .row:focus-visible {
    outline-offset: -2px;
  }

  .row.current {
    background: color-mix(in srgb, var(--reed-wash) 55%, transparent);
  }

  .row[aria-selected='true'] {
    background: var(--reed-wash);
  }

  .tick {
    align-self: start;
  }

  .place {
    font-size: 0.75rem;
    text-align: right;
  }

  .held {
    display: flex;
    gap: 0.35rem;
    align-items: baseline;
    font-size: 0.8125rem;
  }

  .text {
    font-size: 0.9375rem;
  }

  .taken {
    font-size: 0.75rem;
    color: var(--none);
  }
</style>
