<script lang="ts">
  import 'carbon-components-svelte/css/all.css';
  import '@fontsource/ibm-plex-sans/400.css';
  import '@fontsource/ibm-plex-sans/600.css';
  import '@fontsource/ibm-plex-serif/400.css';
  import '@fontsource/ibm-plex-serif/400-italic.css';
  import '@fontsource/ibm-plex-mono/400.css';
  import '@fontsource/ibm-plex-mono/600.css';
  import '$ui/theme/reed.css';
  import '$ui/theme/kit.css';
  import { onMount, type Snippet } from 'svelte';

  // Until scripts run, nothing on the page acts yet, and nothing can be typed that would be lost; tests and tools wait
  // for the mark.
  let ready = $state(false);

  onMount(() => {
    ready = true;
    document.documentElement.dataset['ready'] = 'true';
  });

  const { children }: { children: Snippet } = $props();
</script>

<div class="page" inert={!ready}>{@render children()}</div>

<style>
  .page {
    display: contents;
  }
</style>
