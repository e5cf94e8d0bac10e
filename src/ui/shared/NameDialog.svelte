<script lang="ts">
  import { Modal, TextInput } from 'carbon-components-svelte';
  import { untrack } from 'svelte';

  /** Asks for a name. */
  let {
    open = $bindable(),
    heading,
    label,
    action,
    hint = '',
    initial = '',
    submit,
  }: {
    open: boolean;
    heading: string;
    label: string;
    action: string;
    hint?: string;
    initial?: string;
    /** @returns whether the dialog may close */
    submit: (name: string) => Promise<boolean>;
  } = $props();

  const id = $props.id();
  let name = $state('');

  // Only opening sets the name: a refresh of the screen behind must not take away what is being typed.
  $effect(() => {
    if (open) name = untrack(() => initial);
  });

  async function go() {
    if (name.trim() !== '' && (await submit(name.trim()))) open = false;
  }
</script>

{#if open}
  <Modal
    bind:open
    size="xs"
    modalHeading={heading}
    primaryButtonText={action}
    primaryButtonDisabled={name.trim() === ''}
    secondaryButtonText="Cancel"
    selectorPrimaryFocus="#{id}"
    on:click:button--secondary={() => (open = false)}
    on:submit={go}
  >
    <TextInput {id} labelText={label} helperText={hint} bind:value={name} autocomplete="off" />
  </Modal>
{/if}
