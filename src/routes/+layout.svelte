<script lang="ts">
  import 'carbon-components-svelte/css/all.css';
  import '@fontsource/ibm-plex-sans/400.css';
  import '@fontsource/ibm-plex-sans/600.css';
  import '@fontsource/ibm-plex-serif/400.css';
  import '@fontsource/ibm-plex-serif/400-italic.css';
  import '@fontsource/ibm-plex-mono/400.css';
  import '@fontsource/ibm-plex-mono/600.css';
  import '$ui/theme/reed.css';
  import type { Snippet } from 'svelte';
  import Toasts from '$ui/shared/Toasts.svelte';

  const { children }: { children: Snippet } = $props();
</script>

{@render children()}
<Toasts />
