<script lang="ts">
  import { Chart, Filler, LinearScale, LineController, LineElement, PointElement, ScatterController } from 'chart.js';
  import { formatNumber } from '@refectum/core/quantity';
  import type { TakenPoint } from '$lib/run-log.ts';
  import type { FittedOutput } from '$lib/live/stand.worker.ts';

  interface Props {
    points: readonly TakenPoint[];
    fitted: FittedOutput | undefined;
    rating: { readonly rpm: number; readonly amps: number };
  }
  const { points, fitted, rating }: Props = $props();
  Chart.defaults.font.family = 'IBM Plex Sans';
  Chart.register(Filler, LinearScale, LineController, LineElement, PointElement, ScatterController);
  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    if (!canvas) return;
    const colour = (name: string) => getComputedStyle(canvas!).getPropertyValue(name);
    const [ink, copper, band] = ['--color-base-content', '--color-primary', '--color-base-300'].map(colour);
    const curve = fitted?.curve ?? [];
    const line = (of: 'amps' | 'low' | 'high') => curve.map((one) => ({ x: one.rpm, y: one[of] }));
    const axis = (text: string) => ({
      title: { display: true, text, color: ink! },
      ticks: { color: ink!, callback: (value: string | number) => formatNumber(Number(value), 0) },
      grid: { color: band! },
      min: 0,
    });
    const chart = new Chart(canvas, {
      type: 'scatter',
      data: {
        datasets: [
          {
            type: 'scatter',
            data: points.map(({ rpm, amps }) => ({ x: rpm, y: amps })),
            pointRadius: 6,
            backgroundColor: ink!,
            order: 0,
          },
          {
            type: 'scatter',
            data: [{ x: rating.rpm, y: rating.amps }],
            pointStyle: 'rectRot',
            pointRadius: 8,
            borderColor: ink!,
            borderWidth: 2,
            backgroundColor: 'transparent',
            order: 0,
          },
          { type: 'line', data: line('amps'), borderColor: copper!, borderWidth: 3, pointRadius: 0, order: 1 },
          { type: 'line', data: line('high'), borderColor: 'transparent', pointRadius: 0, order: 2 },
          {
            type: 'line',
            data: line('low'),
            borderColor: 'transparent',
            pointRadius: 0,
            fill: '-1',
            backgroundColor: band!,
            order: 2,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        scales: { x: { type: 'linear', ...axis('Rotor, rpm'), max: 7000 }, y: axis('Output, A') },
      },
    });
    return () => chart.destroy();
  });
</script>

<div
  class="relative h-64"
  role="img"
  aria-label="Output against rotor speed: {points.length} points, the curve through them with its band, and the rating"
>
  <canvas bind:this={canvas}></canvas>
</div>
<p class="text-sm">● points &nbsp; ◇ the rating &nbsp; line and band: what they foresee, 95 %</p>
