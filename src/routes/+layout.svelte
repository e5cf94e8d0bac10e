<script lang="ts">
  import 'carbon-components-svelte/css/all.css';
  import '@fontsource/ibm-plex-sans/400.css';
  import '@fontsource/ibm-plex-sans/600.css';
  import '@fontsource/ibm-plex-serif/400.css';
  import '@fontsource/ibm-plex-serif/400-italic.css';
  import '@fontsource/ibm-plex-mono/400.css';
  import '@fontsource/ibm-plex-mono/600.css';
  import '$ui/theme/reed.css';
  import { onMount, type Snippet } from 'svelte';
  import Toasts from '$ui/shared/Toasts.svelte';

  // Until scripts run, nothing on the page acts yet; tests and tools wait for this.
  onMount(() => {
    document.documentElement.dataset['ready'] = 'true';
  });

  const { children }: { children: Snippet } = $props();
</script>

{@render children()}
<Toasts />
