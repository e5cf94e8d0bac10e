<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';
  import { tick } from 'svelte';
  import Act from './Act.svelte';

  /** An act that needs a name first: its button becomes a field in its place. */
  let {
    open = $bindable(false),
    text,
    label,
    action,
    placeholder = '',
    look = 'firm',
    disabled = false,
    submit,
  }: {
    open?: boolean;
    /** The words of the button. */
    text: string;
    /** Of the field. */
    label: string;
    /** The words of the button beside the field. */
    action: string;
    placeholder?: string;
    look?: 'main' | 'firm' | 'quiet';
    disabled?: boolean;
    /** @returns whether the name was taken */
    submit: (name: string) => Promise<boolean>;
  } = $props();

  let name = $state('');
  let field = $state<HTMLInputElement | null>(null);
  let place = $state<HTMLElement | null>(null);

  $effect(() => {
    if (open) void tick().then(() => field?.focus());
  });

  async function close() {
    open = false;
    name = '';
    await tick();
    place?.querySelector('button')?.focus();
  }

  async function go(event: SubmitEvent) {
    event.preventDefault();
    if (name.trim() !== '' && (await submit(name.trim()))) await close();
  }

  function pressed(event: KeyboardEvent) {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    void close();
  }
</script>

<span class="new" bind:this={place}>
  {#if open}
    <form onsubmit={go}>
      <TextInput
        labelText={label}
        hideLabel
        size="sm"
        {placeholder}
        autocomplete="off"
        bind:value={name}
        bind:ref={field}
        on:keydown={pressed}
      />
      <Act look="firm" type="submit" disabled={name.trim() === ''}>{action}</Act>
      <Act icon="close" label="Leave it" onclick={close} />
    </form>
  {:else}
    <Act {look} {disabled} onclick={() => (open = true)}>{text}</Act>
  {/if}
</span>

<style>
  form {
    display: flex;
    align-items: center;
    gap: 0.25rem;
  }
</style>
