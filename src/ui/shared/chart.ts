import { Chart, Tooltip, type ChartConfiguration, type ChartType } from 'chart.js';

// What all charts have in common: they stand still, fill their place, and speak in the type of the screen.
Chart.register(Tooltip);
Chart.defaults.animation = false;
Chart.defaults.maintainAspectRatio = false;
Chart.defaults.font.family = 'IBM Plex Sans';
Chart.defaults.plugins.tooltip.displayColors = false;

/** The colour that a token of the theme stands for now. */
export function themeToken(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
}

/** An axis of a curve, with its name beside it. */
export function namedAxis(text: string) {
  const ink = themeToken('--ink');
  return {
    type: 'linear' as const,
    grid: { color: themeToken('--line') },
    ticks: { color: ink, font: { size: 10 }, maxTicksLimit: 8 },
    title: { display: true, text, color: ink, font: { size: 11 } },
  };
}

/** Draws a chart as soon as the fonts are there. @returns what takes it away again */
export function drawChart<Type extends ChartType, Data, Label>(
  canvas: HTMLCanvasElement,
  config: ChartConfiguration<Type, Data, Label>,
): () => void {
  let chart: Chart<Type, Data, Label> | null = null;
  let gone = false;
  void document.fonts.ready.then(() => {
    if (!gone) chart = new Chart(canvas, config);
  });
  return () => {
    gone = true;
    chart?.destroy();
  };
}
