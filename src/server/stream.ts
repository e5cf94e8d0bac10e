/** How often a silent stream says that it is there, in milliseconds. */
const PULSE = 15_000;

/**
 * A stream of server-sent events.
 * @param open begins to send; gives what is to be called at the end
 */
export function eventStream(open: (send: (event: unknown) => void, end: () => void) => () => void): Response {
  const encoder = new TextEncoder();
  let leave: () => void = () => undefined;
  let pulse: ReturnType<typeof setInterval>;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const write = (text: string) => controller.enqueue(encoder.encode(text));
      let over = false;
      const end = () => {
        if (over) return;
        over = true;
        clearInterval(pulse);
        leave();
        controller.close();
      };
      write('retry: 1000\n\n');
      pulse = setInterval(() => write(': here\n\n'), PULSE);
      leave = open((event) => write(`data: ${JSON.stringify(event)}\n\n`), end);
    },
    cancel() {
      clearInterval(pulse);
      leave();
    },
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      // Proxies are not to gather what is to be told at once.
      'x-accel-buffering': 'no',
    },
  });
}
