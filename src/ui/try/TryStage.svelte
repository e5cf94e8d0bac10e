<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount, tick } from 'svelte';
  import type { TestSetSummary } from '$core/contract/prove.js';
  import type { PersonSaid, StoredConversation, TryView } from '$core/contract/try.js';
  import { probe } from '../probe/probe.svelte.js';
  import { tell } from '../shared/acts.js';
  import { send, sendFile } from '../shared/api.js';
  import Cell from '../shared/Cell.svelte';
  import FirstSteps from '../shared/FirstSteps.svelte';
  import { counted } from '../shared/format.js';
  import NewName from '../shared/NewName.svelte';
  import { notices } from '../shared/notices.svelte.js';
  import ConversationList from './ConversationList.svelte';
  import Says from './Says.svelte';
  import TurnRow from './TurnRow.svelte';
  import { walkthroughOf } from './walkthroughOf.js';
  import WalkthroughList from './WalkthroughList.svelte';
  import { live, refresh } from '../shared/live.svelte.js';
  import Act from '../shared/Act.svelte';

  const { botId, view, testSets }: { botId: number; view: TryView; testSets: TestSetSummary[] } = $props();

  let record = $state<HTMLElement | null>(null);
  let busy = $state(false);

  const turns = $derived(view.conversation?.turns ?? []);
  const over = $derived(view.conversation?.state.outcome === 'handed_off' && view.conversation.state.desk !== null);

  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    busy = true;
    try {
      await work();
      await refresh();
      await tick();
      record?.scrollTo({ top: record.scrollHeight });
      return true;
    } catch (error) {
      tell(error);
      return false;
    } finally {
      busy = false;
    }
  }

  const path = $derived(`/api/bots/${botId}/conversations`);
  const here = (query = '') => goto(`/bots/${botId}/try${query}`, { keepFocus: true });

  const start = () =>
    attempt(async () => {
      await send('POST', path);
      await here();
    });

  /** Changes what the list shows of the conversation. @returns whether it was kept */
  const change = (to: { name?: string | null; kept?: boolean }) =>
    attempt(() => send('PATCH', `${path}/${view.conversation!.id}`, to));

  const say = (said: PersonSaid) =>
    attempt(async () => {
      const id = view.conversation?.id ?? (await send<{ id: number }>('POST', path)).id;
      // A turn that is sent again because the answer was lost is taken once.
      await send('POST', `${path}/${id}/turns`, { ...said, clientId: crypto.randomUUID?.() });
    });

  const remove = () => {
    const { conversation } = view;
    return (
      conversation &&
      attempt(async () => {
        await send('DELETE', `${path}/${conversation.id}`);
        await here();
      })
    );
  };

  async function goBack(position: number) {
    const { conversation } = view;
    const turn = turns.find((candidate) => candidate.position === position);
    if (!conversation || !turn) return;
    await attempt(() => send('DELETE', `${path}/${conversation.id}/turns?from=${position}`));
    if (turn.said.type === 'text') probe.text = turn.said.text;
    probe.focus();
  }

  async function keep(name: string): Promise<boolean> {
    const { conversation } = view;
    if (!conversation) return false;
    const done = await attempt(async () => {
      const whole = await send<StoredConversation>('GET', `${path}/${conversation.id}`);
      const file = new Blob([JSON.stringify([walkthroughOf(name, whole)])]);
      await sendFile(`/api/bots/${botId}/walkthroughs`, file);
    });
    live.expectChange();
    if (done) notices.say('success', `Kept as a walkthrough; it runs after each change.`);
    return done;
  }

  /** Puts what the customer said into a test set, without labels: they are given in Prove. @param name of the set, or of a new one */
  async function testWith(name: string): Promise<boolean> {
    const { conversation } = view;
    if (!conversation) return false;
    const sets = `/api/bots/${botId}/test-sets`;
    return attempt(async () => {
      const whole = await send<StoredConversation>('GET', `${path}/${conversation.id}`);
      const texts = whole.turns.flatMap(({ said }) => (said.type === 'text' ? [said.text] : []));
      const lines = [...new Set(texts)].map((text) => ({ text }));
      const known = testSets.find((set) => set.name.toLowerCase() === name.toLowerCase());
      const { id } = known ?? (await send<{ id: number }>('POST', `${sets}/new`, { name }));
      await send('POST', `${sets}/${id}/lines`, { lines });
      notices.say('success', `Added ${counted(lines.length, 'message')} to ${known?.name ?? name}.`, {
        label: 'Label them',
        run: () => void goto(`/bots/${botId}/prove?set=${id}&show=lines`),
      });
    });
  }

  onMount(() => {
    probe.takeOver = async (text) => {
      // What could not be sent goes back into the line, unless something else is written there by now.
      if (!(await say({ type: 'text', text })) && probe.text === '') probe.text = text;
    };
    probe.purpose = 'Say something as a customer';
    record?.scrollTo({ top: record.scrollHeight });
    return () => {
      probe.takeOver = null;
      probe.purpose = 'Try any message';
    };
  });
</script>

<div class="try">
  <section class="work" aria-label="Conversation">
    <div class="tools">
      <h1 class="unseen">{view.conversation ? `Conversation ${view.conversation.id}` : 'Conversation'}</h1>
      <div class="title">
        {#if view.conversation}
          {@const { id, name } = view.conversation}
          {#key id}
            <Cell
              look="title"
              label="Name of the conversation"
              value={name ?? ''}
              placeholder="Conversation {id}"
              keep={(text) => change({ name: text.trim() || null })}
            />
          {/key}
        {/if}
      </div>
      <Act look="firm" onclick={start} disabled={busy}>Start anew</Act>
      {#if over}
        <span class="soft">with {view.conversation?.state.desk}; the bot is silent</span>
        <Act onclick={() => say({ type: 'handBack' })} disabled={busy}>Hand back</Act>
      {:else}
        <Act onclick={() => say({ type: 'noInput' })} disabled={busy}>Say nothing</Act>
      {/if}
      <NewName
        look="quiet"
        text="Keep as a walkthrough"
        label="Name of the walkthrough"
        action="Keep it"
        placeholder="Must end as it stands now"
        disabled={turns.length === 0}
        submit={keep}
      />
      <NewName
        look="quiet"
        text="Test with it"
        label="Test set that the messages go to"
        action="Add them"
        placeholder={testSets[0]?.name ?? 'a new test set'}
        disabled={busy || turns.every(({ said }) => said.type !== 'text')}
        submit={testWith}
      />
      <Act
        aria-pressed={view.conversation?.kept ?? false}
        title="Conversations that are not kept go when there are more than two hundred"
        onclick={() => change({ kept: !view.conversation?.kept })}
        disabled={busy || !view.conversation}>{view.conversation?.kept ? 'Kept' : 'Keep'}</Act
      >
      <Act
        icon="delete"
        look="grave"
        label="Delete the conversation"
        onclick={remove}
        disabled={busy || !view.conversation}
      />
    </div>
    <div class="record" bind:this={record}>
      <table class="sheet">
        <thead>
          <tr>
            <th scope="col">Said</th>
            <th scope="col">Read as</th>
            <th scope="col">Holds</th>
          </tr>
        </thead>
        <tbody>
          {#if (turns[0]?.position ?? 0) > 0}
            <tr><td colspan="3"><a href="?conversation={view.conversation?.id}&all">Show the turns before</a></td></tr>
          {:else if view.greeting}
            <tr
              ><td><Says says={[{ text: view.greeting }]} live={false} choose={() => undefined} /></td><td></td><td
              ></td></tr
            >
          {/if}
          {#each turns as turn, index (turn.position)}
            <TurnRow
              {botId}
              {turn}
              last={index === turns.length - 1}
              back={() => goBack(turn.position)}
              choose={(intent) => say({ type: 'choice', intent })}
            />
          {/each}
        </tbody>
      </table>
      {#if turns.length === 0}
        <p class="soft hint">
          Write what a customer would say in the line below. Each turn shows what was read and what the form holds.
        </p>
      {/if}
    </div>
  </section>
  <aside class="margin" aria-label="Margin">
    <FirstSteps {botId} />
    <section class="conversations">
      <ConversationList {botId} conversations={view.conversations} current={view.conversation?.id ?? null} />
    </section>
    <WalkthroughList {botId} walkthroughs={view.walkthroughs} />
  </aside>
</div>

<style>
  .try {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 17rem;
    height: 100%;
  }

  .work {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    min-height: 0;
  }

  .tools {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    padding: 0.5rem 0.75rem;
    border-bottom: 1px solid var(--line);
  }

  .title {
    flex: 1;
    min-width: 8rem;
  }

  .conversations {
    margin-bottom: 1.25rem;
  }

  .record {
    overflow-y: auto;
    min-height: 0;
  }

  table {
    table-layout: fixed;
  }

  th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
  }

  th:first-child {
    width: 40%;
  }

  th:nth-child(3) {
    width: 24%;
  }

  .hint {
    padding: 1rem 0.75rem;
  }

  .margin {
    border-left: 1px solid var(--line);
    background: var(--paper-deep);
    padding: 0.75rem;
    overflow-y: auto;
  }
</style>
