<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Refectum</title></svelte:head>
<section class="p-6">
  <h1 class="mb-2 text-2xl font-semibold">{page.status === 404 ? 'Not found' : 'That did not work'}</h1>
  <p class="mb-4">{page.error?.message}</p>
  <a class="btn btn-primary" href="/">To the rack</a>
</section>
