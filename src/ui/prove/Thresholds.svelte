<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import type { ThresholdPoint } from '$core/measure/levels.js';
  import { drawChart, namedAxis, themeToken } from '../shared/chart.js';

  /** What accepting from each level on comes to. */
  const { thresholds }: { thresholds: readonly ThresholdPoint[] } = $props();

  Chart.register(LineController, LineElement, PointElement, LinearScale);

  function draw(canvas: HTMLCanvasElement) {
    const [ink, reed, none] = [themeToken('--ink'), themeToken('--reed'), themeToken('--none')];
    const points = (of: (point: ThresholdPoint) => number | null) =>
      thresholds.flatMap((point) => {
        const y = of(point);
        return y === null ? [] : [{ x: point.level, y: y * 100 }];
      });
    const own = (label: string, data: { x: number; y: number }[], color: string, borderDash: number[]) => ({
      label,
      data,
      borderColor: color,
      backgroundColor: color,
      borderWidth: 2,
      borderDash,
      pointRadius: 0,
    });
    return drawChart<'line', { x: number; y: number }[], unknown>(canvas, {
      type: 'line',
      data: {
        datasets: [
          own(
            'accepted, of those in scope',
            points(({ accepted }) => accepted),
            reed,
            [],
          ),
          own(
            'right, of those accepted',
            points(({ right }) => right),
            ink,
            [6, 3],
          ),
          own(
            'out of scope kept out',
            points(({ keptOut }) => keptOut),
            none,
            [2, 3],
          ),
        ],
      },
      options: {
        interaction: { mode: 'index', intersect: false },
        scales: {
          x: { ...namedAxis('accept level'), min: 0, max: 1 },
          y: { ...namedAxis('% of messages'), min: 0, max: 100 },
        },
        plugins: {
          tooltip: {
            callbacks: {
              title: ([item]) => `accept from ${(item?.parsed.x ?? 0).toFixed(2)}`,
              label: ({ dataset, parsed }) => `${dataset.label}: ${(parsed.y ?? 0).toFixed(1)} %`,
            },
          },
        },
      },
    });
  }
</script>

<figure>
  <figcaption class="soft">
    By the accept level: accepted, of those in scope (whole line) · right, of those accepted (dashed) · out of scope
    kept out (dotted)
  </figcaption>
  <div class="chart" role="img" aria-label="Accepted, right and kept out by the accept level">
    {#key thresholds}<canvas {@attach draw}></canvas>{/key}
  </div>
</figure>

<style>
  figcaption {
    font-size: 0.75rem;
  }

  .chart {
    height: 14rem;
  }
</style>
