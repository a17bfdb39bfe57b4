<script lang="ts">
  import { Chart, LineElement, PointElement, RadarController, RadialLinearScale } from 'chart.js';
  import type { Turns } from '@refectum/core/waveform';

  interface Props {
    turns: Turns;
  }
  const { turns }: Props = $props();
  Chart.register(LineElement, PointElement, RadarController, RadialLinearScale);
  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    if (!canvas) return;
    const colour = (name: string) => getComputedStyle(canvas!).getPropertyValue(name);
    const [copper, grid] = ['--color-primary', '--color-base-300'].map(colour);
    const chart = new Chart(canvas, {
      type: 'radar',
      data: {
        labels: turns.ripples.map(() => ''),
        datasets: [{ data: [...turns.ripples], borderColor: copper!, borderWidth: 2, pointRadius: 0 }],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        scales: {
          r: {
            min: 0,
            max: 1.5,
            ticks: { display: false, stepSize: 0.5 },
            angleLines: { display: false },
            grid: { color: grid!, circular: true },
            pointLabels: { display: false },
          },
        },
        plugins: { legend: { display: false } },
      },
    });
    return () => chart.destroy();
  });
</script>

<div class="h-40 w-40 shrink-0" role="img" aria-label="Ripple round a turn of the armature: {turns.gaps} gaps">
  <canvas bind:this={canvas}></canvas>
</div>
