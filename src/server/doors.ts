import type { RequestEvent } from '@sveltejs/kit';

/** How requests of one group of routes are let in. */
interface Door {
  /** What paths of the group begin with. */
  readonly path: string;
  /** Whether only pages of the product itself may ask: a browser brings what it knows of a person along. */
  readonly ownPagesOnly: boolean;
}

/** The groups of routes: messages from programs, messages from channels, and the workbench, which is all the rest. */
const DOORS: readonly Door[] = [
  { path: '/api/v1/', ownPagesOnly: false },
  { path: '/channels/', ownPagesOnly: false },
  { path: '/', ownPagesOnly: true },
];

const LOCAL_HOSTS = ['localhost', '127.0.0.1', '[::1]'];
/** Addresses that mean every one of the machine's; they are no names. */
const EVERY_ADDRESS = ['0.0.0.0', '::', '[::]'];
const SAFE_METHODS = ['GET', 'HEAD', 'OPTIONS'];

const hostOf = (url: string | undefined): string[] => {
  try {
    return url === undefined ? [] : [new URL(url).hostname];
  } catch {
    return [];
  }
};

/** Names under which this server answers: those of this machine, and those it was told at the start. */
export function ownHosts(environment: Record<string, string | undefined>): ReadonlySet<string> {
  const { HOST: host, ORIGIN: origin, REED_GATE_HOSTS: more } = environment;
  const named = [...(host === undefined ? [] : [host]), ...(more ?? '').split(/[\s,]+/)];
  const given = named.filter((name) => name !== '' && !EVERY_ADDRESS.includes(name));
  return new Set([...LOCAL_HOSTS, ...given, ...hostOf(origin)].map((name) => name.toLowerCase()));
}

/** The name in a `Host` header, without its port; `null` where it is none. */
function nameIn(header: string | null): string | null {
  if (header === null || !/^[\w.-]+(:\d+)?$|^\[[\da-f:.]+\](:\d+)?$/i.test(header)) return null;
  return header.replace(/:\d+$/, '').toLowerCase();
}

/**
 * A page of another site must not act here: the browser tells where a request comes from. An origin is a scheme and a
 * host, and counts as a whole.
 */
function comesFromElsewhere({ request, url }: Pick<RequestEvent, 'request' | 'url'>): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = request.headers.get('origin');
  // A server that is told its ORIGIN is still opened on its own machine by its own name.
  return origin !== null && origin !== url.origin && origin !== `http://${request.headers.get('host')}`;
}

/**
 * Why a request is not let in, in a sentence; `null` where it is. The name it was sent to is looked at for reading too:
 * a foreign page whose name was turned to this machine counts as of one origin with it.
 */
export function refusedAtDoor(event: Pick<RequestEvent, 'request' | 'url'>, hosts: ReadonlySet<string>): string | null {
  const { request, url } = event;
  const name = nameIn(request.headers.get('host'));
  if (name === null || !hosts.has(name)) {
    return 'This address is not one that this server answers to. Open it as localhost, or name the address in REED_GATE_HOSTS when it is started.';
  }
  const door = DOORS.find(({ path }) => url.pathname.startsWith(path))!;
  const changes = !SAFE_METHODS.includes(request.method);
  return door.ownPagesOnly && changes && comesFromElsewhere(event)
    ? 'This request came from another site and was refused. Behind a proxy that speaks https, start the server with its address in ORIGIN.'
    : null;
}
