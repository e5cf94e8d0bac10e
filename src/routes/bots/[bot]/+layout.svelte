<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount } from 'svelte';
  import Probe from '$ui/probe/Probe.svelte';
  import { probe } from '$ui/probe/probe.svelte.js';
  import { sendWaiting, stepHistory } from '$ui/shared/acts.js';
  import { notices } from '$ui/shared/notices.svelte.js';
  import { live } from '$ui/shared/live.svelte.js';
  import StageLine from '$ui/shared/StageLine.svelte';
  import { STAGES, stagePath } from '$ui/shared/stages.js';
  import TopBar from '$ui/shared/TopBar.svelte';
  import type { LayoutProps } from './$types';

  const { data, children }: LayoutProps = $props();

  $effect(() => {
    live.show(data.frame);
  });

  // What a test says that ran by itself after edits, wherever one is.
  const told = new Set<number>();
  $effect(() => {
    for (const { id, kind, state, subject, message } of live.jobs) {
      if (kind !== 'test run' || state !== 'done' || message === null || told.has(id)) continue;
      told.add(id);
      const set = data.frame.testSets.find((one) => one.id === subject)?.name ?? 'Test';
      notices.say('info', `${set}: ${message}`);
    }
  });

  onMount(() => () => live.leave());

  // A field is kept when it is left, and going elsewhere leaves it.
  const leaveField = () => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  };
  beforeNavigate(leaveField);

  function leavePage() {
    leaveField();
    sendWaiting();
  }

  const typing = (target: EventTarget | null): boolean =>
    target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement;

  function pressed(event: KeyboardEvent) {
    if (event.defaultPrevented) return;
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && key === 'z' && !typing(event.target)) {
      event.preventDefault();
      void stepHistory(data.frame.bot.id, event.shiftKey ? 'redo' : 'undo');
    } else if (event.altKey && /^Digit[1-7]$/.test(event.code)) {
      const stage = STAGES.find((candidate) => candidate.key === Number(event.code.slice(5)));
      if (!stage) return;
      event.preventDefault();
      void goto(stagePath(data.frame.bot.id, stage));
    } else if (event.key === '/' && !typing(event.target)) {
      event.preventDefault();
      probe.focus();
    }
  }
</script>

<svelte:window onkeydown={pressed} onpagehide={leavePage} />

<div class="frame">
  <TopBar frame={data.frame} />
  <StageLine botId={data.frame.bot.id} figures={{ ...data.frame.figures, ...live.figures }} path={page.url.pathname} />
  <main>{@render children()}</main>
  <Probe botId={data.frame.bot.id} intents={data.frame.intents} testSets={data.frame.testSets} />
</div>

<style>
  .frame {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr) auto;
    height: 100vh;
  }

  /* Only the columns of a stage scroll: a link to a place in one must not move the frame. */
  main {
    min-height: 0;
    position: relative;
    overflow: clip;
  }
</style>
