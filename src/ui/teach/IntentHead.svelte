<script lang="ts">
  import { goto } from '$app/navigation';
  import type { IntentSheet, TeachView } from '$core/contract/teach.js';
  import type { IntentChange } from '$core/bot/acts/index.js';
  import TextLines from '../say/TextLines.svelte';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import { share } from '../shared/format.js';
  import NameDialog from '../shared/NameDialog.svelte';

  const { botId, intent, view }: { botId: number; intent: IntentSheet; view: TeachView } = $props();

  let renaming = $state(false);

  async function rename(name: string): Promise<boolean> {
    const done = name === intent.name || (await change({ name }));
    if (done) await goto(`/bots/${botId}/teach?intent=${encodeURIComponent(name)}`);
    return done;
  }

  async function remove() {
    await edit(botId, { do: 'deleteIntents', names: [intent.name] }, `Deleted ${intent.name}.`);
  }

  const change = (to: IntentChange) => edit(botId, { do: 'changeIntent', name: intent.name, to });

  const keep = (to: IntentChange) => keepEdit(botId, { do: 'changeIntent', name: intent.name, to });

  async function setForm(value: string): Promise<boolean> {
    if (value !== '+') return change({ form: value || null });
    const name = `${intent.name}_form`;
    if (!(await edit(botId, { do: 'addForm', name, intent: intent.name }))) return false;
    await goto(`/bots/${botId}/say?form=${encodeURIComponent(name)}`);
    return true;
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
      placeholder="What the customer wants, in a sentence; for you and the model, customers do not see it"
      keep={(text) => keep({ description: text.trim() })}
    />
  </label>
  <div class="called">
    <TextLines
      label="Called"
      text={intent.called ?? undefined}
      language={view.language}
      placeholder="{intent.proposed} (how customers hear it named)"
      keep={(called) => keep({ called })}
    />
    <label>
      <input
        type="checkbox"
        checked={intent.offered}
        onchange={async (event) => {
          const box = event.currentTarget;
          if (!(await change({ offered: box.checked }))) box.checked = intent.offered;
        }}
      />
      <span class="soft">offered in clarifications and help</span>
    </label>
  </div>
  <div class="then">
    <label>
      <span class="soft">Form</span>
      <Choice value={intent.form ?? ''} keep={setForm}>
        <option value="">none</option>
        {#each view.forms as form (form)}<option value={form}>{form}</option>{/each}
        <option value="+">a new form …</option>
      </Choice>
    </label>
    <label>
      <span class="soft">Desk</span>
      <Choice value={intent.desk ?? ''} keep={(desk) => change({ desk: desk || null })}>
        <option value="">none</option>
        {#each view.desks as desk (desk)}<option value={desk}>{desk}</option>{/each}
      </Choice>
    </label>
    <div class="reply">
      <TextLines
        label="Reply"
        text={intent.reply ?? undefined}
        language={view.language}
        placeholder="Said when it is accepted; a line for each variant"
        keep={(reply) => keep({ reply })}
      />
    </div>
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
    align-items: start;
    gap: 1rem;
  }

  .then :global(select) {
    width: 8.5rem;
  }

  .called {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 1rem;
    align-items: start;
  }

  .called :global(.alone) {
    grid-template-columns: auto minmax(0, 1fr);
  }

  .called label {
    padding-top: 0.2rem;
  }

  .reply :global(.alone) {
    grid-template-columns: auto minmax(0, 1fr);
  }

  .reply {
    flex: 1;
  }
</style>
