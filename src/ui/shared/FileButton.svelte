<script lang="ts">
  import { FileUploaderButton } from 'carbon-components-svelte';

  /** A button that asks for a file. */
  const {
    label,
    accept,
    choose,
    firm = false,
  }: { label: string; accept: string[]; choose: (file: File) => void; firm?: boolean } = $props();

  let files = $state.raw<readonly File[]>([]);

  function changed({ detail: [file] }: { detail: readonly File[] }) {
    files = [];
    if (file) choose(file);
  }
</script>

<FileUploaderButton
  kind={firm ? 'tertiary' : 'ghost'}
  size="small"
  labelText={label}
  {accept}
  disableLabelChanges
  bind:files
  on:change={changed}
/>
