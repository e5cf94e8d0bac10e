<script lang="ts">
  import type { IntentSheet, UtteranceLine } from '$core/contract/teach.js';
  import Gloss from '../shared/Gloss.svelte';
  import { share } from '../shared/format.js';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import type { SheetSelection } from './selection.svelte.js';
  import { selectedRange } from './selectedRange.js';

  const {
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
    line: UtteranceLine;
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
    const { heldOut } = line;
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
    const range = words && selectedRange(words, line.text);
    if (!range) return;
    selection.row = line.id;
    selection.words = { row: line.id, ...range };
  }
</script>

<div
  class="row"
  role="row"
  tabindex={current ? 0 : -1}
  data-row={row}
  aria-rowindex={row + 1}
  aria-selected={selection.rows.has(line.id)}
  class:current
  onfocusin={() => (selection.row = line.id)}
>
  <span role="gridcell">
    <input
      type="checkbox"
      tabindex="-1"
      aria-label="Select row {row + 1}"
      checked={selection.rows.has(line.id)}
      onchange={() => selection.toggle(line.id)}
    />
  </span>
  <span role="gridcell" class="held" title={heldOutLabel}>
    {#if line.heldOut}
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
        aria-describedby={draft.refused !== null ? `refused-${line.id}` : undefined}
        bind:value={draft.text}
        {@attach opened}
        oninput={() => (draft.refused = null)}
        onkeydown={pressed}
        onblur={() => {
          if (!leaving && draft.refused === null) commit(false);
        }}></textarea>
      {#if draft.refused !== null}
        <span class="refused" id="refused-{line.id}" role="alert"
          >Not kept. {draft.refused} <kbd>Esc</kbd> brings back what is.</span
        >
      {/if}
    {:else}
      <!-- Selecting words and double-clicking have their keys on the row: M and Enter. -->
      <span bind:this={words} onpointerup={takeWords} ondblclick={edit} role="presentation">
        <Gloss text={line.text} spans={line.marks.map(({ start, end, slot }) => ({ start, end, label: slot }))} />
      </span>
    {/if}
  </span>
  <span role="gridcell">
    {#if line.heldOut && line.heldOut.predicted !== intent.name}
      <span class="taken">{line.heldOut.predicted ?? 'out of scope'}</span>
    {/if}
  </span>
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 1.25rem 3.2rem minmax(0, 1fr) auto;
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

  .held {
    display: flex;
    gap: 0.35rem;
    align-items: baseline;
    font-size: 0.8125rem;
  }

  .text {
    font-size: 0.9375rem;
  }

  textarea {
    field-sizing: content;
    resize: none;
  }

  .refused {
    display: block;
    padding: 0.15rem 0.35rem;
    font-size: 0.8125rem;
    color: var(--none);
  }

  .taken {
    font-size: 0.75rem;
    color: var(--none);
  }
</style>
