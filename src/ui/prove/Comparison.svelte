<script lang="ts">
  import type { ChangedLine, ComparisonView } from '$core/contract/prove.js';
  import { counted, moment } from '../shared/format.js';

  /** What became of the lines since another run. */
  const { comparison }: { comparison: ComparisonView } = $props();

  const name = (intent: string | null) => intent ?? 'out of scope';
  const moved = $derived(
    comparison.intents
      .filter(({ mended, broken }) => mended + broken > 0)
      .sort((a, b) => a.after - a.before - (b.after - b.before)),
  );
</script>

<section aria-label="Comparison">
  <p class="words" role="status">
    Since the run of {moment(comparison.against.ranAt)} (change {comparison.against.revision}): {comparison.inWords}
  </p>
  {#if moved.length > 0}
    <details>
      <summary>{counted(moved.length, 'intent')} and the lines that are read otherwise</summary>
      <div class="both">
        {@render list('Broken', comparison.broken)}
        {@render list('Mended', comparison.mended)}
        <table>
          <caption>Intents</caption>
          <thead>
            <tr
              ><th scope="col">Intent</th><th scope="col">Before</th><th scope="col">Now</th><th scope="col">Of</th></tr
            >
          </thead>
          <tbody>
            {#each moved as intent (intent.intent)}
              <tr>
                <th scope="row">{name(intent.intent)}</th>
                <td class="figure">{intent.before}</td>
                <td class="figure">{intent.after}</td>
                <td class="figure">{intent.lines}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    </details>
  {/if}
</section>

{#snippet list(title: string, lines: readonly ChangedLine[])}
  <div>
    <h3>{title} ({lines.length})</h3>
    <ul>
      {#each lines as line, at (at)}
        <li>
          <span class="customer">{line.text}</span>
          <span class="soft"
            >{name(line.expected)}{#if line.predicted !== line.expected}, read as {name(line.predicted)}{/if}</span
          >
        </li>
      {/each}
    </ul>
  </div>
{/snippet}

<style>
  section {
    padding-bottom: 0.5rem;
    margin-bottom: 0.5rem;
    border-bottom: 1px solid var(--line);
  }

  .words {
    max-width: 75rem;
  }

  .both {
    display: grid;
    grid-template-columns: 1fr 1fr 20rem;
    gap: 1.25rem;
    max-height: 16rem;
    overflow-y: auto;
    padding-top: 0.4rem;
    font-size: 0.8125rem;
  }

  h3,
  caption {
    font-size: 0.8125rem;
    font-weight: 600;
    text-align: left;
  }

  li {
    padding: 0.15rem 0;
  }

  table {
    border-collapse: collapse;
    align-self: start;
  }

  th,
  td {
    padding: 0.15rem 0.4rem 0.15rem 0;
    font-weight: 400;
    text-align: left;
  }

  td,
  thead th + th {
    text-align: right;
  }
</style>
