<script lang="ts">
  import { goto } from '$app/navigation';
  import { variants, withVariants } from '$core/bot/localised.js';
  import type { IntentSheet, TeachView } from '$core/contract/teach.js';
  import type { IntentChange } from '$core/bot/edit.js';
  import { edit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import { share } from '../shared/format.js';
  import NameDialog from '../shared/NameDialog.svelte';

  const { botId, intent, view }: { botId: number; intent: IntentSheet; view: TeachView } = $props();

  let renaming = $state(false);

  const reply = $derived(variants(intent.reply ?? undefined, view.language).join('\n'));

  async function rename(name: string): Promise<boolean> {
    const done = name === intent.name || (await change({ name }));
    if (done) await goto(`/bots/${botId}/teach?intent=${encodeURIComponent(name)}`);
    return done;
  }

  async function remove() {
    await edit(botId, { do: 'deleteIntents', names: [intent.name] }, `Deleted ${intent.name}.`);
  }

  const change = (to: IntentChange) => edit(botId, { do: 'changeIntent', name: intent.name, to });

  const setReply = (text: string) =>
    change({ reply: text.trim() ? withVariants(intent.reply ?? undefined, view.language, text.split('\n')) : null });

  async function setForm(value: string) {
    if (value !== '+') await change({ form: value || null });
    else if (await edit(botId, { do: 'addForm', name: `${intent.name}_form`, intent: intent.name })) {
      await goto(`/bots/${botId}/say?form=${encodeURIComponent(`${intent.name}_form`)}`);
    }
  }
</script>

<header>
  <div class="title">
    <h1>{intent.name}</h1>
    <span class="figure soft">{intent.rows.length} utterances · held-out recall {share(intent.recall)}</span>
    <span class="acts">
      <button class="quiet" onclick={() => (renaming = true)}>Rename</button>
      <button class="quiet danger" onclick={remove}>Delete</button>
    </span>
  </div>
  <label class="wide">
    <span class="soft">Means</span>
    <Cell
      value={intent.description}
      placeholder="What the customer wants, in a sentence"
      keep={(text) => change({ description: text.trim() })}
    />
  </label>
  <div class="then">
    <label>
      <span class="soft">Form</span>
      <select class="cell" value={intent.form ?? ''} onchange={(event) => setForm(event.currentTarget.value)}>
        <option value="">none</option>
        {#each view.forms as form (form)}<option value={form}>{form}</option>{/each}
        <option value="+">a new form …</option>
      </select>
    </label>
    <label>
      <span class="soft">Desk</span>
      <select
        class="cell"
        value={intent.desk ?? ''}
        onchange={(event) => change({ desk: event.currentTarget.value || null })}
      >
        <option value="">none</option>
        {#each view.desks as desk (desk)}<option value={desk}>{desk}</option>{/each}
      </select>
    </label>
    <label class="reply">
      <span class="soft">Reply</span>
      <Cell value={reply} lines placeholder="Said when it is accepted; a line for each variant" keep={setReply} />
    </label>
  </div>
</header>
<NameDialog
  bind:open={renaming}
  heading="Rename {intent.name}"
  label="Name"
  action="Rename"
  initial={intent.name}
  submit={rename}
/>

<style>
  header {
    padding: 0.6rem 0.75rem 0.4rem;
    border-bottom: 1px solid var(--line);
    display: grid;
    gap: 0.25rem;
  }

  .title {
    display: flex;
    align-items: baseline;
    gap: 0.75rem;
  }

  .acts {
    margin-left: auto;
  }

  label {
    display: flex;
    align-items: baseline;
    gap: 0.35rem;
  }

  .then {
    display: flex;
    gap: 1rem;
  }

  .then select {
    width: 9.5rem;
  }

  .reply {
    flex: 1;
  }
</style>
