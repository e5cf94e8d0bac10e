<script lang="ts">
  import type { ModelState, BotFrame } from '$core/contract/bot.js';
  import type { Recognition } from '$core/recognise/recognition.js';
  import { ApiError, send } from '../shared/api.js';
  import { live } from '../shared/live.svelte.js';
  import Explanation from '../shared/Explanation.svelte';
  import { probe } from './probe.svelte.js';
  import ProbeActs from './ProbeActs.svelte';
  import ProbeResult from './ProbeResult.svelte';
  import Act from '../shared/Act.svelte';

  const { botId, intents, testSets }: { botId: number; intents: string[]; testSets: BotFrame['testSets'] } = $props();

  /** A pause in typing, in milliseconds, after which the message is read. */
  const PAUSE = 40;

  let result = $state.raw<(Recognition & { model: ModelState }) | null>(null);
  let refused = $state<string | null>(null);
  let kept = $state(false);
  let why = $state(false);
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let request: AbortController | null = null;

  async function read(text: string) {
    request?.abort();
    request = new AbortController();
    const { signal } = request;
    try {
      result = await send('POST', `/api/bots/${botId}/recognise`, { text }, signal);
      refused = null;
    } catch (error) {
      if (signal.aborted) return;
      if (!(error instanceof ApiError)) throw error;
      result = null;
      refused = error.message;
    }
  }

  $effect(() => {
    const { text } = probe;
    // A newly taught model reads the line anew.
    void live.model?.revision;
    clearTimeout(waiting);
    if (text.trim() === '') {
      request?.abort();
      result = null;
      refused = null;
      kept = false;
    } else if (intents.length > 0) waiting = setTimeout(() => void read(text), PAUSE);
    return () => clearTimeout(waiting);
  });

  async function pressed(event: KeyboardEvent) {
    if (event.key === 'Escape') {
      if (why) why = false;
      else probe.text = '';
      kept = false;
    } else if (event.key === 'Enter' && probe.text.trim() !== '') {
      event.preventDefault();
      if (probe.takeOver) {
        const said = probe.text;
        probe.text = '';
        await probe.takeOver(said);
      } else kept = true;
    }
  }
</script>

<section class="probe" aria-label="Probe">
  <div class="line">
    <label for="probe">{probe.takeOver ? 'Say' : 'Probe'} <span aria-hidden="true">▸</span></label>
    <input
      id="probe"
      bind:this={probe.input}
      bind:value={probe.text}
      oninput={() => (kept = false)}
      onkeydown={pressed}
      class="customer"
      autocomplete="off"
      spellcheck="false"
      placeholder={intents.length === 0 ? 'Teach an intent first, then try any message here' : probe.purpose}
    />
    <span class="soft keys"
      ><kbd>/</kbd> to come here, <kbd>Enter</kbd> to {probe.takeOver ? 'say it' : 'act on it'}</span
    >
  </div>
  <div class="result" class:used={refused !== null || result !== null} aria-live="polite">
    {#if refused}
      <span class="refused">{refused}</span>
    {:else if result}
      <ProbeResult recognition={result} />
      <Act aria-expanded={why} onclick={() => (why = !why)}>Why</Act>
    {/if}
  </div>
  {#if why && result}
    <div class="bounded"><Explanation {botId} text={result.text} /></div>
  {/if}
  {#if kept && result}
    <ProbeActs {botId} recognition={result} {intents} {testSets} done={() => (kept = false)} />
  {/if}
</section>

<style>
  /* The stage keeps most of the height; in Try, whose column scrolls, an explanation is shown whole. */
  .bounded {
    max-height: 16rem;
    overflow-y: auto;
  }

  .probe {
    border-top: 1px solid var(--line-strong);
    background: var(--paper-deep);
    padding: 0.35rem 0.75rem 0.45rem;
  }

  .line {
    display: flex;
    align-items: center;
    gap: 0.5rem;
  }

  label {
    font-weight: 600;
    color: var(--reed);
    white-space: nowrap;
  }

  input {
    flex: 1;
    min-width: 0;
    border: 0;
    border-bottom: 1px solid var(--line-strong);
    background: transparent;
    color: var(--ink);
    font-size: 1rem;
    padding: 0.2rem 0.25rem;
  }

  .keys {
    font-size: 0.75rem;
    white-space: nowrap;
  }

  /* One line high until it is used. */
  .result.used {
    min-height: 2.9rem;
    display: flex;
    align-items: center;
    gap: 0.75rem;
  }

  .refused {
    color: var(--none);
  }
</style>
