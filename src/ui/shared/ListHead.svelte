<script lang="ts">
  import Act from './Act.svelte';
  import NewName from './NewName.svelte';

  /** The head of a list, with the way to a new one of its kind, which is named in place. */
  let {
    heading,
    count,
    kind,
    placeholder,
    naming = $bindable(),
    create,
  }: {
    heading: string;
    count: number;
    /** What one of the list is called: "intent". */
    kind: string;
    placeholder: string;
    /** Whether a new one is being named. */
    naming: boolean;
    /** `null` where none is made; otherwise gives whether the name was taken. */
    create: ((name: string) => Promise<boolean>) | null;
  } = $props();
</script>

<div class="head">
  <h2>{heading} <span class="soft figure">{count}</span></h2>
  {#if create && !naming}<Act look="firm" label="New {kind}" onclick={() => (naming = true)}>New</Act>{/if}
</div>
{#if create && naming}
  <div class="head">
    <NewName bind:open={naming} text="New" label="Name of the new {kind}" action="Make" {placeholder} submit={create} />
  </div>
{/if}

<style>
  /* The list stands at the same height whether or not there is a way to a new one. */
  .head {
    min-height: 2.1rem;
  }
</style>
