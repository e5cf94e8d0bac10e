<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import type { CalibrationBin } from '$core/measure/classification.js';
  import { drawChart, themeToken } from '../shared/chart.js';

  /** Of messages read with a confidence, the share that is right: on the dashed line a confidence means what it says. */
  const { bins }: { bins: readonly CalibrationBin[] } = $props();

  Chart.register(LineController, LineElement, PointElement, LinearScale);

  const filled = $derived(bins.filter(({ count }) => count > 0));
  const inWords = $derived(
    filled
      .map(({ confidence, accuracy, count }) => `${confidence.toFixed(2)}: ${accuracy.toFixed(2)} of ${count}`)
      .join('; '),
  );
  const LARGEST = 9;

  function draw(canvas: HTMLCanvasElement) {
    const [line, ink, reed] = [themeToken('--line'), themeToken('--ink'), themeToken('--reed')];
    const most = Math.max(1, ...filled.map(({ count }) => count));
    const axis = (text: string) => ({
      type: 'linear' as const,
      min: 0,
      max: 1,
      grid: { color: line },
      ticks: { color: ink, font: { size: 10 }, stepSize: 0.2 },
      title: { display: true, text, color: ink, font: { size: 11 } },
    });
    const counts = filled.map(({ count }) => count);
    return drawChart<'line', { x: number; y: number }[], unknown>(canvas, {
      type: 'line',
      data: {
        datasets: [
          {
            data: filled.map(({ confidence, accuracy }) => ({ x: confidence, y: accuracy })),
            borderColor: reed,
            backgroundColor: reed,
            borderWidth: 2,
            clip: false,
            pointRadius: counts.map((count) => 2 + LARGEST * Math.sqrt(count / most)),
          },
          {
            data: [
              { x: 0, y: 0 },
              { x: 1, y: 1 },
            ],
            borderColor: ink,
            borderDash: [4, 4],
            borderWidth: 1,
            pointRadius: 0,
          },
        ],
      },
      options: {
        layout: { padding: LARGEST },
        scales: { x: axis('confidence'), y: axis('share that is right') },
        plugins: {
          tooltip: {
            filter: ({ datasetIndex }) => datasetIndex === 0,
            callbacks: {
              title: () => '',
              label: ({ parsed, dataIndex }) =>
                `${(parsed.x ?? 0).toFixed(2)}: ${(parsed.y ?? 0).toFixed(2)} right, of ${counts[dataIndex]}`,
            },
          },
        },
      },
    });
  }
</script>

<section aria-label="Reliability">
  <h2>Reliability</h2>
  <p class="soft">
    The share that is right, of messages read with each confidence; a larger point stands for more of them. On the
    dashed line a confidence means what it says.
  </p>
  <div class="chart" role="img" aria-label="Confidence and the share that is right: {inWords}">
    {#key bins}<canvas {@attach draw}></canvas>{/key}
  </div>
</section>

<style>
  .chart {
    height: 15rem;
  }
</style>
