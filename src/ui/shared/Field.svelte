<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';
  import { Draft } from './draft.svelte.js';

  /** A text of a form, with its label above it. */
  const {
    value,
    keep,
    label,
    hint = '',
    figure = false,
    inline = false,
    known = [],
  }: {
    value: string;
    /** @returns `false` or a sentence that says why, or a promise of it, if the text was refused */
    keep: (text: string) => unknown;
    label: string;
    hint?: string;
    /** Whether it is a pattern or the like. */
    figure?: boolean;
    /** Whether the label stands before it. */
    inline?: boolean;
    /** Texts that are likely, which it offers. */
    known?: readonly string[];
  } = $props();

  const own = $props.id();
  const draft = new Draft(
    () => value,
    (text) => keep(text),
  );
</script>

<div class:figures={figure}>
  <TextInput
    labelText={label}
    {inline}
    list={known.length > 0 ? `${own}-known` : undefined}
    helperText={hint}
    size="sm"
    autocomplete="off"
    spellcheck={figure ? 'false' : undefined}
    value={draft.shown}
    invalid={draft.refused !== null}
    invalidText="Not kept. {draft.refused} Esc brings back what is."
    on:input={({ detail }) => draft.type(String(detail ?? ''))}
    on:blur={() => draft.left()}
    on:keydown={(event) => draft.press(event, { lines: false })}
  />
  {#if known.length > 0}
    <datalist id="{own}-known">
      {#each known as text (text)}<option value={text}></option>{/each}
    </datalist>
  {/if}
</div>
