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
    editing,
    edit,
    commit,
    cancel,
  }: {
    line: UtteranceLine;
    row: number;
    intent: IntentSheet;
    selection: SheetSelection;
    editing: boolean;
    edit: () => void;
    /** @param next whether to go on to the next row */
    commit: (text: string, next: boolean) => void;
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
      commit(event.currentTarget.value, !event.shiftKey);
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
    selection.row = row;
    selection.words = { row, ...range };
  }
</script>

<div
  class="row"
  role="row"
  tabindex={selection.row === row ? 0 : -1}
  data-row={row}
  aria-rowindex={row + 1}
  aria-selected={selection.rows.has(row)}
  class:current={selection.row === row}
  onfocusin={() => (selection.row = row)}
>
  <span role="gridcell">
    <input
      type="checkbox"
      tabindex="-1"
      aria-label="Select row {row + 1}"
      checked={selection.rows.has(row)}
      onchange={() => selection.toggle(row)}
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
    {#if editing}
      <textarea
        class="cell customer"
        rows="1"
        aria-label="Utterance {row + 1}"
        value={line.source}
        {@attach opened}
        onkeydown={pressed}
        onblur={(event) => {
          if (!leaving) commit(event.currentTarget.value, false);
        }}></textarea>
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

  .taken {
    font-size: 0.75rem;
    color: var(--none);
  }
</style>
