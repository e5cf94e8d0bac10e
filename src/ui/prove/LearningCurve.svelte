<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import { SHARES, type LearningCurve } from '$core/measure/learningCurve.js';
  import { drawChart, namedAxis, themeToken } from '../shared/chart.js';
  import { share } from '../shared/format.js';

  const { botId, result }: { botId: number; result: LearningCurve } = $props();

  Chart.register(LineController, LineElement, PointElement, LinearScale);

  const now = $derived(result.points.at(-1)?.accuracy?.figure ?? null);
  const gain = $derived(now === null || !result.forecast ? null : result.forecast.accuracy - now);
  const teach = (intent: string) => `/bots/${botId}/teach?intent=${encodeURIComponent(intent)}`;

  function draw(canvas: HTMLCanvasElement) {
    const [ink, reed, soft] = [themeToken('--ink'), themeToken('--reed'), themeToken('--ink-soft')];
    const { points, forecast } = result;
    const of = (pick: 'figure' | 'low' | 'high') =>
      points.flatMap(({ utterances, accuracy }) => (accuracy ? [{ x: utterances, y: accuracy[pick] * 100 }] : []));
    const edge = { borderColor: soft, borderWidth: 1, borderDash: [2, 3], pointRadius: 0 };
    return drawChart<'line', { x: number; y: number }[], unknown>(canvas, {
      type: 'line',
      data: {
        datasets: [
          {
            label: 'accuracy',
            data: of('figure'),
            borderColor: reed,
            backgroundColor: reed,
            borderWidth: 2,
            pointRadius: 4,
          },
          { label: 'at least', data: of('low'), ...edge },
          { label: 'at most', data: of('high'), ...edge },
          ...(forecast && now !== null
            ? [
                {
                  label: 'if it goes on',
                  data: [of('figure').at(-1)!, { x: forecast.utterances, y: forecast.accuracy * 100 }],
                  borderColor: ink,
                  backgroundColor: ink,
                  borderDash: [6, 3],
                  borderWidth: 1,
                  pointStyle: 'rectRot' as const,
                  pointRadius: [0, 5],
                },
              ]
            : []),
        ],
      },
      options: {
        interaction: { mode: 'nearest', intersect: false },
        scales: { x: namedAxis('utterances of an intent, on the mean'), y: namedAxis('% read rightly') },
        plugins: {
          tooltip: {
            callbacks: {
              title: () => '',
              label: ({ dataset, parsed }) =>
                `${dataset.label}: ${(parsed.y ?? 0).toFixed(1)} % with ${(parsed.x ?? 0).toFixed(1)} utterances`,
            },
          },
        },
      },
    });
  }
</script>

<p class="sentence">
  {#if result.forecast && gain !== null}
    With half as many utterances again the curve would come to <strong
      >{(result.forecast.accuracy * 100).toFixed(1)} %</strong
    >,
    {(gain * 100).toFixed(1)} points more, if it goes on as it went.
    {gain < 0.01 ? 'More of the same helps little: look at what is confused.' : 'More utterances would help.'}
  {:else}
    The curve does not rise: more of the same would not help. Look at what is confused.
  {/if}
</p>
<div class="both">
  <figure>
    <div
      class="chart"
      role="img"
      aria-label="Accuracy by utterances of an intent: {result.points
        .map(({ utterances, accuracy }) => `${utterances.toFixed(1)}: ${((accuracy?.figure ?? 0) * 100).toFixed(1)} %`)
        .join(', ')}"
    >
      {#key result}<canvas {@attach draw}></canvas>{/key}
    </div>
    <figcaption class="soft">● measured, bounds dotted · ◆ if the curve goes on</figcaption>
  </figure>
  <section aria-label="Intents, that which more utterances would help most first">
    <table class="sheet">
      <thead>
        <tr>
          <th scope="col">intent that more would help most</th>
          <th scope="col" class="number">utterances</th>
          {#each SHARES as part (part)}<th scope="col" class="number">{(part * 100).toFixed(0)} %</th>{/each}
          <th scope="col" class="number">won by the last half</th>
        </tr>
      </thead>
      <tbody>
        {#each result.intents as { intent, utterances, recalls, gained } (intent)}
          <tr>
            <th scope="row"><a href={teach(intent)}>{intent}</a></th>
            <td class="number">{utterances}</td>
            {#each recalls as recall, at (at)}<td class="number">{share(recall)}</td>{/each}
            <td class="number">{gained > 0 ? '+' : ''}{(gained * 100).toFixed(0)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
</div>

<style>
  .sentence {
    margin-bottom: 0.5rem;
  }

  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.5rem;
    align-items: start;
  }

  .chart {
    height: 19rem;
  }

  figcaption {
    font-size: 0.75rem;
  }
</style>
