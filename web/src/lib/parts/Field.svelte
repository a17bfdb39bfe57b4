<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    id: string;
    label: string;
    errors?: readonly string[] | undefined;
    children: Snippet<[{ id: string; 'aria-invalid': 'true' | undefined; 'aria-describedby': string }]>;
  }
  const { id, label, errors, children }: Props = $props();
</script>

<div class="flex flex-col">
  <label for={id}>{label}</label>
  {@render children({ id, 'aria-invalid': errors?.length ? 'true' : undefined, 'aria-describedby': `${id}-told` })}
  <p id="{id}-told" class="min-h-5 text-sm text-error">{errors?.[0] ?? ''}</p>
</div>
