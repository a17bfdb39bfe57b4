<script lang="ts">
  import type { ClawPole } from '@refectum/core/machines';

  /** What feeds the field and which way the regulator switches it, and so where the jumper past it goes. */
  const { machine }: { machine: Pick<ClawPole, 'regulatorSide' | 'exciterDiodes'> } = $props();
  const ground = $derived(machine.regulatorSide === 'ground');
  const fed = $derived(machine.exciterDiodes ? 'exciter terminal' : 'output post');
  const spoken = $derived(
    ground
      ? `The field hangs on the ${fed}; the regulator closes it to the case. The jumper goes from the field terminal to the case.`
      : `The field hangs on the case; the regulator closes it to the ${fed}. The jumper goes from the field terminal to the ${fed}.`,
  );
</script>

<figure class="flex flex-wrap items-center gap-4">
  <svg viewBox="-24 0 244 150" class="w-60 shrink-0" role="img" aria-label={spoken}>
    <g class="stroke-base-content" fill="none" stroke-width="1.6">
      <path d="M20 16H200M20 134H200" />
      <path d={ground ? 'M70 16V30M70 70V86M70 118V134' : 'M70 134V120M70 80V64M70 32V16'} />
      <rect x="52" y={ground ? 86 : 32} width="36" height="32" class="fill-base-200" />
      <circle cx="70" cy={ground ? 78 : 72} r="4" class="fill-base-100" />
    </g>
    <path
      d={ground
        ? 'M70 30c12 0 12 10 0 10c12 0 12 10 0 10c12 0 12 10 0 10c12 0 12 10 0 10'
        : 'M70 80c12 0 12 10 0 10c12 0 12 10 0 10c12 0 12 10 0 10c12 0 12 10 0 10'}
      class="stroke-primary"
      fill="none"
      stroke-width="3"
      stroke-linecap="round"
    />
    <path
      d={ground ? 'M74 78C150 78 150 100 150 134' : 'M74 72C150 72 150 50 150 16'}
      class="stroke-error"
      fill="none"
      stroke-width="3.5"
      stroke-dasharray="7 4"
    />
    <circle cx="150" cy={ground ? 134 : 16} r="4" class="fill-error" />
    <g font-size="12" class="fill-base-content">
      <text x="200" y="12" text-anchor="end">{fed}</text>
      <text x="200" y="147" text-anchor="end">case</text>
      <text x="46" y={ground ? 54 : 104} text-anchor="end">field</text>
      <text x="46" y={ground ? 106 : 52} text-anchor="end">regulator</text>
      <text x="156" y={ground ? 90 : 66}>jumper</text>
    </g>
  </svg>
  <figcaption class="min-w-40 flex-1 text-sm">{spoken} Load first, seconds only, eyes on the volts.</figcaption>
</figure>
