import { expect, test, type Page } from '@playwright/test';
import { startServer, type RunningServer } from './server.js';

/** What is to be read on a screen in some state, and how well it stands out from what is behind it. */
interface Legibility {
  words: string;
  state: string;
  /** By WCAG 2.2: (lighter + .05) / (darker + .05) of the relative luminances. */
  ratio: number;
}

/** Measures the words of what can be pressed, as it is shown now. @param selector of what is measured */
const measure = (page: Page, selector: string, state: string): Promise<Legibility[]> =>
  page.evaluate(
    ([wanted, now]) => {
      const canvas = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!;
      type Colour = [number, number, number, number];
      const read = (colour: string): Colour => {
        canvas.clearRect(0, 0, 1, 1);
        canvas.fillStyle = colour;
        canvas.fillRect(0, 0, 1, 1);
        const [red = 0, green = 0, blue = 0, alpha = 0] = canvas.getImageData(0, 0, 1, 1).data;
        return [red, green, blue, alpha / 255];
      };
      const over = ([r, g, b, a]: Colour, [r2, g2, b2]: Colour): Colour => [
        r * a + r2 * (1 - a),
        g * a + g2 * (1 - a),
        b * a + b2 * (1 - a),
        1,
      ];
      const behind = (element: Element | null): Colour => {
        if (element === null) return [255, 255, 255, 1];
        const own = read(getComputedStyle(element).backgroundColor);
        return own[3] === 1 ? own : over(own, behind(element.parentElement));
      };
      const luminance = ([r, g, b]: Colour): number => {
        const [x = 0, y = 0, z = 0] = [r, g, b].map((part) => {
          const share = part / 255;
          return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
        });
        return 0.2126 * x + 0.7152 * y + 0.0722 * z;
      };
      return [...document.querySelectorAll<HTMLElement>(wanted)].flatMap((element) => {
        const words = element.innerText.trim();
        if (words === '' || element.getClientRects().length === 0) return [];
        const back = behind(element);
        const colour = read(getComputedStyle(element).color);
        const opacity = Number(getComputedStyle(element).opacity);
        const front = over([colour[0], colour[1], colour[2], colour[3] * opacity], back);
        const [light, dark] = [luminance(front), luminance(back)].sort((a, b) => b - a) as [number, number];
        return [{ words: words.slice(0, 40), state: now, ratio: (light + 0.05) / (dark + 0.05) }];
      });
    },
    [selector, state] as const,
  );

const VIEWS = [
  '',
  '/bots/1/teach',
  '/bots/1/teach/entities',
  '/bots/1/say',
  '/bots/1/say/texts',
  '/bots/1/gate',
  '/bots/1/try',
  '/bots/1/prove',
  '/bots/1/prove?show=lines',
  '/bots/1/prove?show=runs',
  '/bots/1/prove/trials',
  '/bots/1/settings',
];
/** What WCAG asks of words of the usual size; it asks nothing of what cannot be pressed, which still is to be read. */
const LEAST = 4.5;
const LEAST_DISABLED = 2.2;

test.describe('the words of what can be pressed', () => {
  let server: RunningServer;

  test.beforeAll(async () => {
    server = await startServer('demo');
  });

  test.afterAll(() => server.remove());

  for (const colorScheme of ['light', 'dark'] as const) {
    test(`stand out when focused, pointed at or disabled, on every view, where the system is ${colorScheme}`, async ({
      page,
    }) => {
      test.setTimeout(240_000);
      await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
      for (const view of VIEWS) {
        const response = await page.goto(server.url + view);
        expect(response?.status(), view).toBe(200);
        await expect(page.locator('html')).toHaveAttribute('theme', colorScheme === 'dark' ? 'g100' : 'white');
        await page.addStyleTag({
          content: '*, *::before, *::after { transition: none !important; animation: none !important; }',
        });
        const found = await measure(page, ':is(button, a.bx--btn):not(:disabled)', 'at rest');
        const disabled = await measure(page, 'button:disabled', 'disabled');
        // Of what looks the same one is enough.
        const kinds = await page.evaluate(() => {
          const seen = new Map<string, HTMLElement>();
          for (const element of document.querySelectorAll<HTMLElement>(':is(button, a.bx--btn, nav a):not(:disabled)'))
            if (element.getClientRects().length > 0 && element.innerText.trim() !== '')
              seen.set(element.className, element);
          [...seen.values()].forEach((element, at) => element.setAttribute('data-legible', String(at)));
          return seen.size;
        });
        expect(kinds, view).toBeGreaterThan(0);
        for (let at = 0; at < kinds; at++) {
          const selector = `[data-legible="${at}"]`;
          const one = page.locator(selector);
          if ((await one.count()) === 0) continue;
          await one.focus();
          found.push(...(await measure(page, selector, 'focused')));
          await one.hover({ force: true });
          found.push(...(await measure(page, selector, 'focused and pointed at')));
          await one.blur();
          found.push(...(await measure(page, selector, 'pointed at')));
        }
        const faint = [
          ...found.filter(({ ratio }) => ratio < LEAST),
          ...disabled.filter(({ ratio }) => ratio < LEAST_DISABLED),
        ];
        expect(faint, view).toEqual([]);
      }
    });
  }

  test('follow the theme of the system until another is chosen', async ({ page }) => {
    await page.emulateMedia({ colorScheme: 'dark' });
    await page.goto(`${server.url}/bots/1/teach`);
    const html = page.locator('html');
    await expect(html).toHaveAttribute('theme', 'g100');
    await page.emulateMedia({ colorScheme: 'light' });
    await expect(html).toHaveAttribute('theme', 'white');
    await page.emulateMedia({ colorScheme: 'dark' });
    await page.getByRole('button', { name: 'Light theme' }).click();
    await expect(html).toHaveAttribute('theme', 'white');
    await page.reload();
    await expect(html).toHaveAttribute('theme', 'white');
  });
});
