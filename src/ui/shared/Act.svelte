<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import ArrowDown from 'carbon-components-svelte/src/icons/ArrowDown.svelte';
  import ArrowUp from 'carbon-components-svelte/src/icons/ArrowUp.svelte';
  import Close from 'carbon-components-svelte/src/icons/Close.svelte';
  import type { Snippet } from 'svelte';

  /** A button, or a link that looks like one. With an icon its label is a tooltip. */
  const {
    look = 'quiet',
    icon,
    label,
    onclick = () => undefined,
    children,
    ...rest
  }: {
    /** The one act of a place, one of several, one beside them, one that takes away. */
    look?: 'main' | 'firm' | 'quiet' | 'grave';
    icon?: keyof typeof ICONS;
    /** Its name for assistive technology where its words do not tell all. */
    label?: string | undefined;
    onclick?: (event: MouseEvent) => void;
    children?: Snippet;
    disabled?: boolean;
    title?: string;
    href?: string;
    download?: true | string;
    type?: 'submit';
    'aria-expanded'?: boolean;
    'aria-pressed'?: boolean;
    'data-move'?: number;
  } = $props();

  const ICONS = { delete: Close, close: Close, up: ArrowUp, down: ArrowDown };
  const KINDS = { main: 'primary', firm: 'tertiary', quiet: 'ghost', grave: 'danger-ghost' } as const;
</script>

{#if icon}
  <Button
    kind={KINDS[look]}
    size="small"
    icon={ICONS[icon]}
    iconDescription={label ?? ''}
    tooltipPosition="left"
    portalTooltip
    on:click={onclick}
    {...rest}
  />
{:else}
  <Button kind={KINDS[look]} size="small" aria-label={label} on:click={onclick} {...rest}>{@render children?.()}</Button
  >
{/if}
