<script lang="ts">
  import { ProgressBar } from 'carbon-components-svelte';
  import type { JobView } from '$core/contract/job.js';
  import Act from './Act.svelte';
  import { tell } from './acts.js';
  import { send } from './api.js';

  /** How far long work is, with the way to stop it; and what became of it, until that is closed. */
  const {
    job,
    label,
    unit,
    stopped,
    close,
  }: {
    job: JobView;
    label: string;
    /** What is counted: "lines read". */
    unit: string;
    /** What holds when it was stopped, in a sentence. */
    stopped: string;
    close?: () => void;
  } = $props();

  const MINUTE = 60;

  const left = $derived.by(() => {
    const { secondsLeft } = job;
    if (secondsLeft === null) return '';
    if (secondsLeft < 2) return ', nearly done';
    return secondsLeft < MINUTE
      ? `, about ${Math.ceil(secondsLeft)} seconds left`
      : `, about ${Math.ceil(secondsLeft / MINUTE)} minutes left`;
  });

  const stop = () => send('DELETE', `/api/bots/${job.botId}/jobs/${job.id}`).catch(tell);
</script>

<div class="progress" role="group" aria-label={label}>
  {#if job.state === 'running'}
    <ProgressBar
      labelText={label}
      helperText="{job.done.toLocaleString('en-GB')} of {job.total.toLocaleString('en-GB')} {unit}{left}"
      value={job.done}
      max={Math.max(1, job.total)}
    />
    <Act look="firm" onclick={stop}>Stop</Act>
  {:else if job.state !== 'done'}
    <p class="soft" role="status">{job.state === 'stopped' ? stopped : (job.message ?? job.state)}</p>
    {#if close}<Act onclick={close}>Close</Act>{/if}
  {/if}
</div>

<style>
  .progress {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 1rem;
    align-items: center;
  }
</style>
