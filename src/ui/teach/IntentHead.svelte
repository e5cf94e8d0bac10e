<script lang="ts">
  import { goto } from '$app/navigation';
  import type { IntentSheet, TeachView } from '$core/contract/teach.js';
  import type { IntentChange } from '$core/bot/acts/index.js';
  import TextLines from '../say/TextLines.svelte';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import Term from '../shared/Term.svelte';
  import { TERMS } from '../shared/terms.js';
  import Tick from '../shared/Tick.svelte';
  import { share } from '../shared/format.js';
  import Act from '../shared/Act.svelte';

  const { botId, intent, view }: { botId: number; intent: IntentSheet; view: TeachView } = $props();

  async function rename(text: string): Promise<true | string> {
    const name = text.trim();
    const done = await keep({ name });
    if (done === true) await goto(`/bots/${botId}/teach?intent=${encodeURIComponent(name)}`);
    return done;
  }

  async function remove() {
    await edit(botId, { do: 'deleteIntents', names: [intent.name] }, `Deleted ${intent.name}.`);
  }

  const NONE = { value: '', text: 'none' };

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
    <h1 class="unseen">{intent.name}</h1>
    <span class="name"><Cell look="title" label="Name of the intent" value={intent.name} keep={rename} /></span>
    <span class="soft measures"
      ><span class="figure">{intent.count}</span> utterances · <Term means={TERMS.heldOut}>held-out recall</Term>
      <span class="figure">{share(intent.recall)}</span></span
    >
    <span class="acts"><Act icon="delete" look="grave" label="Delete the intent {intent.name}" onclick={remove} /></span
    >
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
    <Tick label="offered in clarifications and help" checked={intent.offered} keep={(offered) => change({ offered })} />
  </div>
  <div class="then">
    <Choice
      label="Form"
      showLabel
      value={intent.form ?? ''}
      options={[NONE, ...view.forms, { value: '+', text: 'a new form …' }]}
      keep={setForm}
    />
    <Choice
      label="Desk"
      showLabel
      value={intent.desk ?? ''}
      options={[NONE, ...view.desks]}
      keep={(desk) => change({ desk: desk || null })}
    />
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
    width: 10rem;
  }

  .measures {
    white-space: nowrap;
  }

  .name {
    min-width: 0;
    flex: 0 1 auto;
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

  .reply :global(.alone) {
    grid-template-columns: auto minmax(0, 1fr);
  }

  .reply {
    flex: 1;
  }
</style>
