import type { BayState } from '../../contract/bays/live.ts';
import { keepConnected, useLive } from '../state/live.ts';

/** The way to the server, as tests speak on it. */
export class FakeSocket {
  static all: FakeSocket[] = [];
  onopen?: () => void;
  onclose?: (event?: CloseEvent) => void;
  onmessage?: (event: { data: unknown }) => void;
  binaryType = '';

  constructor(readonly url: string) {
    FakeSocket.all.push(this);
  }

  readonly said: unknown[] = [];

  send(text: string): void {
    this.said.push(JSON.parse(text));
  }

  close(): void {
    this.onclose?.();
  }

  say(message: object): void {
    this.onmessage!({ data: JSON.stringify(message) });
  }

  rows(...values: number[]): void {
    this.onmessage!({ data: Float64Array.from(values).buffer });
  }
}

/** A page that has just connected; every test begins with one of its own. */
export function connectedPage(): FakeSocket {
  FakeSocket.all = [];
  Object.assign(globalThis, { WebSocket: FakeSocket });
  useLive.setState({
    connected: false,
    everConnected: false,
    bays: [],
    watched: 1,
    bay: undefined,
    columns: [],
    dynoDevice: undefined,
  });
  keepConnected();
  const socket = FakeSocket.all[0]!;
  socket.onopen!();
  return socket;
}

/** The bay in some state of its recorder, with a roller on it. */
export function bayWith(state: BayState['recorder']['state'], dyno?: object): BayState {
  return {
    recorder: { state, runId: null, label: null, startedS: null, problem: null, lastRunId: null },
    devices: [{ device: 'roller', dyno: dyno ?? null, engineToDrumRatio: null }],
  } as unknown as BayState;
}
