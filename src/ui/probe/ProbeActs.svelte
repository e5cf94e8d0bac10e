<script lang="ts">
  import { goto } from '$app/navigation';
  import { escapeMarking, writeMarking } from '$core/bot/marking.js';
  import type { BotFrame } from '$core/contract/bot.js';
  import type { Recognition } from '$core/recognise/recognition.js';
  import { edit, tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import { toasts } from '../shared/toasts.svelte.js';
  import { probe } from './probe.svelte.js';
  import { refresh } from '../shared/live.svelte.js';

  /** What can be done with a message that was tried. */
  const {
    botId,
    recognition,
    intents,
    testSets,
    done,
  }: { botId: number; recognition: Recognition; intents: string[]; testSets: BotFrame['testSets']; done: () => void } =
    $props();

  const OUT_OF_SCOPE = ' out of scope';
  const likeliest = $derived(recognition.ranking[0]?.intent ?? intents[0] ?? '');
  // What a person chose stays chosen while the line is read anew.
  let chosenTarget = $state<string | null>(null);
  let chosenExpected = $state<string | null>(null);
  let chosenSet = $state<number | null>(null);
  const target = $derived(chosenTarget ?? likeliest);
  const expected = $derived(chosenExpected ?? likeliest);
  const testSet = $derived(chosenSet ?? testSets[0]?.id ?? 0);

  async function teach() {
    const marks = recognition.ranking[0]?.intent === target ? recognition.slots : [];
    const utterance =
      marks.length > 0 ? writeMarking({ text: recognition.text, marks: [...marks] }) : escapeMarking(recognition.text);
    if (await edit(botId, { do: 'addUtterances', intent: target, utterances: [utterance] }, `Taught to ${target}.`))
      done();
  }

  async function addToTest() {
    try {
      await send('POST', `/api/bots/${botId}/test-sets/${testSet}/lines`, {
        text: recognition.text,
        intent: expected === OUT_OF_SCOPE ? null : expected,
      });
      toasts.say('success', 'Added to the test set.');
      await refresh();
      done();
    } catch (error) {
      tell(error);
    }
  }

  async function openInTry() {
    const { text } = recognition;
    try {
      const { id } = await send<{ id: number }>('POST', `/api/bots/${botId}/conversations`);
      await send('POST', `/api/bots/${botId}/conversations/${id}/turns`, { type: 'text', text });
      probe.text = '';
      await goto(`/bots/${botId}/try`);
    } catch (error) {
      tell(error);
    }
  }
</script>

<div class="acts">
  <span>
    <label
      >Teach it to <select class="cell" value={target} onchange={(event) => (chosenTarget = event.currentTarget.value)}
        >{#each intents as name (name)}<option>{name}</option>{/each}</select
      ></label
    >
    <button class="quiet firm" onclick={teach}>Teach</button>
  </span>
  {#if testSets.length > 0}
    <span>
      <label
        >Add to <select
          class="cell"
          value={testSet}
          onchange={(event) => (chosenSet = Number(event.currentTarget.value))}
          >{#each testSets as set (set.id)}<option value={set.id}>{set.name}</option>{/each}</select
        ></label
      >
      <label>
        as <select class="cell" value={expected} onchange={(event) => (chosenExpected = event.currentTarget.value)}>
          {#each intents as name (name)}<option>{name}</option>{/each}
          <option value={OUT_OF_SCOPE}>out of scope</option>
        </select></label
      >
      <button class="quiet firm" onclick={addToTest}>Add</button>
    </span>
  {/if}
  <button class="quiet firm" onclick={openInTry}>Open in Try</button>
  <button class="quiet" onclick={done}>Close</button>
</div>

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1.25rem;
    align-items: center;
    padding-top: 0.35rem;
    border-top: 1px solid var(--line);
  }

  select {
    width: auto;
    border-color: var(--line-strong);
  }
</style>
