<script lang="ts">
  import { goto } from '$app/navigation';
  import { tick } from 'svelte';
  import type { Form, Slot } from '$core/bot/document.js';
  import type { FormChange } from '$core/bot/acts/index.js';
  import type { Note } from '$core/bot/note.js';
  import type { SayView } from '$core/contract/say.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Choice from '../shared/Choice.svelte';
  import NameDialog from '../shared/NameDialog.svelte';
  import SlotRow from './SlotRow.svelte';
  import TextLines from './TextLines.svelte';

  const {
    botId,
    form,
    notes,
    openedBy,
    view,
  }: { botId: number; form: Form; notes: Note[]; openedBy: string[]; view: SayView } = $props();

  let renaming = $state(false);
  let adding = $state(false);
  let sheet: HTMLElement;

  const change = (to: FormChange) => edit(botId, { do: 'changeForm', name: form.name, to });
  const keepText = (to: FormChange) => keepEdit(botId, { do: 'changeForm', name: form.name, to });
  const inserts = $derived(view.current?.inserts ?? []);

  async function rename(name: string): Promise<boolean> {
    const done = name === form.name || (await change({ name }));
    if (done) await goto(`/bots/${botId}/say?form=${encodeURIComponent(name)}`);
    return done;
  }

  async function addSlot(name: string): Promise<boolean> {
    const entity = view.entities.includes(name) ? name : (view.entities[0] ?? 'number');
    return edit(botId, { do: 'addSlot', form: form.name, name, entity, required: true, prompts: [] });
  }

  async function moveSlot({ id, name }: Slot, by: -1 | 1) {
    await edit(botId, { do: 'moveSlot', slot: id, by });
    await tick();
    sheet.querySelector<HTMLElement>(`[data-slot="${name}"] [data-move="${by}"]:not(:disabled)`)?.focus();
  }

  const removeSlot = ({ id, name }: Slot) => edit(botId, { do: 'deleteSlot', slot: id }, `Deleted the slot ${name}.`);

  async function openWith(intent: string) {
    if (intent !== '') await edit(botId, { do: 'changeIntent', name: intent, to: { form: form.name } });
  }
</script>

<header>
  <h1>{form.name}</h1>
  <label>
    <span class="soft">{openedBy.length > 0 ? `opened by ${openedBy.join(', ')}; also by` : 'opened by'}</span>
    <select
      class="cell"
      value=""
      onchange={(event) => openWith(event.currentTarget.value)}
      aria-label="Intent that opens this form"
    >
      <option value="">choose an intent …</option>
      {#each view.intents.filter((name) => !openedBy.includes(name)) as name (name)}<option>{name}</option>{/each}
    </select>
  </label>
  <span class="acts">
    <button class="quiet" onclick={() => (renaming = true)}>Rename</button>
    <button
      class="quiet danger"
      onclick={() => edit(botId, { do: 'deleteForm', name: form.name }, `Deleted ${form.name}.`)}>Delete</button
    >
  </span>
</header>
<table class="sheet" bind:this={sheet}>
  <thead>
    <tr>
      <th scope="col">Slot</th>
      <th scope="col">Entity</th>
      <th scope="col">Required</th>
      <th scope="col">Asked for</th>
      <th scope="col">Prompts, a line for each try</th>
      <th scope="col"><span class="unseen">Order and delete</span></th>
    </tr>
  </thead>
  <tbody>
    {#each form.slots as slot, index (slot.id)}
      <SlotRow
        {botId}
        {form}
        {slot}
        entities={view.entities}
        lists={view.lists}
        {inserts}
        language={view.language}
        first={index === 0}
        last={index === form.slots.length - 1}
        missing={notes.some((note) => note.slot === slot.name && note.weight === 'missing')}
        move={(by) => moveSlot(slot, by)}
        remove={() => removeSlot(slot)}
      />
    {/each}
    <tr>
      <td colspan="6"><button class="quiet firm" onclick={() => (adding = true)}>Add a slot</button></td>
    </tr>
  </tbody>
</table>
<div class="texts">
  <TextLines
    label="Confirmation"
    text={form.confirm}
    language={view.language}
    placeholder="The read-back that asks yes or no; without it the form completes when it is full"
    {inserts}
    keep={(text) => keepText({ confirm: text })}
  />
  <TextLines
    label={form.onNo === 'leave' ? 'Left at a no' : 'Decline'}
    text={form.decline}
    language={view.language}
    placeholder="Said after a no: What shall I change?"
    {inserts}
    keep={(text) => keepText({ decline: text })}
  />
  <label class="desk">
    <span class="soft">On a no</span>
    <Choice value={form.onNo ?? 'change'} keep={(value) => change({ onNo: value === 'leave' ? 'leave' : null })}>
      <option value="change">ask what to change; a second no leaves</option>
      <option value="leave">say the text and leave</option>
    </Choice>
  </label>
  <TextLines
    label="Done"
    text={form.done}
    language={view.language}
    placeholder="Said when the form is complete"
    {inserts}
    keep={(text) => keepText({ done: text })}
  />
  <label class="desk">
    <span class="soft">Then to desk</span>
    <Choice value={form.desk ?? ''} keep={(desk) => change({ desk: desk || null })}>
      <option value="">none</option>
      {#each view.desks as desk (desk)}<option value={desk}>{desk}</option>{/each}
    </Choice>
  </label>
</div>
<NameDialog
  bind:open={renaming}
  heading="Rename {form.name}"
  label="Name"
  action="Rename"
  initial={form.name}
  submit={rename}
/>
<NameDialog
  bind:open={adding}
  heading="New slot"
  label="Name"
  action="Add the slot"
  hint="What the form needs to know, such as quantity."
  submit={addSlot}
/>

<style>
  header {
    display: flex;
    align-items: baseline;
    gap: 1rem;
    padding: 0.6rem 0.75rem;
  }

  header label {
    display: flex;
    gap: 0.35rem;
    align-items: baseline;
    min-width: 0;
  }

  header select {
    width: 11rem;
    border-color: var(--line);
  }

  .acts {
    margin-left: auto;
    white-space: nowrap;
  }

  .texts {
    padding: 0.75rem;
    display: grid;
    gap: 0.4rem;
  }

  .desk {
    display: grid;
    grid-template-columns: 6.5rem 22rem;
    gap: 0.5rem;
    align-items: baseline;
  }

  .desk :global(select) {
    border-color: var(--line);
  }
</style>
