<script lang="ts">
  import Asleep from 'carbon-icons-svelte/lib/Asleep.svelte';
  import Light from 'carbon-icons-svelte/lib/Light.svelte';
  import { onMount } from 'svelte';

  let dark = $state(false);

  onMount(() => {
    dark = document.documentElement.getAttribute('theme') === 'g100';
  });

  function change() {
    dark = !dark;
    document.documentElement.setAttribute('theme', dark ? 'g100' : 'white');
    document.cookie = `theme=${dark ? 'dark' : 'light'}; path=/; max-age=31536000; samesite=lax`;
  }
</script>

<button
  class="quiet"
  aria-label={dark ? 'Light theme' : 'Dark theme'}
  title={dark ? 'Light theme' : 'Dark theme'}
  onclick={change}
>
  {#if dark}<Light />{:else}<Asleep />{/if}
</button>
