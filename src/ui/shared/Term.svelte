<script lang="ts">
  import { TooltipDefinition } from 'carbon-components-svelte';
  import type { Snippet } from 'svelte';

  /** Words with a sentence about what they mean. */
  const { means, children }: { means: string; children: Snippet } = $props();
</script>

<TooltipDefinition tooltipText={means} portalTooltip>{@render children()}</TooltipDefinition>
