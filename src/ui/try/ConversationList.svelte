<script lang="ts">
  import type { ConversationSummary } from '$core/contract/try.js';
  import { counted, moment } from '../shared/format.js';
  import Act from '../shared/Act.svelte';

  /** The person's own conversations with the bot. */
  const {
    botId,
    conversations,
    current,
  }: { botId: number; conversations: ConversationSummary[]; current: number | null } = $props();

  const SHOWN = 6;
  let all = $state(false);

  const titleOf = ({ id, name, opening }: ConversationSummary) => name ?? opening ?? `Conversation ${id}`;
</script>

<h2>Your conversations <span class="soft figure">{conversations.length}</span></h2>
{#if conversations.length === 0}
  <p class="soft">None yet. They are yours: nobody else sees them here.</p>
{/if}
<nav aria-label="Conversations">
  {#each all ? conversations : conversations.slice(0, SHOWN) as item (item.id)}
    <a
      class="entry"
      href="/bots/{botId}/try?conversation={item.id}"
      aria-current={item.id === current ? 'true' : undefined}
      title="Conversation {item.id}, begun {moment(item.startedAt)}"
    >
      <span class="name" class:customer={item.name === null && item.opening !== null}>{titleOf(item)}</span>
      <span class="soft figure"
        >{item.turns}<span class="unseen"> {item.turns === 1 ? 'turn' : 'turns'}{item.kept ? ', kept' : ''}</span></span
      >
      <span class="mark" aria-hidden="true">{item.kept ? '▪' : ''}</span>
    </a>
  {/each}
</nav>
{#if conversations.length > SHOWN && !all}
  <Act onclick={() => (all = true)}>Show {counted(conversations.length - SHOWN, 'more', 'more')}</Act>
{/if}

<style>
  h2 {
    margin-bottom: 0.25rem;
  }

  nav {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
  }

  .entry {
    display: flex;
    gap: 0.4rem;
    align-items: baseline;
    padding: 0.15rem 0;
    color: var(--ink);
    text-decoration: none;
  }

  .entry:hover {
    background: var(--reed-wash);
  }

  .entry[aria-current] .name {
    font-weight: 600;
  }

  .name {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .mark {
    color: var(--reed);
    width: 0.6rem;
  }
</style>
