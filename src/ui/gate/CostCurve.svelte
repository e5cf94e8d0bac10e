<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import { drawChart, namedAxis, themeToken } from '../shared/chart.js';

  /** What a message costs by the accept level. */
  const { curve, accept }: { curve: readonly { level: number; cost: number }[]; accept: number } = $props();

  Chart.register(LineController, LineElement, PointElement, LinearScale);

  const least = $derived(curve.reduce((best, one) => (one.cost < best.cost ? one : best), curve[0]!));

  function draw(canvas: HTMLCanvasElement) {
    const reed = themeToken('--reed');
    const points = curve.map(({ level, cost }) => ({ x: level, y: cost }));
    const away = ({ x }: { x: number }) => Math.abs(x - accept);
    const here = points.reduce((best, one) => (away(one) < away(best) ? one : best));
    return drawChart<'line', { x: number; y: number }[], unknown>(canvas, {
      type: 'line',
      data: {
        datasets: [
          {
            data: points,
            borderColor: reed,
            borderWidth: 2,
            backgroundColor: reed,
            pointRadius: points.map((point) => (point === here ? 4 : 0)),
            pointStyle: 'rectRot',
          },
        ],
      },
      options: {
        interaction: { mode: 'nearest', axis: 'x', intersect: false },
        scales: {
          x: { ...namedAxis('accept level'), min: 0, max: 1 },
          y: { ...namedAxis('cost of a message'), beginAtZero: true },
        },
        plugins: {
          tooltip: {
            callbacks: {
              title: () => '',
              label: ({ parsed }) => `accept from ${(parsed.x ?? 0).toFixed(2)}: ${(parsed.y ?? 0).toFixed(2)}`,
            },
          },
        },
      },
    });
  }
</script>

<div
  class="chart"
  role="img"
  aria-label="What a message costs by the accept level; least at {least.level.toFixed(2)}: {least.cost.toFixed(2)}"
>
  {#key [curve, accept]}<canvas {@attach draw}></canvas>{/key}
</div>

<style>
  .chart {
    width: 100%;
    height: 9rem;
  }
</style>
