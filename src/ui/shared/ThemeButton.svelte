<script lang="ts">
  import { onMount } from 'svelte';
  import Act from './Act.svelte';

  let dark = $state(false);

  onMount(() => {
    dark = document.documentElement.getAttribute('theme') === 'g100';
  });

  function change() {
    dark = !dark;
    document.documentElement.setAttribute('theme', dark ? 'g100' : 'white');
    document.cookie = `theme=${dark ? 'dark' : 'light'}; path=/; max-age=31536000; samesite=lax`;
  }

  const label = $derived(dark ? 'Light theme' : 'Dark theme');
</script>

<Act {label} title={label} onclick={change}><span aria-hidden="true">{dark ? '◑' : '◐'}</span></Act>
