<script lang="ts">
  import { tick } from 'svelte';
  import { withMark, writeMarking } from '$core/bot/marking.js';
  import type { IntentSheet, UtteranceLine } from '$core/contract/teach.js';
  import { tokenise } from '$core/text/tokens.js';
  import { edit } from '../shared/acts.js';
  import type { SheetSelection } from './selection.svelte.js';
  import Act from '../shared/Act.svelte';

  /** Marks words of the row as the value of a slot: by keys, or after selecting them with the pointer. */
  const {
    botId,
    intent,
    line,
    row,
    selection,
  }: {
    botId: number;
    intent: IntentSheet;
    line: UtteranceLine;
    row: number;
    selection: SheetSelection;
  } = $props();

  let panel: HTMLElement;
  let from = $state<number | null>(null);
  let to = $state<number | null>(null);

  // A refresh of the screen brings the same texts in new objects: what is picked stays picked.
  const source = $derived(line.source);
  const text = $derived(line.text);
  const words = $derived(tokenise(text).tokens);
  const range = $derived.by(() => {
    if (from === null || to === null) return null;
    const [first, last] = [words[Math.min(from, to)], words[Math.max(from, to)]];
    return first && last ? { start: first.start, end: last.end } : null;
  });

  $effect(() => {
    void source;
    from = to = null;
  });

  // Words selected in the sheet are taken up here; M only brings the focus.
  $effect(() => {
    const wanted = selection.words;
    if (!wanted || wanted.row !== line.id) return;
    if (wanted.end > wanted.start) {
      const covered = words.flatMap((word, index) =>
        word.start < wanted.end && word.end > wanted.start ? [index] : [],
      );
      from = covered[0] ?? null;
      to = covered.at(-1) ?? null;
    } else void tick().then(() => panel.querySelector<HTMLElement>('[data-word]')?.focus());
  });

  function pick(index: number, extend: boolean) {
    if (from === null || !extend) from = index;
    to = index;
  }

  function pressed(event: KeyboardEvent, index: number) {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const next = Math.max(0, Math.min(index + step, words.length - 1));
    if (event.shiftKey) {
      from ??= index;
      to = next;
    }
    panel.querySelector<HTMLElement>(`[data-word="${next}"]`)?.focus();
  }

  const inRange = (index: number) =>
    from !== null && to !== null && index >= Math.min(from, to) && index <= Math.max(from, to);

  async function keep(source: string) {
    selection.words = null;
    await edit(botId, { do: 'changeUtterance', row: { id: line.id, was: line.source }, to: source });
  }

  const mark = async (slot: string) => {
    if (range) await keep(writeMarking(withMark(line, { slot, ...range })));
  };

  const unmark = (at: number) =>
    keep(writeMarking({ text: line.text, marks: line.marks.filter((_, index) => index !== at) }));
</script>

<section bind:this={panel} aria-label="Mark words of row {row + 1}">
  <h2>Row {row + 1}</h2>
  <p class="customer words">
    {#each words as word, index (word.start)}
      <button
        data-word={index}
        aria-pressed={inRange(index)}
        onclick={(event) => pick(index, event.shiftKey)}
        onkeydown={(event) => pressed(event, index)}>{word.text}</button
      >
    {/each}
  </p>
  {#if range}
    <p class="soft">Mark “{line.text.slice(range.start, range.end)}” as</p>
    <p class="slots">
      {#each intent.markable as slot (slot)}<Act look="firm" onclick={() => mark(slot)}>{slot}</Act>{/each}
    </p>
    {#if intent.markable.length === 0}
      <p class="soft">There is nothing to mark with yet: <a href="/bots/{botId}/teach/entities">make an entity</a>.</p>
    {/if}
  {:else}
    <p class="soft">Select words in the sheet, or here (Shift for several), to mark them.</p>
  {/if}
  {#if line.marks.length > 0}
    <ul>
      {#each line.marks as item, index (item.start)}
        <li>
          <span class="customer">{line.text.slice(item.start, item.end)}</span>
          <span class="name">{item.slot}</span>
          <Act label="Take the mark {item.slot} away" onclick={() => unmark(index)}>take away</Act>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  .words {
    margin: 0.35rem 0;
    line-height: 1.5;
  }

  .words button {
    font: inherit;
    color: inherit;
    background: none;
    border: 0;
    border-bottom: 2px solid transparent;
    padding: 0 0.1rem;
    cursor: pointer;
  }

  .words button:hover {
    border-bottom-color: var(--line-strong);
  }

  .words button[aria-pressed='true'] {
    border-bottom-color: var(--reed);
    background: var(--reed-wash);
  }

  .slots {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    margin: 0.3rem 0;
  }

  li {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
  }

  .name {
    font-variant: all-small-caps;
    color: var(--reed);
    margin-right: auto;
  }
</style>
