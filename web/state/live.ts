import { create } from 'zustand';
import { liveMessage, type BayState } from '../../contract/live.ts';
import { queryClient, jobKey } from './queries.ts';

interface LiveState {
  /** False while the way to the server is lost. */
  connected: boolean;
  /** True once there has been a connection. */
  everConnected: boolean;
  bay: BayState | undefined;
  /** The dyno whose rows arrive, and what stands in them. */
  dynoDevice: string | undefined;
  columns: string[];
}

/** What the server tells without being asked. */
export const useLive = create<LiveState>(() => ({
  connected: false,
  everConnected: false,
  bay: undefined,
  dynoDevice: undefined,
  columns: [],
}));

type RowListener = (row: Float64Array) => void;
const rowListeners = new Set<RowListener>();

/** Hears every sample row of the dyno (time, then the live columns). @returns a function that ends it */
export function onRow(listener: RowListener): () => void {
  rowListeners.add(listener);
  return () => rowListeners.delete(listener);
}

let latestRow: Float64Array | undefined;

/** The newest row, or undefined before the first. */
export function newestRow(): Float64Array | undefined {
  return latestRow;
}

/** The newest reading of a channel, or undefined when there is none. */
export function latestReading(channel: string): number | undefined {
  const index = useLive.getState().columns.indexOf(channel);
  const value = index < 0 ? undefined : latestRow?.[index];
  return value === undefined || Number.isNaN(value) ? undefined : value;
}

const retryMs = 1000;

/** Connects to the server, and again whenever the connection is lost. */
export function keepConnected(): void {
  const socket = new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/live`);
  socket.binaryType = 'arraybuffer';
  socket.onopen = () => {
    // What changed while nobody listened is fetched anew.
    if (useLive.getState().everConnected) void queryClient.invalidateQueries();
    useLive.setState({ connected: true, everConnected: true });
  };
  socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
    if (typeof data === 'string') take(data);
    else takeRows(new Float64Array(data));
  };
  socket.onclose = () => {
    useLive.setState({ connected: false });
    setTimeout(keepConnected, retryMs);
  };
}

function take(text: string): void {
  const parsed = liveMessage.safeParse(JSON.parse(text));
  if (!parsed.success) return;
  const message = parsed.data;
  switch (message.type) {
    case 'bay':
      return useLive.setState({ bay: message });
    case 'columns':
      latestRow = undefined;
      return useLive.setState({ dynoDevice: message.device, columns: message.columns });
    case 'changed':
      // Without a job it was a run that belongs to none, or a vehicle: every job may show that.
      for (const queryKey of message.jobId === null
        ? [['unclaimed'], ['vehicle'], ['vehicles'], ['job'], ['jobs']]
        : [jobKey(message.jobId), ['history', message.jobId], ['vehicle'], ['jobs']])
        void queryClient.invalidateQueries({ queryKey });
  }
}

function takeRows(values: Float64Array): void {
  const width = useLive.getState().columns.length;
  if (width === 0 || values.length % width !== 0) return;
  for (let at = 0; at < values.length; at += width) {
    latestRow = values.subarray(at, at + width);
    for (const listener of rowListeners) listener(latestRow);
  }
}
