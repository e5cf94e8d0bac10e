<script lang="ts">
  import type { SayList } from '$core/contract/say.js';
  import ListHead from '../shared/ListHead.svelte';

  /** The forms of a bot, what it has nothing to say to, and the way to the sentences of the whole bot. */
  let {
    botId,
    list,
    current,
    naming = $bindable(false),
    create = null,
  }: {
    botId: number;
    list: SayList;
    current: string | null;
    /** Whether a new form is being named. */
    naming?: boolean;
    /** `null` where no form is made. */
    create?: ((name: string) => Promise<boolean>) | null;
  } = $props();
</script>

<div class="list">
  <ListHead heading="Forms" count={list.forms.length} kind="form" placeholder="What it takes in" bind:naming {create} />
  <nav aria-label="Forms">
    {#each list.forms as form (form.name)}
      <a
        class="entry"
        href="/bots/{botId}/say?form={encodeURIComponent(form.name)}"
        aria-current={form.name === current ? 'true' : undefined}
      >
        <span class="name">{form.name}</span>
        {#if form.missing}<span class="missing">missing</span>{:else}<span class="figure soft">{form.slots}</span>{/if}
      </a>
    {/each}
  </nav>
  <div class="head always"><h2>Whole bot</h2></div>
  <nav aria-label="Whole bot">
    <a class="entry" href="/bots/{botId}/say/texts" aria-current={current === null && !create ? 'true' : undefined}>
      <span class="name">Sentences and desks</span>
      {#if list.textsMissing > 0}<span class="missing">{list.textsMissing} missing</span>{/if}
    </a>
  </nav>
  {#if list.unanswered.length > 0}
    <div class="head always"><h2>Nothing to say to</h2></div>
    <nav aria-label="Intents with nothing to say">
      {#each list.unanswered as intent (intent)}
        <a class="entry" href="/bots/{botId}/teach?intent={encodeURIComponent(intent)}">
          <span class="name">{intent}</span><span class="missing">missing</span>
        </a>
      {/each}
    </nav>
  {/if}
</div>

<style>
  .always {
    margin-top: 1rem;
  }

  .missing {
    color: var(--none);
    font-size: 0.75rem;
  }
</style>
