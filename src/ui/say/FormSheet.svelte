<script lang="ts">
  import { goto } from '$app/navigation';
  import { tick } from 'svelte';
  import type { Form, RowId, Slot } from '$core/bot/document.js';
  import type { FormChange } from '$core/bot/acts/index.js';
  import type { Note } from '$core/notes/note.js';
  import type { SayView } from '$core/contract/say.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import NewName from '../shared/NewName.svelte';
  import { newRowId, OptimisticRows } from '../shared/optimistic.svelte.js';
  import Pick from '../shared/Pick.svelte';
  import SlotRow from './SlotRow.svelte';
  import TextLines from './TextLines.svelte';
  import Act from '../shared/Act.svelte';

  const {
    botId,
    form,
    notes,
    openedBy,
    view,
  }: { botId: number; form: Form; notes: Note[]; openedBy: string[]; view: SayView } = $props();

  let sheet: HTMLElement;

  const change = (to: FormChange) => edit(botId, { do: 'changeForm', name: form.name, to });
  const keepText = (to: FormChange) => keepEdit(botId, { do: 'changeForm', name: form.name, to });
  const inserts = $derived(view.current?.inserts ?? []);

  const overlay = new OptimisticRows<Slot>();
  const slots = $derived(overlay.apply(form.slots));

  /** Rows with a slot on that side of its neighbour: where it stands there already, nothing is changed. */
  function beside(rows: Slot[], id: RowId, neighbour: RowId, side: -1 | 1): Slot[] {
    const at = rows.findIndex((row) => row.id === id);
    const other = rows.findIndex((row) => row.id === neighbour);
    if (at === -1 || other === -1 || Math.sign(at - other) === side) return rows;
    return rows.with(at, rows[other]!).with(other, rows[at]!);
  }

  async function rename(text: string): Promise<true | string> {
    const name = text.trim();
    const done = await keepText({ name });
    if (done === true) await goto(`/bots/${botId}/say?form=${encodeURIComponent(name)}`);
    return done;
  }

  async function addSlot(name: string): Promise<boolean> {
    const entity = view.entities.includes(name) ? name : (view.entities[0] ?? 'number');
    const slot: Slot = { id: newRowId(), name, entity, required: true, prompts: [] };
    return overlay.adding([slot], () => edit(botId, { do: 'addSlot', form: form.name, ...slot }));
  }

  async function moveSlot({ id, name }: Slot, by: -1 | 1) {
    const neighbour = slots[slots.findIndex((slot) => slot.id === id) + by];
    if (!neighbour) return;
    const moving = overlay.during(
      (rows) => beside(rows, id, neighbour.id, by),
      () => edit(botId, { do: 'moveSlot', slot: id, by }),
    );
    await tick();
    sheet.querySelector<HTMLElement>(`[data-slot="${name}"] [data-move="${by}"]:not(:disabled)`)?.focus();
    await moving;
  }

  const removeSlot = ({ id, name }: Slot) =>
    overlay.removing(new Set([id]), () => edit(botId, { do: 'deleteSlot', slot: id }, `Deleted the slot ${name}.`));

  const openWith = (intent: string) => void edit(botId, { do: 'changeIntent', name: intent, to: { form: form.name } });
</script>

<header>
  <h1 class="unseen">{form.name}</h1>
  <span class="name"><Cell look="title" label="Name of the form" value={form.name} keep={rename} /></span>
  <span class="soft opened" title={openedBy.join(', ')}>
    {openedBy.length > 0 ? `opened by ${openedBy.join(', ')}; also by` : 'opened by'}
  </span>
  <span class="opener">
    <Pick
      label="Intent that opens this form"
      placeholder="choose an intent …"
      value={null}
      options={view.intents.filter((name) => !openedBy.includes(name))}
      choose={openWith}
    />
  </span>
  <span class="acts">
    <Act
      icon="delete"
      look="grave"
      label="Delete the form {form.name}"
      onclick={() => edit(botId, { do: 'deleteForm', name: form.name }, `Deleted ${form.name}.`)}
    />
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
    {#each slots as slot, index (slot.id)}
      <SlotRow
        {botId}
        {form}
        {slot}
        entities={view.entities}
        lists={view.lists}
        {inserts}
        language={view.language}
        first={index === 0}
        last={index === slots.length - 1}
        missing={notes.some((note) => note.place.slot === slot.name && note.weight === 'missing')}
        move={(by) => moveSlot(slot, by)}
        remove={() => removeSlot(slot)}
      />
    {/each}
    <tr>
      <td colspan="6">
        <NewName
          text="Add a slot"
          label="Name of the new slot"
          action="Add the slot"
          placeholder="What the form needs to know"
          submit={addSlot}
        />
      </td>
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
  <div class="desk">
    <span class="soft" aria-hidden="true">On a no</span>
    <Choice
      label="On a no"
      value={form.onNo ?? 'change'}
      options={[
        { value: 'change', text: 'ask what to change; a second no leaves' },
        { value: 'leave', text: 'say the text and leave' },
      ]}
      keep={(value) => change({ onNo: value === 'leave' ? 'leave' : null })}
    />
  </div>
  <TextLines
    label="Done"
    text={form.done}
    language={view.language}
    placeholder="Said when the form is complete"
    {inserts}
    keep={(text) => keepText({ done: text })}
  />
  <div class="desk">
    <span class="soft" aria-hidden="true">Then to desk</span>
    <Choice
      label="Then to desk"
      value={form.desk ?? ''}
      options={[{ value: '', text: 'none' }, ...view.desks]}
      keep={(desk) => change({ desk: desk || null })}
    />
  </div>
</div>

<style>
  header {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.6rem 0.75rem;
  }

  .name {
    min-width: 0;
  }

  .opened {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .opener {
    flex: none;
    width: 12rem;
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
