<script lang="ts">
  import { ComboBox } from 'carbon-components-svelte';
  import { optionsWithText, type Option } from './options.js';

  /** A choice of one from many: a few letters find it. */
  const {
    value,
    options,
    label,
    showLabel = false,
    placeholder = '',
    up = false,
    choose,
  }: {
    /** `null` where nothing is chosen. */
    value: string | null;
    options: readonly Option[];
    label: string;
    showLabel?: boolean;
    placeholder?: string;
    /** Whether the list opens upwards. */
    up?: boolean;
    choose: (value: string) => void;
  } = $props();

  const items = $derived(optionsWithText(options).map(({ value: id, text }) => ({ id, text })));

  /** Is also told of a value that was set from outside. */
  function selected({ detail }: { detail: { selectedId: unknown } }) {
    if (detail.selectedId !== value) choose(String(detail.selectedId));
  }

  const includes = (item: { text: string }, typed: string): boolean =>
    item.text.toLowerCase().includes(typed.trim().toLowerCase());
</script>

<div class="choice" class:labelled={showLabel}>
  <ComboBox
    {items}
    {...value === null ? {} : { selectedId: value }}
    labelText={label}
    hideLabel={!showLabel}
    {placeholder}
    size="sm"
    direction={up ? 'top' : 'bottom'}
    shouldFilterItem={includes}
    clearFilterOnOpen
    selectTextOnFocus
    autoHighlight="first-match"
    on:select={selected}
  />
</div>
