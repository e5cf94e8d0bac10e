<script lang="ts">
  import { goto } from '$app/navigation';
  import { ComboBox } from 'carbon-components-svelte';
  import { onMount } from 'svelte';
  import type { BotFrame } from '$core/contract/bot.js';
  import type { Found } from '$core/contract/find.js';
  import { probe } from '../probe/probe.svelte.js';
  import { stepHistory } from './acts.js';
  import { ApiError, send } from './api.js';
  import { STAGES, stagePath } from './stages.js';

  /** Every place and act of the bot by a few letters of its name. */
  const { frame }: { frame: BotFrame } = $props();

  /** A pause in typing, in milliseconds, after which the bot is searched. */
  const PAUSE = 80;
  const MOST_INTENTS = 8;

  interface Command {
    id: string;
    text: string;
    hint: string;
    run: () => unknown;
  }

  let box: { clear: (options?: { focus?: boolean }) => Promise<void> } | undefined = $state();
  let field = $state<HTMLInputElement | null>(null);
  let open = $state(false);
  let text = $state('');
  let found = $state.raw<Found[]>([]);
  let asked = 0;

  const base = $derived(`/bots/${frame.bot.id}`);
  const command = (label: string, hint: string, run: () => unknown): Command => ({
    id: `${hint} ${label}`,
    text: label,
    hint,
    run,
  });

  const acts = $derived([
    ...STAGES.map((stage) =>
      command(`Go to ${stage.name}`, `Alt ${stage.key}`, () => goto(stagePath(frame.bot.id, stage))),
    ),
    command('Entities and their values', 'Teach', () => goto(`${base}/teach/entities`)),
    command('Sentences and desks of the bot', 'Say', () => goto(`${base}/say/texts`)),
    command('Settings of the bot', 'name, languages, time zone', () => goto(`${base}/settings`)),
    command('New intent', 'Teach', () => goto(`${base}/teach?new`)),
    command('Undo', 'Ctrl Z', () => stepHistory(frame.bot.id, 'undo')),
    command('Redo', 'Ctrl Shift Z', () => stepHistory(frame.bot.id, 'redo')),
    command('Try a message in the probe', '/', () => probe.focus()),
    command('Export as YAML', 'bot file', () => location.assign(`/api${base}/file?format=yaml`)),
    command('Export as JSON', 'bot file', () => location.assign(`/api${base}/file?format=json`)),
    command('All bots', '', () => goto('/')),
  ]);
  const words = $derived(text.toLowerCase().split(/\s+/).filter(Boolean));
  const named = (label: string, hint: string) => words.every((word) => `${label} ${hint}`.toLowerCase().includes(word));
  // Acts and intents are known here, so that whoever types fast and presses Enter gets there.
  const items = $derived([
    ...acts.filter(({ text: label, hint }) => named(label, hint)),
    ...frame.intents
      .filter((name) => named(name, 'intent'))
      .slice(0, MOST_INTENTS)
      .map((name) => command(name, 'intent', () => goto(`${base}/teach?intent=${encodeURIComponent(name)}`))),
    ...found
      .filter(({ kind }) => kind !== 'intent')
      .map(({ kind, label, hint, to }, index) => ({
        ...command(label, hint === '' ? kind : `${kind} · ${hint}`, () => goto(`${base}/${to}`)),
        id: `${index} ${to}`,
      })),
  ]);

  async function search(wanted: string) {
    const own = ++asked;
    try {
      const answer =
        wanted.trim() === '' ? [] : await send<Found[]>('GET', `/api${base}/find?text=${encodeURIComponent(wanted)}`);
      if (own === asked) found = answer;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      found = [];
    }
  }

  $effect(() => {
    const wanted = text;
    const waiting = setTimeout(() => void search(wanted), PAUSE);
    return () => clearTimeout(waiting);
  });

  async function chosen({ detail: { selectedId } }: { detail: { selectedId: unknown } }) {
    const wanted = items.find(({ id }) => id === selectedId);
    field?.blur();
    await box?.clear({ focus: false });
    if (wanted) await wanted.run();
  }

  onMount(() => {
    const pressed = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      field?.focus();
      open = true;
    };
    window.addEventListener('keydown', pressed);
    return () => window.removeEventListener('keydown', pressed);
  });
</script>

<div class="find">
  <ComboBox
    bind:this={box}
    bind:ref={field}
    bind:open
    bind:value={text}
    {items}
    labelText="Find"
    hideLabel
    placeholder="Find  Ctrl K"
    size="sm"
    allowCustomValue
    autoHighlight="first-match"
    shouldFilterItem={() => true}
    virtualize={false}
    on:select={chosen}
  >
    {#snippet children({ item }: { item: Command })}
      <span class="line"><span class="name">{item.text}</span><span class="soft hint">{item.hint}</span></span>
    {/snippet}
  </ComboBox>
</div>

<style>
  .find {
    width: 11rem;
  }

  .find :global(.bx--list-box__menu) {
    right: 0;
    left: auto;
    min-width: 30rem;
    max-height: 26rem;
  }

  .find :global(.bx--list-box__menu-icon) {
    display: none;
  }

  .line {
    display: flex;
    justify-content: space-between;
    gap: 1.5rem;
  }

  .name,
  .hint {
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .hint {
    flex: none;
    max-width: 50%;
  }
</style>
