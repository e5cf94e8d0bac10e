<script lang="ts">
  /** A button that asks for a file. */
  const {
    label,
    accept,
    choose,
    firm = false,
  }: { label: string; accept: string; choose: (file: File) => void; firm?: boolean } = $props();

  let input: HTMLInputElement;

  function changed() {
    const file = input.files?.[0];
    if (file) choose(file);
    input.value = '';
  }
</script>

<button class="quiet" class:firm onclick={() => input.click()}>{label}</button>
<input bind:this={input} type="file" {accept} onchange={changed} class="unseen" tabindex="-1" aria-label={label} />
