<script lang="ts">
  import type { SheetLine } from '$core/contract/prove.js';
  import { TAGS } from '$core/formats/tags.js';
  import { showValue } from '$core/recognise/value.js';
  import Act from '../shared/Act.svelte';
  import Field from '../shared/Field.svelte';

  /** What a test line tells besides its words and its label: how it is written, where it comes from, values of its slots. */
  const {
    line,
    number,
    lines,
    change,
  }: {
    line: SheetLine;
    number: number;
    /** All lines of the sheet. */
    lines: readonly SheetLine[];
    /** @returns whether it was kept */
    change: (ids: number[], to: object) => Promise<boolean>;
  } = $props();

  const PARTS = ['style', ...TAGS] as const;
  type Part = (typeof PARTS)[number];

  const partOf = ({ style, tags }: SheetLine, part: Part): string | undefined =>
    part === 'style' ? style : tags?.[part];
  const isPlain = ({ style, tags }: SheetLine): boolean => style === undefined && tags === undefined;
  /** What stands in other lines already, so that one thing is not called by two names. */
  const known = $derived(
    Object.fromEntries(
      PARTS.map((part) => [part, [...new Set(lines.flatMap((one) => partOf(one, part) ?? []))].sort()]),
    ) as Record<Part, string[]>,
  );
  const plain = $derived(isPlain(line) ? [] : lines.filter(isPlain).map(({ id }) => id));

  const changeOf = (part: Part, value: string | null) =>
    part === 'style' ? { style: value } : { tags: { [part]: value } };
</script>

<section class="parts" aria-label="Line {number}">
  <strong>Line {number}</strong>
  {#each PARTS as part (part)}
    <Field
      label={part}
      inline
      value={partOf(line, part) ?? ''}
      known={known[part]}
      keep={(value) => change([line.id], changeOf(part, value.trim() || null))}
    />
  {/each}
  {#each line.slots ?? [] as { slot, start, end, value }, at (at)}
    <Field
      label="{slot} “{line.text.slice(start, end)}” is"
      inline
      value={value === undefined ? '' : showValue(value)}
      keep={(written) => change([line.id], { value: { place: at, value: written.trim() || null } })}
    />
  {/each}
  {#if plain.length > 0}
    <Act onclick={() => void change(plain, { style: line.style ?? null, tags: line.tags ?? {} })}>
      The same for the {plain.length} lines that tell nothing
    </Act>
  {/if}
</section>

<style>
  .parts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1rem;
    align-items: center;
    padding: 0.3rem 0;
    border-top: 1px solid var(--line);
    font-size: 0.8125rem;
  }

  .parts :global(.bx--text-input-wrapper) {
    width: auto;
  }

  .parts :global(input) {
    width: 7rem;
  }
</style>
