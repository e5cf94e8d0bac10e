<script lang="ts">
  import { CategoryScale, Chart, Filler, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import type { RunSummary } from '$core/contract/prove.js';
  import { drawChart, themeToken } from '../shared/chart.js';
  import { moment } from '../shared/format.js';

  /** The accuracy of each run with its bounds, and the share that was accepted, the oldest first. */
  const { runs }: { runs: RunSummary[] } = $props();

  Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale, Filler);

  const inOrder = $derived([...runs].reverse());
  const hundredfold = (figure: number | null | undefined) =>
    figure === null || figure === undefined ? null : figure * 100;

  function draw(canvas: HTMLCanvasElement) {
    const [line, ink, reed, soft] = [
      themeToken('--line'),
      themeToken('--ink'),
      themeToken('--reed'),
      themeToken('--ink-soft'),
    ];
    const own = (label: string, data: (number | null)[], more: object) => ({ label, data, borderWidth: 2, ...more });
    const edge = { borderColor: soft, borderWidth: 1, borderDash: [2, 3], pointRadius: 0 };
    return drawChart<'line', (number | null)[], string>(canvas, {
      type: 'line',
      data: {
        labels: inOrder.map(({ ranAt, revision }) => `${moment(ranAt)} · ${revision}`),
        datasets: [
          own(
            'accuracy',
            inOrder.map(({ accuracy }) => hundredfold(accuracy)),
            {
              borderColor: reed,
              backgroundColor: reed,
              pointRadius: 4,
            },
          ),
          own(
            'at least',
            inOrder.map(({ interval }) => hundredfold(interval?.low)),
            edge,
          ),
          own(
            'at most',
            inOrder.map(({ interval }) => hundredfold(interval?.high)),
            edge,
          ),
          own(
            'accepted',
            inOrder.map(({ accepted }) => hundredfold(accepted)),
            {
              borderColor: ink,
              backgroundColor: ink,
              pointStyle: 'rectRot',
              pointRadius: 4,
              borderDash: [6, 3],
            },
          ),
        ],
      },
      options: {
        interaction: { mode: 'index', intersect: false },
        scales: {
          x: { grid: { color: line }, ticks: { color: ink, font: { size: 10 }, maxTicksLimit: 8 } },
          y: {
            grid: { color: line },
            ticks: { color: ink, font: { size: 10 }, callback: (value) => `${value} %` },
            suggestedMax: 100,
          },
        },
        plugins: {
          tooltip: {
            callbacks: { label: ({ dataset, parsed }) => `${dataset.label}: ${(parsed.y ?? 0).toFixed(1)} %` },
          },
        },
      },
    });
  }
</script>

<figure>
  <figcaption class="soft">
    <span class="reed">●</span> accuracy, with the bounds between which it may lie (dotted) · ◆ accepted, of those in scope
    (dashed)
  </figcaption>
  <div
    class="chart"
    role="img"
    aria-label="Accuracy and accepted share of {runs.length} runs; the table has the figures"
  >
    {#key runs}<canvas {@attach draw}></canvas>{/key}
  </div>
</figure>

<style>
  figure {
    margin: 0.5rem 0 1rem;
  }

  figcaption {
    font-size: 0.75rem;
  }

  .reed {
    color: var(--reed);
  }

  .chart {
    height: 13rem;
  }
</style>
