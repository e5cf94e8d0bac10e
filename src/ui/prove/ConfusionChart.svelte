<script lang="ts">
  import { CategoryScale, Chart, type ChartConfiguration, type Plugin } from 'chart.js';
  import { MatrixController, MatrixElement, type MatrixDataPoint } from 'chartjs-chart-matrix';
  import type { Confusion } from '$core/measure/classification.js';
  import Act from '../shared/Act.svelte';
  import { drawChart, themeToken } from '../shared/chart.js';

  const {
    confusion,
    choose,
  }: {
    confusion: Confusion;
    /** Without it the cells and pairs cannot be chosen. */
    choose?: (cell: { expected: string; predicted: string }) => void;
  } = $props();

  Chart.register(MatrixController, MatrixElement, CategoryScale);

  interface Cell {
    x: string;
    y: string;
    count: number;
    /** Of the messages of its row, the share in this cell. */
    share: number;
  }

  const MOST_PAIRS = 5;

  const cells = $derived(
    confusion.labels.flatMap((expected, row) => {
      const total = confusion.counts[row]!.reduce((sum, count) => sum + count, 0);
      return confusion.labels.map((predicted, column): Cell => {
        const count = confusion.counts[row]![column]!;
        return { x: predicted, y: expected, count, share: total === 0 ? 0 : count / total };
      });
    }),
  );
  const pairs = $derived(
    cells
      .filter((cell) => cell.x !== cell.y && cell.count > 1)
      .sort((a, b) => b.count - a.count)
      .slice(0, MOST_PAIRS),
  );

  function draw(canvas: HTMLCanvasElement) {
    const right = themeToken('--reed');
    const wrong = themeToken('--none');
    const line = themeToken('--line');
    const ink = themeToken('--ink');
    const paper = themeToken('--paper');
    const labels = [...confusion.labels];
    const data = $state.snapshot(cells) as Cell[];
    const config: ChartConfiguration<'matrix', Cell[], string> = {
      type: 'matrix',
      data: {
        datasets: [
          {
            data: data as unknown as (Cell & MatrixDataPoint)[],
            width: ({ chart }) => (chart.chartArea ? chart.chartArea.width / labels.length - 1 : 0),
            height: ({ chart }) => (chart.chartArea ? chart.chartArea.height / labels.length - 1 : 0),
            backgroundColor: ({ dataIndex }) => {
              const cell = data[dataIndex];
              if (!cell || cell.count === 0) return 'transparent';
              const strength = Math.round((0.2 + 0.8 * cell.share) * 100);
              return `color-mix(in srgb, ${cell.x === cell.y ? right : wrong} ${strength}%, transparent)`;
            },
            borderColor: line,
            borderWidth: 0.5,
          },
        ],
      },
      options: {
        onClick: (_, elements) => {
          const cell = elements[0] ? data[elements[0].index] : undefined;
          if (cell && cell.count > 0 && cell.x !== cell.y) choose?.({ expected: cell.y, predicted: cell.x });
        },
        scales: {
          x: {
            type: 'category',
            labels,
            offset: true,
            grid: { display: false },
            ticks: { autoSkip: false, maxRotation: 90, minRotation: 90, color: ink, font: { size: 10 } },
          },
          y: {
            type: 'category',
            labels,
            offset: true,
            reverse: false,
            grid: { display: false },
            ticks: { autoSkip: false, color: ink, font: { size: 10 } },
          },
        },
        plugins: {
          tooltip: {
            callbacks: {
              title: () => '',
              label: ({ dataIndex }) => {
                const cell = data[dataIndex];
                return cell ? `${cell.count} of ${cell.y} read as ${cell.x}` : '';
              },
            },
          },
        },
      },
    };
    const counts: Plugin<'matrix'> = {
      id: 'counts',
      afterDatasetsDraw(drawn) {
        const { ctx } = drawn;
        ctx.save();
        ctx.font = '10px "IBM Plex Mono"';
        ctx.textAlign = 'center';
        ctx.textBaseline = 'middle';
        for (const [index, element] of drawn.getDatasetMeta(0).data.entries()) {
          const cell = data[index];
          if (!cell || cell.count === 0) continue;
          const { x, y } = (element as MatrixElement).getCenterPoint();
          ctx.fillStyle = cell.share > 0.5 ? paper : ink;
          ctx.fillText(String(cell.count), x, y);
        }
        ctx.restore();
      },
    };
    return drawChart(canvas, { ...config, plugins: [counts] });
  }
</script>

<section aria-label="Confusion matrix">
  <h2>Confusion</h2>
  <p class="soft">
    Rows are what messages are, columns what they were read as.{choose ? ' Click a cell for its lines.' : ''}
  </p>
  <div
    class="chart"
    role="img"
    aria-label="Confusion matrix of {confusion.labels
      .length} intents; the pairs most often confused are listed below it"
  >
    <canvas {@attach draw}></canvas>
  </div>
  {#if pairs.length > 0}
    <ul>
      {#each pairs as pair (`${pair.y} ${pair.x}`)}
        <li>
          {#if choose}
            <Act onclick={() => choose({ expected: pair.y, predicted: pair.x })}
              >{pair.count} of {pair.y} read as {pair.x}</Act
            >
          {:else}{pair.count} of {pair.y} read as {pair.x}{/if}
        </li>
      {/each}
    </ul>
  {:else}
    <p class="soft">No two intents were confused more than once.</p>
  {/if}
</section>

<style>
  .chart {
    height: 27rem;
    margin-top: 0.35rem;
  }
</style>
