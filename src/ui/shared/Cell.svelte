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
    /** @returns `false`, or a promise of it, if the text was refused */
    keep: (text: string) => unknown;
    /** The name for assistive technology where no label stands around the field. */
    label?: string;
    /** Whether the text may have several lines. */
    lines?: boolean;
    look?: 'customer' | 'figure' | '';
  } & Pick<HTMLInputAttributes, 'placeholder' | 'type' | 'min' | 'max' | 'spellcheck'> = $props();

  let draft = $state<string | null>(null);
  let refused = $state(false);

  function typed(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
    draft = event.currentTarget.value;
    refused = false;
  }

  async function commit() {
    const text = draft;
    if (text === null) return;
    const done = text === value || (await keep(text)) !== false;
    // More may have been typed while this was being kept.
    if (draft !== text) return;
    refused = !done;
    if (done) draft = null;
  }

  function left() {
    if (!refused) void commit();
  }

  function pressed(event: KeyboardEvent) {
    if (event.key === 'Enter' && !lines) {
      event.preventDefault();
      void commit();
    } else if (event.key === 'Escape' && draft !== null) {
      event.preventDefault();
      draft = null;
      refused = false;
    }
  }

  const attributes = $derived({
    class: ['cell', look],
    value: draft ?? value,
    placeholder: rest.placeholder,
    'aria-label': label,
    'aria-invalid': refused || undefined,
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

<style>
  textarea {
    field-sizing: content;
    resize: vertical;
    line-height: 1.35;
  }

  [aria-invalid] {
    border-color: var(--none);
  }
</style>
