<script lang="ts">
  import type { StageFigures } from '$core/contract/bot.js';
  import { percent } from './format.js';
  import { STAGES, stagePath, type Stage } from './stages.js';

  const { botId, figures, path }: { botId: number; figures: StageFigures; path: string } = $props();

  const figureOf = (stage: Stage): { text: string; means: string } => {
    switch (stage.path) {
      case 'teach':
        return {
          text: percent(figures.teach),
          means: 'held-out accuracy of the intents: each utterance read by a model that was not taught it',
        };
      case 'say':
        return {
          text: figures.say === null ? '–' : figures.say === 0 ? 'complete' : `${figures.say} missing`,
          means: 'forms with something missing, intents with nothing to say, texts with unknown names',
        };
      case 'gate':
        return {
          text: figures.gate === null ? '–' : `${percent(figures.gate)} asked`,
          means: 'of the messages of the last test run, the share that the bot asks about',
        };
      case 'try':
        return {
          text: figures.try ? `${figures.try.passing} of ${figures.try.all}` : '–',
          means: 'walkthroughs passing',
        };
      default:
        return { text: percent(figures.prove), means: 'accuracy of the last test run' };
    }
  };
</script>

<nav aria-label="Stages">
  {#each STAGES as stage (stage.path)}
    {@const figure = figureOf(stage)}
    {@const here = path.includes(`/${stage.path}`)}
    <a href={stagePath(botId, stage)} aria-current={here ? 'page' : undefined} title="{figure.means} · Alt {stage.key}">
      <span class="name">{stage.name}</span>
      <span class="figure">{figure.text}<span class="unseen">, {figure.means}</span></span>
    </a>
  {/each}
</nav>

<style>
  nav {
    display: flex;
    border-bottom: 1px solid var(--line-strong);
    background: var(--paper-deep);
  }

  a {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    padding: 0.35rem 1.1rem;
    color: var(--ink);
    text-decoration: none;
    border-right: 1px solid var(--line);
  }

  a:hover {
    background: var(--reed-wash);
  }

  a[aria-current] {
    background: var(--paper);
    box-shadow: inset 0 -3px 0 var(--reed);
  }

  a[aria-current] .name {
    font-weight: 600;
  }

  .figure {
    font-size: 0.8125rem;
    color: var(--ink-soft);
  }
</style>
