<script lang="ts" module>
  /** A level that can be moved, or how far the first intent must lead the next. */
  export type Border = 'ask' | 'accept' | 'acceptForms' | 'lead';
</script>

<script lang="ts">
  import { BarController, BarElement, CategoryScale, Chart, LinearScale, type Plugin } from 'chart.js';
  import { confidenceHistogram } from '$core/measure/gateFigures.js';
  import type { GatedMessage } from '$core/measure/levels.js';
  import type { Gate } from '$core/recognise/gate.js';
  import { drawChart, themeToken } from '../shared/chart.js';

  /** How sure the bot was of messages, with the borders and the lead to be moved. */
  const {
    messages,
    gate,
    readsBack,
    move,
    keep,
  }: {
    messages: readonly GatedMessage[];
    gate: Gate;
    /** Whether the bot has forms that are read back, which have a level of their own. */
    readsBack: boolean;
    /** A border moves and is not let go yet. */
    move: (border: Border, level: number) => void;
    keep: () => void;
  } = $props();

  Chart.register(BarController, BarElement, CategoryScale, LinearScale);

  const BINS = 50;
  const LANES = [
    { key: 'right', name: 'right', ink: '--reed' },
    { key: 'wrong', name: 'wrong', ink: '--none' },
    { key: 'outside', name: 'out of scope', ink: '--ink-soft' },
  ] as const;
  /** How far a key moves a border. */
  const [STEP, LEAP] = [0.01, 0.05];

  const histogram = $derived(confidenceHistogram(messages, BINS));
  const totals = $derived(
    Object.fromEntries(LANES.map(({ key }) => [key, histogram[key].reduce((sum, count) => sum + count, 0)])),
  );
  const labels = Array.from({ length: BINS }, (_, bin) => (bin / BINS).toFixed(2));

  interface Handle {
    border: Border;
    level: number;
    name: string;
    label: string;
  }

  const handles = $derived<Handle[]>([
    { border: 'ask', level: gate.ask, name: 'ask', label: 'The ask level' },
    { border: 'accept', level: gate.accept, name: 'accept', label: 'The accept level' },
    ...(readsBack && gate.acceptForms !== undefined
      ? [
          {
            border: 'acceptForms' as const,
            level: gate.acceptForms,
            name: 'forms',
            label: 'The accept level of forms that are read back',
          },
        ]
      : []),
    { border: 'lead', level: gate.lead, name: 'lead', label: 'How far the first intent must lead' },
  ]);

  /** Where the chart has its confidences from 0 to 1, in pixels of the frame. */
  let area = $state({ left: 0, right: 1, top: 0, bottom: 1 });
  let frame: HTMLElement;

  function draw(canvas: HTMLCanvasElement) {
    const [line, ink] = [themeToken('--line'), themeToken('--ink')];
    const counts = histogram;
    const placed: Plugin<'bar'> = {
      id: 'placed',
      afterLayout({ chartArea: { left, right, top, bottom } }) {
        if (area.left !== left || area.right !== right || area.top !== top || area.bottom !== bottom)
          area = { left, right, top, bottom };
      },
    };
    return drawChart<'bar', (number | null)[], string>(canvas, {
      type: 'bar',
      plugins: [placed],
      data: {
        labels,
        datasets: LANES.map(({ key, name, ink: color }) => ({
          label: name,
          data: counts[key].map((count) => count || null),
          yAxisID: `y ${key}`,
          xAxisID: 'x',
          backgroundColor: themeToken(color),
          barPercentage: 1,
          categoryPercentage: 0.92,
          grouped: false,
          minBarLength: 2,
        })),
      },
      options: {
        interaction: { mode: 'index', intersect: false },
        scales: {
          x: {
            offset: true,
            grid: { display: false },
            border: { color: line },
            ticks: {
              autoSkip: false,
              maxRotation: 0,
              color: ink,
              font: { size: 11 },
              callback: (_, bin) => (bin % 10 === 0 ? (bin / BINS).toFixed(1) : ''),
            },
            title: { display: true, text: 'confidence of the first intent', color: ink, font: { size: 11 } },
          },
          ...Object.fromEntries(
            LANES.toReversed().map(({ key, name }, place) => [
              `y ${key}`,
              {
                type: 'linear' as const,
                axis: 'y' as const,
                stack: 'lanes',
                stackWeight: 1,
                weight: place,
                offset: true,
                beginAtZero: true,
                grid: { color: line },
                border: { color: line },
                title: { display: true, text: name, color: ink, font: { size: 11 } },
                ticks: { color: ink, font: { size: 10 }, maxTicksLimit: 3, precision: 0 },
              },
            ]),
          ),
        },
        plugins: {
          tooltip: {
            callbacks: {
              title: ([item]) => {
                const from = (item?.dataIndex ?? 0) / BINS;
                return `confidence ${from.toFixed(2)} to ${(from + 1 / BINS).toFixed(2)}`;
              },
              label: ({ dataset, parsed }) => `${parsed.y ?? 0} ${dataset.label}`,
            },
          },
        },
      },
    });
  }

  const width = $derived(area.right - area.left);
  /** The lead is a stretch that ends at the accept level: how far to the left of it the next intent must stay. */
  const place = ({ border, level }: Handle) =>
    area.left + (border === 'lead' ? Math.max(0, gate.accept - level) : level) * width;
  const LEAD_HEIGHT = 22;
  const reach = ({ border }: Handle) =>
    border === 'lead'
      ? { top: area.bottom - LEAD_HEIGHT, height: LEAD_HEIGHT }
      : { top: area.top, height: area.bottom - area.top };
  const round = (level: number) => Math.round(Math.min(1, Math.max(0, level)) * 100) / 100;

  function drag(event: PointerEvent, border: Border) {
    const handle = event.currentTarget as HTMLElement;
    if (event.type === 'pointerdown') {
      handle.setPointerCapture(event.pointerId);
      handle.focus();
    }
    if (!handle.hasPointerCapture(event.pointerId)) return;
    const x = event.clientX - frame.getBoundingClientRect().left;
    const at = (x - area.left) / width;
    move(border, round(border === 'lead' ? gate.accept - at : at));
    if (event.type !== 'pointerup') return;
    handle.releasePointerCapture(event.pointerId);
    keep();
  }

  function press(event: KeyboardEvent, { border, level }: Handle) {
    const by = { ArrowLeft: -STEP, ArrowDown: -STEP, ArrowRight: STEP, ArrowUp: STEP, PageDown: -LEAP, PageUp: LEAP }[
      event.key
    ];
    const to = by !== undefined ? level + by : event.key === 'Home' ? 0 : event.key === 'End' ? 1 : null;
    if (to === null) return;
    event.preventDefault();
    move(border, round(to));
  }
</script>

<div class="frame" bind:this={frame}>
  <div
    class="chart"
    role="img"
    aria-label="Messages by confidence, in three lanes: {totals['right']} read right, {totals[
      'wrong'
    ]} read wrong, {totals['outside']} out of scope"
  >
    {#key histogram}<canvas {@attach draw}></canvas>{/key}
  </div>
  {#each handles as handle (handle.border)}
    {@const { border, level, name, label } = handle}
    {@const { top, height } = reach(handle)}
    <div
      class={['handle', border]}
      role="slider"
      tabindex="0"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={1}
      aria-valuenow={level}
      style:left="{place(handle)}px"
      style:top="{top}px"
      style:height="{height}px"
      style:--stretch="{level * width}px"
      onpointerdown={(event) => drag(event, border)}
      onpointermove={(event) => drag(event, border)}
      onpointerup={(event) => drag(event, border)}
      onkeydown={(event) => press(event, handle)}
      onkeyup={keep}
    >
      <span class="flag">{name} {level.toFixed(2)}</span>
    </div>
  {/each}
</div>

<style>
  .frame {
    position: relative;
    padding-top: 1.4rem;
  }

  .chart {
    height: 15.5rem;
  }

  .handle {
    position: absolute;
    width: 15px;
    margin: 1.4rem 0 0 -7px;
    cursor: ew-resize;
    touch-action: none;
  }

  .handle::before {
    content: '';
    position: absolute;
    inset: 0 6px;
    border-inline: 1px solid var(--ink);
  }

  .handle.ask::before {
    border-inline-style: dashed;
  }

  .handle.acceptForms::before {
    border-inline-style: dotted;
  }

  .handle.lead::before {
    inset: 0 auto 0 6px;
    width: var(--stretch);
    border: 1px solid var(--ink);
    border-top: 0;
    border-right: 0;
    pointer-events: none;
  }

  .handle:focus-visible {
    outline: 2px solid var(--reed);
    outline-offset: 1px;
  }

  .flag {
    position: absolute;
    bottom: 100%;
    left: 50%;
    translate: -50% 0;
    padding: 0 0.35rem;
    font-size: 0.75rem;
    white-space: nowrap;
    background: var(--paper-deep);
    border: 1px solid var(--line-strong);
  }

  /* Beside its line: the two others may stand close by. */
  .handle.acceptForms .flag {
    top: 0.15rem;
    bottom: auto;
    left: 100%;
    translate: 0 0;
  }

  .handle.lead .flag {
    right: 100%;
    bottom: 0;
    left: auto;
    translate: 0 0;
  }

  .handle.ask .flag {
    translate: -90% 0;
  }
</style>
