<script lang="ts">
  import { goto } from '$app/navigation';
  import { escapeMarking, writeMarking } from '$core/bot/marking.js';
  import type { BotFrame } from '$core/contract/bot.js';
  import type { Recognition } from '$core/recognise/recognition.js';
  import { edit, tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import { notices } from '../shared/notices.svelte.js';
  import { probe } from './probe.svelte.js';
  import Choice from '../shared/Choice.svelte';
  import Pick from '../shared/Pick.svelte';
  import { refresh } from '../shared/live.svelte.js';
  import Act from '../shared/Act.svelte';

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
        lines: [{ text: recognition.text, intent: expected === OUT_OF_SCOPE ? null : expected }],
      });
      notices.say('success', 'Added to the test set.');
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
    <Pick label="Teach it to" showLabel up value={target} options={intents} choose={(name) => (chosenTarget = name)} />
    <Act look="firm" onclick={teach}>Teach</Act>
  </span>
  {#if testSets.length > 0}
    <span>
      <Choice
        label="Add to"
        showLabel
        value={String(testSet)}
        options={testSets.map(({ id, name }) => ({ value: String(id), text: name }))}
        keep={(id) => void (chosenSet = Number(id))}
      />
      <Pick
        label="as"
        showLabel
        up
        value={expected}
        options={[...intents, { value: OUT_OF_SCOPE, text: 'out of scope' }]}
        choose={(name) => (chosenExpected = name)}
      />
      <Act look="firm" onclick={addToTest}>Add</Act>
    </span>
  {/if}
  <Act look="firm" onclick={openInTry}>Open in Try</Act>
  <Act onclick={done}>Close</Act>
</div>

<style>
  .acts,
  span {
    display: flex;
    align-items: center;
    gap: 0.5rem;
  }

  .acts {
    flex-wrap: wrap;
    gap: 0.4rem 1.25rem;
    padding-top: 0.35rem;
    border-top: 1px solid var(--line);
  }

  span :global(.bx--list-box) {
    width: 11rem;
  }
</style>
