<script lang="ts">
  import { variants, withVariants } from '$core/bot/localised.js';
  import type { Localised } from '$core/bot/document.js';
  import type { Insert } from '$core/say/engineTexts.js';
  import Cell from '../shared/Cell.svelte';
  import Act from '../shared/Act.svelte';

  /** A text that the bot says: a line for each variant, kept when the field is left. */
  const {
    label,
    text,
    language,
    keep,
    placeholder = '',
    hideLabel = false,
    inserts = [],
  }: {
    label: string;
    text: Localised | undefined;
    language: string;
    /** @param text `null` where all was taken away */
    keep: (text: Localised | null) => unknown;
    placeholder?: string;
    hideLabel?: boolean;
    /** What can be put in. */
    inserts?: readonly Insert[];
  } = $props();

  let root: HTMLElement;
  let list = $state<HTMLDetailsElement | null>(null);

  const shown = $derived(variants(text, language).join('\n'));

  const changed = (value: string) => keep(value.trim() === '' ? null : withVariants(text, language, value.split('\n')));

  /** Puts something in where the caret stands, as if it were typed. */
  function insert(words: string) {
    const field = root.querySelector('textarea');
    if (!field) return;
    field.setRangeText(words, field.selectionStart, field.selectionEnd, 'end');
    field.dispatchEvent(new Event('input', { bubbles: true }));
    if (list) list.open = false;
    field.focus();
  }
</script>

<div bind:this={root} class:alone={!hideLabel}>
  <span class={hideLabel ? 'unseen' : 'soft'} aria-hidden="true">{label}</span>
  <div>
    <Cell value={shown} {label} {placeholder} lines keep={changed} />
    {#if inserts.length > 0}
      <details bind:this={list}>
        <!-- A press here leaves the field in focus, so that what is being typed is not kept halfway. -->
        <summary onpointerdown={(event) => event.preventDefault()}
          >Insert <span class="unseen">into {label}</span></summary
        >
        <ul>
          {#each inserts as item (item.text)}
            <li>
              <!-- The field keeps its text until it is left for something else than this list. -->
              <span role="none" onpointerdown={(event) => event.preventDefault()}>
                <Act onclick={() => insert(item.text)}><code>{item.text}</code></Act>
              </span>
              <span class="soft"
                >{item.hint}{#if item.example !== ''}: “{item.example}”{/if}</span
              >
            </li>
          {/each}
        </ul>
      </details>
    {/if}
  </div>
</div>

<style>
  .alone {
    display: grid;
    grid-template-columns: 6.5rem 1fr;
    align-items: start;
    gap: 0.5rem;
  }

  .alone > span {
    padding-top: 0.25rem;
  }

  .alone :global(textarea) {
    border-color: var(--line);
  }

  summary {
    cursor: pointer;
    width: fit-content;
    padding: 0 0.35rem;
    font-size: 0.75rem;
    color: var(--reed);
  }

  ul {
    max-height: 14rem;
    overflow-y: auto;
    border: 1px solid var(--line);
    background: var(--paper-raised);
  }

  li {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.15rem 0.5rem;
    padding: 0.1rem 0.35rem;
    font-size: 0.8125rem;
  }

  li :global(.bx--btn) {
    white-space: normal;
    text-align: left;
  }

  code {
    font-family: var(--mono);
    font-size: 0.75rem;
  }
</style>
