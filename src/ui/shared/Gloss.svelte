<script lang="ts">
  /** A customer's words with a bracket under each marked stretch and the slot's name below it. */
  const {
    text,
    spans,
  }: { text: string; spans: readonly { start: number; end: number; label: string; title?: string }[] } = $props();

  const parts = $derived.by(() => {
    const found: { text: string; label?: string; title?: string }[] = [];
    let from = 0;
    for (const span of [...spans].sort((a, b) => a.start - b.start)) {
      if (span.start < from) continue;
      if (span.start > from) found.push({ text: text.slice(from, span.start) });
      found.push({
        text: text.slice(span.start, span.end),
        label: span.label,
        ...(span.title ? { title: span.title } : {}),
      });
      from = span.end;
    }
    if (from < text.length) found.push({ text: text.slice(from) });
    return found;
  });
</script>

<!-- prettier-ignore -->
<span class="customer gloss">{#each parts as part, index (index)}{#if part.label}<span class="span" title={part.title}><span class="words">{part.text}</span><span class="name" data-gloss={part.label}><span class="unseen"> ({part.label}) </span></span></span>{:else}{part.text}{/if}{/each}</span>

<style>
  .gloss {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }

  /* The name stands in a line of its own below the words, and they are never narrower than it. */
  .span {
    display: inline-flex;
    flex-direction: column;
    align-items: stretch;
    vertical-align: baseline;
    line-height: 1.25;
    margin-right: 0.1rem;
  }

  .words {
    border-bottom: 1px solid var(--reed);
    background:
      linear-gradient(var(--reed), var(--reed)) left bottom / 1px 4px no-repeat,
      linear-gradient(var(--reed), var(--reed)) right bottom / 1px 4px no-repeat;
    padding: 0 1px;
  }

  /* Drawn, not text, so that selecting words never takes the name along. */
  .name::before {
    content: attr(data-gloss);
    display: block;
    font-family: var(--sans);
    font-size: 0.9375rem;
    font-variant: all-small-caps;
    letter-spacing: 0.03em;
    color: var(--reed);
    line-height: 1;
    white-space: nowrap;
    user-select: none;
  }
</style>
