<script lang="ts">
  /** A customer's words with a bracket under each marked stretch and the slot's name below it. */
  const { text, spans }: { text: string; spans: readonly { start: number; end: number; label: string; title?: string }[] } = $props();

  const parts = $derived.by(() => {
    const found: { text: string; label?: string; title?: string }[] = [];
    let from = 0;
    for (const span of [...spans].sort((a, b) => a.start - b.start)) {
      if (span.start < from) continue;
      if (span.start > from) found.push({ text: text.slice(from, span.start) });
      found.push({ text: text.slice(span.start, span.end), label: span.label, ...(span.title ? { title: span.title } : {}) });
      from = span.end;
    }
    if (from < text.length) found.push({ text: text.slice(from) });
    return found;
  });
</script>

<!-- prettier-ignore -->
<span class="customer gloss" class:marked={spans.length > 0}>{#each parts as part, index (index)}{#if part.label}<span class="span" title={part.title}><span class="words">{part.text}</span><span class="name" data-gloss={part.label}><span class="unseen"> ({part.label}) </span></span></span>{:else}{part.text}{/if}{/each}</span>

<style>
  .gloss {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }

  .marked {
    line-height: 2.1;
  }

  .span {
    position: relative;
    display: inline-block;
    line-height: 1.2;
    vertical-align: baseline;
    padding-bottom: 0.15rem;
  }

  .words {
    display: inline-block;
    min-width: 100%;
    border-bottom: 1px solid var(--reed);
    background: linear-gradient(var(--reed), var(--reed)) left bottom / 1px 4px no-repeat,
      linear-gradient(var(--reed), var(--reed)) right bottom / 1px 4px no-repeat;
  }

  /* The name is drawn, not text, so that selecting words never takes it along. */
  .name::before {
    content: attr(data-gloss);
    position: absolute;
    top: 100%;
    left: 0;
    right: -3rem;
    margin-top: -0.2rem;
    font-family: var(--sans);
    font-size: 0.6875rem;
    font-variant: all-small-caps;
    letter-spacing: 0.03em;
    color: var(--reed);
    line-height: 1;
    white-space: nowrap;
    pointer-events: none;
  }
</style>
