<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Trial } from '$core/contract/trial.js';
  import type { SimulatedConversation, SimulatedEnd } from '$core/simulate/simulate.js';
  import { walkthroughOf } from '$core/simulate/walkthrough.js';
  import { TEMPERS } from '$core/simulate/tempers.js';
  import { tell } from '../shared/acts.js';
  import { send, sendFile } from '../shared/api.js';
  import { live } from '../shared/live.svelte.js';
  import Act from '../shared/Act.svelte';
  import Bar from '../shared/Bar.svelte';
  import Choice from '../shared/Choice.svelte';
  import { percent } from '../shared/format.js';
  import { notices } from '../shared/notices.svelte.js';

  const { botId, trial }: { botId: number; trial: Trial<'customers'> } = $props();

  const { figures, conversations } = $derived(trial.result);
  const ENDS: readonly SimulatedEnd[] = [
    'completed wrongly',
    'another form',
    'handed over',
    'cancelled',
    'given up',
    'not understood',
    'stuck',
  ];
  const MOST_SHOWN = 100;
  const share = (part: number, whole: number) => (whole === 0 ? null : part / whole);

  let end = $state('not completed');
  const shown = $derived(
    conversations
      .filter((one) => (end === 'all' ? true : end === 'not completed' ? one.end !== 'completed' : one.end === end))
      .slice(0, MOST_SHOWN),
  );
  let busy = $state(false);

  /** Has the conversation again in Try, with the bot as it is now. */
  async function openInTry({ transcript }: SimulatedConversation) {
    busy = true;
    try {
      const { id } = await send<{ id: number }>('POST', `/api/bots/${botId}/conversations`);
      for (const { user, noInput } of transcript) {
        const said = noInput ? { type: 'noInput' } : { type: 'text', text: user };
        await send('POST', `/api/bots/${botId}/conversations/${id}/turns`, said);
      }
      await goto(`/bots/${botId}/try?conversation=${id}`, { invalidateAll: true });
    } catch (error) {
      tell(error);
    } finally {
      busy = false;
    }
  }

  async function keep(conversation: SimulatedConversation) {
    try {
      const file = new Blob([JSON.stringify([walkthroughOf(conversation, trial.result.now)])]);
      await sendFile(`/api/bots/${botId}/walkthroughs`, file);
      live.expectChange();
      notices.say('success', 'Kept as a walkthrough; it runs after each change.');
    } catch (error) {
      tell(error);
    }
  }
</script>

{#if figures.all.conversations === 0}
  <p>The bot has no form that an intent with utterances opens: there is nothing to come for.</p>
{:else}
  <p class="sentence">
    <strong>{percent(share(figures.all.completed, figures.all.conversations))}</strong> of {figures.all.conversations} customers
    got what they came for{#if figures.all.turns !== null}, in {figures.all.turns.toFixed(1)} messages on the mean{/if}{#if figures.all.interval};
      of others like them {percent(figures.all.interval.low)} to {percent(figures.all.interval.high)} would{/if}.
  </p>
  <div class="both">
    {#each [{ name: 'customer', rows: figures.tempers }, { name: 'form', rows: figures.forms }] as { name, rows } (name)}
      <table class="sheet">
        <thead>
          <tr>
            <th scope="col">{name}</th>
            <th scope="col" class="number">completed</th>
            <th scope="col"><span class="unseen">as a bar</span></th>
            <th scope="col" class="number">messages</th>
            <th scope="col">otherwise</th>
          </tr>
        </thead>
        <tbody>
          {#each rows as row (row.name)}
            <tr data-row={row.name}>
              <th scope="row" title={TEMPERS.find((temper) => temper.name === row.name)?.means}>{row.name}</th>
              <td class="number">{row.completed} of {row.conversations}</td>
              <td><Bar value={share(row.completed, row.conversations)} /></td>
              <td class="number">{row.turns?.toFixed(1) ?? '–'}</td>
              <td
                >{ENDS.filter((one) => row.ends[one])
                  .map((one) => `${row.ends[one]} ${one}`)
                  .join(', ')}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {/each}
  </div>
  {#if figures.places.length > 0}
    <h2>Where they get stuck</h2>
    <ul class="places">
      {#each figures.places.slice(0, 8) as place (`${place.form} ${place.at} ${place.end}`)}
        <li><span class="figure">{place.count}</span> in <strong>{place.form}</strong> at {place.at}: {place.end}</li>
      {/each}
    </ul>
  {/if}
  <div class="head">
    <h2>Conversations</h2>
    <Choice
      label="Which conversations"
      value={end}
      options={['not completed', 'completed', ...ENDS, 'all']}
      keep={(chosen) => void (end = chosen)}
    />
    <span class="soft">{shown.length} shown</span>
  </div>
  <ul aria-label="Conversations">
    {#each shown as conversation (conversation.number)}
      <li>
        <details>
          <summary>
            <span class="figure">{conversation.number}</span>
            {conversation.temper}, {conversation.intent}: {conversation.end}{#if conversation.at}&nbsp;at {conversation.at}{/if}{#if conversation.wrong.length > 0},
              {conversation.wrong.join(', ')} wrong{/if}
          </summary>
          <ol>
            {#each conversation.transcript as turn, at (at)}
              <li>
                <span class="customer">{turn.user ?? '(nothing)'}</span>
                {#each turn.says as text, index (index)}<div class="bot">{text}</div>{/each}
              </li>
            {/each}
          </ol>
          <Act look="firm" disabled={busy} onclick={() => openInTry(conversation)}>Open in Try</Act>
          <Act onclick={() => keep(conversation)}>Keep as a walkthrough</Act>
        </details>
      </li>
    {:else}
      <li class="soft">None.</li>
    {/each}
  </ul>
{/if}

<style>
  .sentence {
    margin-bottom: 0.5rem;
  }

  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.5rem;
    align-items: start;
    margin-bottom: 0.75rem;
  }

  .head {
    display: flex;
    gap: 1rem;
    align-items: center;
    margin-top: 0.75rem;
  }

  li {
    padding-block: 0.1rem;
    border-bottom: 1px solid var(--line);
  }

  .places li,
  ol li {
    border: 0;
  }

  ol {
    padding: 0.25rem 0 0.5rem 1.5rem;
    max-width: 60rem;
  }

  .bot {
    padding-left: 1.5rem;
    color: var(--ink-soft);
  }
</style>
