import type { Endpoint } from 'comlink';

type Hear = (event: MessageEvent) => void;

/** The page's end and the worker's end of a line between them: what is said into one is heard at the other, a turn later, and not copied. */
export function talkingEnds(): { page: Endpoint; worker: Endpoint } {
  const hearing: { page: Hear[]; worker: Hear[] } = { page: [], worker: [] };
  const end = (own: Hear[], other: Hear[]) =>
    ({
      postMessage: (data: unknown) => {
        const event = { data, origin: '', ports: [] } as unknown as MessageEvent;
        setTimeout(() => other.forEach((hear) => hear(event)));
      },
      addEventListener: (_: string, hear: Hear) => void own.push(hear),
      removeEventListener: (_: string, hear: Hear) => void own.splice(own.indexOf(hear), 1),
    }) as unknown as Endpoint;
  return { page: end(hearing.page, hearing.worker), worker: end(hearing.worker, hearing.page) };
}
