<script lang="ts">
  import type { BotFrame, ModelState } from '$core/contract/bot.js';
  import { stepHistory } from './acts.js';
  import { counted, moment } from './format.js';
  import { live } from './live.svelte.js';
  import Act from './Act.svelte';
  import Find from './Find.svelte';
  import NoticeLine from './NoticeLine.svelte';
  import { TERMS } from './terms.js';
  import ThemeButton from './ThemeButton.svelte';

  const { frame }: { frame: BotFrame } = $props();

  const model = $derived(live.model ?? frame.model);

  const encoding = $derived(live.jobs.find(({ kind, state }) => kind === 'encoding' && state === 'running'));

  const undoTitle = $derived.by(() => {
    const { undo } = frame.history;
    if (undo === null) return 'Nothing to undo';
    return undo.own ? `Undo: ${undo.label} (Ctrl Z)` : `Done by somebody else: ${undo.label}. You are asked first`;
  });

  function describe(state: ModelState): string {
    if (state.fault) return 'model not trained';
    if (state.state !== 'current' && encoding)
      return `encoding ${encoding.done} of ${counted(encoding.total, 'text')} …`;
    if (state.state === 'none') return 'training the first model …';
    if (state.state === 'catching up') return 'model catching up …';
    if (state.leftOut > 0) return `model current, without ${counted(state.leftOut, 'utterance')}`;
    return state.seconds === null ? 'model current' : `model current, ${state.seconds.toFixed(1)} s`;
  }
</script>

<header>
  <a class="product" href="/">Reed Gate</a>
  <span aria-hidden="true">·</span>
  <a class="bot" href="/bots/{frame.bot.id}/settings" title="Settings of the bot">{frame.bot.name}</a>
  <span class="history">
    <Act disabled={frame.history.undo === null} title={undoTitle} onclick={() => stepHistory(frame.bot.id, 'undo')}
      >Undo</Act
    >
    <Act
      disabled={frame.history.redo === null}
      title={frame.history.redo === null ? 'Nothing to do again' : `Do again: ${frame.history.redo} (Ctrl Shift Z)`}
      onclick={() => stepHistory(frame.bot.id, 'redo')}>Redo</Act
    >
  </span>
  <span class="notice"><NoticeLine /></span>
  {#if live.lost}
    <span class="lost" role="status">The server cannot be heard: what is shown may be old. Trying again …</span>
  {:else if live.others !== null}
    <span class="others" role="status">Somebody else: {live.others}</span>
  {/if}
  <span
    class="model {model.state === 'current' ? '' : 'behind'}"
    role="status"
    data-state={model.state}
    title={model.fault ??
      (model.trainedAt ? `Taught ${moment(model.trainedAt)}, with change ${model.revision}. ${TERMS.change}` : '')}
    >{describe(model)}</span
  >
  <Find {frame} />
  <ThemeButton />
</header>

<style>
  header {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    padding: 0.3rem 0.75rem;
    min-height: 2.4rem;
  }

  .product {
    color: var(--ink);
    text-decoration: none;
    font-weight: 600;
  }

  .bot {
    color: var(--ink);
    text-decoration-color: var(--line-strong);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .history {
    margin-left: 0.5rem;
    white-space: nowrap;
  }

  .notice {
    flex: 1;
    min-width: 0;
  }

  .model {
    margin-left: 0.5rem;
    margin-right: 0.5rem;
    color: var(--ink-soft);
    white-space: nowrap;
  }

  .others,
  .lost {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: var(--ink-soft);
  }

  .lost {
    color: var(--none);
  }

  .model.behind {
    color: var(--asked);
  }
</style>
