<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement, ScatterController } from 'chart.js';
  import type { MotorPoint, MotorRun } from '@refectum/core/curves';
  import { formatNumber } from '@refectum/core/quantity';
  import type { FittedMotorCurve } from '$lib/live/stand.worker.ts';

  interface Props {
    fitted: FittedMotorCurve;
    points: readonly MotorPoint[];
  }
  const { fitted, points }: Props = $props();
  Chart.defaults.font.family = 'IBM Plex Sans';
  Chart.register(LinearScale, LineController, LineElement, PointElement, ScatterController);
  let canvas = $state<HTMLCanvasElement>();

  const figures = {
    newtonMetres: { name: 'Torque, Nm', of: (run: MotorRun) => run.newtonMetres, decimals: 0 },
    rpm: { name: 'Speed, rpm', of: (run: MotorRun) => run.rpm, decimals: 0 },
    watts: { name: 'Power, W', of: (run: MotorRun) => run.watts, decimals: 0 },
    efficiency: { name: 'Efficiency, %', of: (run: MotorRun) => 100 * run.efficiency, decimals: 0 },
  } as const;
  type Figure = keyof typeof figures;
  let figure = $state<Figure>('newtonMetres');

  /** Points that carry the figure drawn. */
  const drawn = $derived(
    points.flatMap(({ load, amps, rpm, newtonMetres }) => {
      const own = { newtonMetres: newtonMetres ?? (load === 'none' ? 0 : undefined), rpm: load === 'held' ? 0 : rpm };
      const turning = own.rpm === undefined ? undefined : (own.rpm * 2 * Math.PI) / 60;
      const value =
        figure === 'watts'
          ? turning !== undefined && own.newtonMetres !== undefined
            ? turning * own.newtonMetres
            : undefined
          : figure === 'efficiency'
            ? undefined
            : own[figure];
      return amps === undefined || value === undefined ? [] : [{ x: amps, y: value }];
    }),
  );

  $effect(() => {
    if (!canvas) return;
    const colour = (name: string) => getComputedStyle(canvas!).getPropertyValue(name);
    const [ink, copper, grid, suspect] = [
      '--color-base-content',
      '--color-primary',
      '--color-base-300',
      '--color-error',
    ].map(colour);
    const { name, of, decimals } = figures[figure];
    const line = (runs: readonly MotorRun[]) => runs.map((run) => ({ x: run.amps, y: of(run) }));
    const axis = (text: string) => ({
      title: { display: true, text, color: ink! },
      ticks: { color: ink!, callback: (value: string | number) => formatNumber(Number(value), decimals) },
      grid: { color: grid! },
      min: 0,
    });
    const chart = new Chart(canvas, {
      type: 'scatter',
      data: {
        datasets: [
          { type: 'scatter', data: drawn, pointRadius: 6, backgroundColor: ink!, order: 0 },
          { type: 'line', data: line(fitted.plate), borderColor: ink!, borderWidth: 1.5, pointRadius: 0, order: 3 },
          { type: 'line', data: line(fitted.own), borderColor: copper!, borderWidth: 3, pointRadius: 0, order: 1 },
          {
            type: 'line',
            data: line(fitted.like?.curve ?? []),
            borderColor: suspect!,
            borderDash: [6, 4],
            borderWidth: 2,
            pointRadius: 0,
            order: 2,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        scales: { x: { type: 'linear', ...axis('Amps') }, y: axis(name) },
      },
    });
    return () => chart.destroy();
  });
</script>

<fieldset class="flex flex-wrap gap-x-4">
  <legend class="sr-only">What is drawn against amps</legend>
  {#each Object.entries(figures) as [id, { name }] (id)}
    <label class="flex min-h-9 items-center gap-1.5 text-sm">
      <input type="radio" class="radio radio-sm" name="figure" value={id} bind:group={figure} />
      {name}
    </label>
  {/each}
</fieldset>
<div
  class="relative h-56"
  role="img"
  aria-label="{figures[figure].name} against amps: {drawn.length} points, by the plate{fitted.own.length
    ? ', through the points'
    : ''}{fitted.like ? `, and with ${fitted.like.name}` : ''}"
>
  <canvas bind:this={canvas}></canvas>
</div>
<p class="text-sm">
  ● points &nbsp; thin: by the plate{fitted.own.length ? '; thick: through the points' : ''}{fitted.like
    ? `; dashed: with ${fitted.like.name}`
    : ''}
</p>
