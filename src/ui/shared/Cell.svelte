<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { Draft } from './draft.svelte.js';
  import { grow } from './grow.js';

  /** A text of a sheet, edited in place. */
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
    look?: 'customer' | 'figure' | 'title' | '';
  } & Pick<HTMLInputAttributes, 'id' | 'placeholder' | 'spellcheck'> = $props();

  const draft = new Draft(
    () => value,
    (text) => keep(text),
  );
  const own = $props.id();

  // Long texts wrap, whether or not they may have lines of their own.
  const typed = (text: string) => draft.type(lines ? text : text.replaceAll('\n', ' '));
</script>

<textarea
  {...rest}
  rows="1"
  class={['cell', look]}
  value={draft.shown}
  aria-label={label}
  aria-invalid={draft.refused !== null || undefined}
  aria-describedby={draft.refused !== null ? `${own}-refused` : undefined}
  oninput={(event) => typed(event.currentTarget.value)}
  onblur={() => draft.left()}
  onkeydown={(event) => draft.press(event, { lines })}
  {@attach grow}></textarea>
{#if draft.refused !== null}
  <span class="refused" id="{own}-refused" role="alert"
    >Not kept. {draft.refused} <kbd>Esc</kbd> brings back what is.</span
  >
{/if}
