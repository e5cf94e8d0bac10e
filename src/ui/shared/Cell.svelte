<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';

  /**
   * A text edited in place, kept when the field is left or with Enter; Escape brings back what was kept. What is being
   * typed belongs to the person: a refresh of the screen leaves it alone, and a text that was refused stays to be mended.
   */
  const {
    value,
    keep,
    label,
    lines = false,
    look = '',
    ...rest
  }: {
    value: string;
    /** @returns `false` or a sentence that says why, or a promise of it, if the text was refused */
    keep: (text: string) => unknown;
    /** The name for assistive technology where no label stands around the field. */
    label?: string;
    /** Whether the text may have several lines. */
    lines?: boolean;
    look?: 'customer' | 'figure' | '';
  } & Pick<HTMLInputAttributes, 'id' | 'placeholder' | 'type' | 'min' | 'max' | 'spellcheck'> = $props();

  let draft = $state<string | null>(null);
  /** Why the text was refused; empty where that is told elsewhere. */
  let refused = $state<string | null>(null);
  const own = $props.id();

  function typed(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
    draft = event.currentTarget.value;
    refused = null;
  }

  async function commit() {
    const text = draft;
    if (text === null) return;
    const result = text === value || (await keep(text));
    // More may have been typed while this was being kept.
    if (draft !== text) return;
    refused = result === false ? '' : typeof result === 'string' ? result : null;
    if (refused === null) draft = null;
  }

  function left() {
    if (refused === null) void commit();
  }

  function pressed(event: KeyboardEvent) {
    if (event.key === 'Enter' && !lines) {
      event.preventDefault();
      void commit();
    } else if (event.key === 'Escape' && draft !== null) {
      event.preventDefault();
      draft = null;
      refused = null;
    }
  }

  const attributes = $derived({
    class: ['cell', look],
    value: draft ?? value,
    placeholder: rest.placeholder,
    'aria-label': label,
    'aria-invalid': refused !== null || undefined,
    'aria-describedby': refused !== null ? `${own}-refused` : undefined,
    oninput: typed,
    onblur: left,
    onkeydown: pressed,
  });
</script>

{#if lines}
  <textarea {...attributes} rows="1"></textarea>
{:else}
  <input {...rest} {...attributes} />
{/if}
{#if refused !== null}
  <span class="refused" id="{own}-refused" role="alert">Not kept. {refused} <kbd>Esc</kbd> brings back what is.</span>
{/if}

<style>
  textarea {
    field-sizing: content;
    resize: vertical;
    line-height: 1.35;
  }

  .refused {
    display: block;
    padding: 0.15rem 0.35rem;
    font-size: 0.8125rem;
    color: var(--none);
  }

  [aria-invalid] {
    border-color: var(--none);
  }
</style>
