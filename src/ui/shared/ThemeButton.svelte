<script lang="ts">
  import { onMount } from 'svelte';
  import Act from './Act.svelte';

  let dark = $state(false);

  function show(isDark: boolean) {
    dark = isDark;
    document.documentElement.setAttribute('theme', dark ? 'g100' : 'white');
  }

  onMount(() => {
    dark = document.documentElement.getAttribute('theme') === 'g100';
    const system = matchMedia('(prefers-color-scheme: dark)');
    const follow = () => {
      if (!/(?:^|; )theme=/.test(document.cookie)) show(system.matches);
    };
    system.addEventListener('change', follow);
    return () => system.removeEventListener('change', follow);
  });

  function change() {
    show(!dark);
    document.cookie = `theme=${dark ? 'dark' : 'light'}; path=/; max-age=31536000; samesite=lax`;
  }

  const label = $derived(dark ? 'Light theme' : 'Dark theme');
</script>

<Act {label} title={label} onclick={change}><span aria-hidden="true">{dark ? '◑' : '◐'}</span></Act>
