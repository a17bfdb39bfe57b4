<script lang="ts">
  import { timeOf } from '$lib/dates.ts';
  import PictureTaker from '$lib/parts/PictureTaker.svelte';

  const { data } = $props();
</script>

<svelte:head><title>Pictures of tag {data.tag} · Refectum</title></svelte:head>

<section class="mx-auto flex w-full max-w-md flex-col gap-4 p-4">
  <h1 class="text-2xl font-semibold">Pictures of tag <span class="figure">{data.tag}</span></h1>
  <p>This phone may send pictures of this unit until {timeOf(data.until)}.</p>
  <PictureTaker to="/p/{data.code}/add" camera />
</section>
