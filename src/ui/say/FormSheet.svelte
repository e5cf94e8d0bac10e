<script lang="ts">
  import { goto } from '$app/navigation';
  import { tick } from 'svelte';
  import type { Form, Localised, Slot } from '$core/bot/document.js';
  import type { Note } from '$core/bot/notes.js';
  import type { SayView } from '$core/contract/say.js';
  import { edit } from '../shared/acts.js';
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

  const change = (to: Form, said?: string) => edit(botId, { do: 'changeForm', name: form.name, to }, said);

  function setText(key: 'confirm' | 'decline' | 'done', text: Localised | null) {
    const { [key]: _, ...rest } = form;
    return change(text === null ? (rest as Form) : { ...form, [key]: text });
  }

  function setDesk(desk: string) {
    const { desk: _, ...rest } = form;
    return change(desk === '' ? rest : { ...form, desk });
  }

  async function rename(name: string): Promise<boolean> {
    const done = name === form.name || (await change({ ...form, name }));
    if (done) await goto(`/bots/${botId}/say?form=${encodeURIComponent(name)}`);
    return done;
  }

  async function addSlot(name: string): Promise<boolean> {
    const entity = view.entities.includes(name) ? name : (view.entities[0] ?? 'number');
    return change({ ...form, slots: [...form.slots, { name, entity, required: true, prompts: [] }] });
  }

  const setSlot = (index: number, slot: Slot) => change({ ...form, slots: form.slots.with(index, slot) });

  async function moveSlot(index: number, by: -1 | 1) {
    const to = index + by;
    const slot = form.slots[index];
    if (!slot || to < 0 || to >= form.slots.length) return;
    await change({ ...form, slots: form.slots.toSpliced(index, 1).toSpliced(to, 0, slot) });
    await tick();
    sheet.querySelector<HTMLElement>(`[data-slot="${slot.name}"] [data-move="${by}"]:not(:disabled)`)?.focus();
  }

  const removeSlot = (index: number) =>
    change({ ...form, slots: form.slots.toSpliced(index, 1) }, `Deleted the slot ${form.slots[index]!.name}.`);

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
    {#each form.slots as slot, index (slot.name)}
      <SlotRow
        {botId}
        {form}
        {slot}
        entities={view.entities}
        language={view.language}
        first={index === 0}
        last={index === form.slots.length - 1}
        missing={notes.some((note) => note.slot === slot.name && note.weight === 'missing')}
        keep={(next) => setSlot(index, next)}
        move={(by) => moveSlot(index, by)}
        remove={() => removeSlot(index)}
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
    placeholder={'The read-back that asks yes or no: So that is {quantity, number} {plant}. Is that right?'}
    keep={(text) => setText('confirm', text)}
  />
  <TextLines
    label="Decline"
    text={form.decline}
    language={view.language}
    placeholder="Said after a no: What shall I change?"
    keep={(text) => setText('decline', text)}
  />
  <TextLines
    label="Done"
    text={form.done}
    language={view.language}
    placeholder="Said when the form is complete"
    keep={(text) => setText('done', text)}
  />
  <label class="desk">
    <span class="soft">Then to desk</span>
    <select class="cell" value={form.desk ?? ''} onchange={(event) => setDesk(event.currentTarget.value)}>
      <option value="">none</option>
      {#each view.desks as desk (desk.name)}<option value={desk.name}>{desk.name}</option>{/each}
    </select>
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
    grid-template-columns: 6.5rem 12rem;
    gap: 0.5rem;
    align-items: baseline;
  }

  .desk select {
    border-color: var(--line);
  }
</style>
