<script lang="ts">
  import { goto } from '$app/navigation';
  import type { BotFrame } from '$core/contract/bot.js';
  import { probe } from '../probe/probe.svelte.js';
  import { stepHistory } from './acts.js';
  import { STAGES, stagePath } from './stages.js';

  /** Every place and act of the bot by a few letters of its name. */
  let { open = $bindable(), frame }: { open: boolean; frame: BotFrame } = $props();

  let dialog: HTMLDialogElement;
  let text = $state('');
  let at = $state(0);

  interface Command {
    label: string;
    hint: string;
    run: () => unknown;
  }

  const commands = $derived<Command[]>([
    ...STAGES.map((stage) => ({
      label: `Go to ${stage.name}`,
      hint: `Alt ${stage.key}`,
      run: () => goto(stagePath(frame.bot.id, stage)),
    })),
    { label: 'Entities and their values', hint: 'Teach', run: () => goto(`/bots/${frame.bot.id}/teach/entities`) },
    { label: 'Sentences and desks of the bot', hint: 'Say', run: () => goto(`/bots/${frame.bot.id}/say/texts`) },
    {
      label: 'Settings of the bot',
      hint: 'name, languages, time zone',
      run: () => goto(`/bots/${frame.bot.id}/settings`),
    },
    { label: 'New intent', hint: 'Teach', run: () => goto(`/bots/${frame.bot.id}/teach?new`) },
    { label: 'Undo', hint: 'Ctrl Z', run: () => stepHistory(frame.bot.id, 'undo') },
    { label: 'Redo', hint: 'Ctrl Shift Z', run: () => stepHistory(frame.bot.id, 'redo') },
    { label: 'Try a message in the probe', hint: '/', run: () => probe.focus() },
    {
      label: 'Export as YAML',
      hint: 'bot file',
      run: () => location.assign(`/api/bots/${frame.bot.id}/file?format=yaml`),
    },
    {
      label: 'Export as JSON',
      hint: 'bot file',
      run: () => location.assign(`/api/bots/${frame.bot.id}/file?format=json`),
    },
    { label: 'All bots', hint: '', run: () => goto('/') },
    ...frame.intents.map((intent) => ({
      label: intent,
      hint: 'intent',
      run: () => goto(`/bots/${frame.bot.id}/teach?intent=${encodeURIComponent(intent)}`),
    })),
  ]);
  const found = $derived(
    commands.filter(({ label, hint }) =>
      text
        .toLowerCase()
        .split(/\s+/)
        .every((word) => `${label} ${hint}`.toLowerCase().includes(word)),
    ),
  );

  $effect(() => {
    if (open && !dialog.open) {
      text = '';
      at = 0;
      dialog.showModal();
    } else if (!open && dialog.open) dialog.close();
  });

  function choose(command: Command | undefined) {
    open = false;
    if (command) void command.run();
  }

  function pressed(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') at = Math.min(at + 1, found.length - 1);
    else if (event.key === 'ArrowUp') at = Math.max(at - 1, 0);
    else if (event.key === 'Enter') choose(found[at]);
    else return;
    event.preventDefault();
  }
</script>

<dialog bind:this={dialog} aria-label="Find a place or an act" onclose={() => (open = false)}>
  <input
    class="cell"
    placeholder="Find an intent, a stage, an act"
    aria-label="Find"
    role="combobox"
    aria-expanded="true"
    aria-controls="commands"
    aria-activedescendant={found[at] ? `command-${at}` : undefined}
    bind:value={text}
    oninput={() => (at = 0)}
    onkeydown={pressed}
  />
  <ul id="commands" role="listbox" aria-label="Found">
    {#each found.slice(0, 12) as command, index (command.hint + command.label)}
      <!-- Its keys are those of the line above, which stays focused. -->
      <li
        id="command-{index}"
        role="option"
        tabindex="-1"
        aria-selected={index === at}
        onpointerdown={(event) => {
          event.preventDefault();
          choose(command);
        }}
      >
        {command.label}<span class="soft">{command.hint}</span>
      </li>
    {/each}
  </ul>
  {#if found.length === 0}<p class="soft none">Nothing has that name.</p>{/if}
</dialog>

<style>
  dialog {
    margin: 4rem auto auto;
    width: 32rem;
    max-width: 90vw;
    border: 1px solid var(--line-strong);
    background: var(--paper);
    color: var(--ink);
    padding: 0.5rem;
  }

  dialog::backdrop {
    background: rgb(0 0 0 / 25%);
  }

  input {
    padding: 0.5rem;
    border-color: var(--line-strong);
  }

  ul {
    margin-top: 0.35rem;
  }

  li {
    display: flex;
    justify-content: space-between;
    padding: 0.3rem 0.5rem;
    cursor: pointer;
  }

  li[aria-selected='true'],
  li:hover {
    background: var(--reed-wash);
  }

  .none {
    padding: 0.5rem;
  }
</style>
