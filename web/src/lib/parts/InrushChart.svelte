<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import { formatNumber } from '@refectum/core/quantity';
  import type { DrawnCurrent } from '$lib/live/stand.worker.ts';

  interface Props {
    current: DrawnCurrent;
    /** By the plate, on this shop's bench battery. */
    foreseen: DrawnCurrent | undefined;
  }
  const { current, foreseen }: Props = $props();
  Chart.defaults.font.family = 'IBM Plex Sans';
  Chart.register(LinearScale, LineController, LineElement, PointElement);
  let canvas = $state<HTMLCanvasElement>();

  const peakOf = ({ peak }: DrawnCurrent) =>
    `${formatNumber(peak.amps, 0)} A after ${formatNumber(1000 * peak.seconds, 0)} ms`;

  $effect(() => {
    if (!canvas) return;
    const colour = (name: string) => getComputedStyle(canvas!).getPropertyValue(name);
    const [ink, copper, grid] = ['--color-base-content', '--color-primary', '--color-base-300'].map(colour);
    const line = (of: DrawnCurrent | undefined) =>
      (of?.means ?? []).map(({ seconds, amps }) => ({ x: seconds, y: amps }));
    const axis = (text: string) => ({
      title: { display: true, text, color: ink! },
      ticks: { color: ink! },
      grid: { color: grid! },
      min: 0,
    });
    const chart = new Chart(canvas, {
      type: 'line',
      data: {
        datasets: [
          { data: line(current), borderColor: copper!, borderWidth: 2.5, pointRadius: 0, order: 0 },
          { data: line(foreseen), borderColor: ink!, borderWidth: 1.5, borderDash: [6, 4], pointRadius: 0, order: 1 },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        parsing: false,
        events: [],
        scales: { x: { type: 'linear', ...axis('From the moment it is fed, s') }, y: axis('Current, A') },
        plugins: { legend: { display: false } },
      },
    });
    return () => chart.destroy();
  });
</script>

<div class="mt-2 h-48" role="img" aria-label="Inrush and run-up, amperes against time">
  <canvas bind:this={canvas}></canvas>
</div>
<p class="text-sm">
  Inrush <span class="figure">{peakOf(current)}</span>{#if foreseen}; dashed, by its plate
    <span class="figure">{peakOf(foreseen)}</span>{/if}.
</p>
