import { replaceEqualDeep } from '@tanstack/react-query';
import { create } from 'zustand';
import { liveMessage, silentAfterMs, type BaysState, type BayState } from '../../contract/bays/live.ts';
import type { DeviceState } from '../../contract/bays/live.ts';
import { Silence } from '../../core/readiness/silence.ts';
import { meetData } from './data-identity.ts';
import { fetchAnew, fetchTouched } from './what-changed.ts';

interface LiveState {
  /** False while the way to the server is lost, or the server says nothing. */
  connected: boolean;
  /** Since when nothing has come from the server, ms since 1970; undefined while it speaks. */
  silentSince: number | undefined;
  /** True once there has been a connection. */
  everConnected: boolean;
  /** Every bay, by its number; empty until the server has spoken. */
  bays: readonly BayState[];
  /** Instruments that stand in no bay. */
  unplaced: readonly DeviceState[];
  /** Instruments that were connected by hand, and lines that are listened to before that. */
  plain: BaysState['plain'];
  trial: BaysState['trial'];
  pairing: BaysState['pairing'];
  /** Since when the recorder says nothing to the server, ms since 1970. */
  recorderSilentSince: number | null;
  /** The bay that this page watches: its rows arrive. */
  watched: number;
  bay: BayState | undefined;
  /** Its dyno, and what stands in its rows. */
  dynoDevice: string | undefined;
  columns: string[];
}

/** What the server tells without being asked. */
export const useLive = create<LiveState>(() => ({
  connected: false,
  silentSince: undefined,
  everConnected: false,
  bays: [],
  unplaced: [],
  plain: [],
  trial: null,
  pairing: { outside: null, until: null, instruments: [] },
  recorderSilentSince: null,
  watched: 1,
  bay: undefined,
  dynoDevice: undefined,
  columns: [],
}));

type RowListener = (row: Float64Array) => void;
const rowListeners = new Set<RowListener>();

/** Hears every sample row of the watched bay's dyno (time, then the live columns). @returns a function that ends it */
export function onRow(listener: RowListener): () => void {
  rowListeners.add(listener);
  return () => rowListeners.delete(listener);
}

let latestRow: Float64Array | undefined;
/** When it came, of the page's clock, and the time from one row to the next by the instrument's, ms. */
let latestRowMs = -Infinity;
let rowEveryMs = 0;

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

/** Whether the newest row is older than so much, and than three of the dyno's own intervals: a slow one is not silent. */
export function rowsOlderThan(allowedMs: number): boolean {
  return latestRow !== undefined && performance.now() - latestRowMs > Math.max(allowedMs, 3 * rowEveryMs);
}

const retryMs = 1000;
/** A server that has said nothing for this long is sought anew, ms: the way to it may be cut. */
const seekAnewMs = 10_000;
const listenEveryMs = 250;
let socket: WebSocket | undefined;
const silence = new Silence(silentAfterMs, listenEveryMs);
let listening: ReturnType<typeof setInterval> | undefined;

function heard(): void {
  if (silence.heard()) useLive.setState({ connected: true, silentSince: undefined });
}

function listen(opened: WebSocket): void {
  if (silence.tick(Date.now())) useLive.setState({ connected: false, silentSince: silence.sinceMs });
  if (silence.sinceMs === undefined || Date.now() - silence.sinceMs < seekAnewMs) return;
  [opened.onopen, opened.onmessage, opened.onclose] = [null, null, null];
  opened.close();
  keepConnected();
}

/** Connects to the server, and again whenever the connection is lost. */
export function keepConnected(): void {
  const opened = new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/live`);
  socket = opened;
  opened.binaryType = 'arraybuffer';
  clearInterval(listening);
  opened.onopen = () => {
    // What changed while nobody listened is fetched anew.
    if (useLive.getState().everConnected) void fetchAnew();
    silence.heard();
    useLive.setState({ connected: true, everConnected: true, silentSince: undefined });
    listening = setInterval(() => listen(opened), listenEveryMs);
    sayWatched();
  };
  opened.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
    heard();
    if (typeof data === 'string') take(data);
    else takeRows(new Float64Array(data));
  };
  opened.onclose = (event?: CloseEvent) => {
    clearInterval(listening);
    useLive.setState(({ silentSince }) => ({ connected: false, silentSince: silentSince ?? Date.now() }));
    // The session of this page has ended: whoever asks next is told so.
    if (event?.code === 4401) void fetchAnew();
    setTimeout(keepConnected, retryMs);
  };
}

/** Watches another bay: its state and its rows are what this page shows from now on. */
export function watchBay(number: number): void {
  const { watched, bays } = useLive.getState();
  if (watched === number) return;
  forgetRows();
  useLive.setState({ watched: number, bay: bays.find(({ bay }) => bay === number), dynoDevice: undefined });
  sayWatched();
}

function sayWatched(): void {
  if (useLive.getState().connected) socket?.send(JSON.stringify({ type: 'watch', bay: useLive.getState().watched }));
}

/** Rows mean nothing until their columns are known. */
function forgetRows(): void {
  latestRow = undefined;
  rowEveryMs = 0;
  useLive.setState({ columns: [] });
}

function take(text: string): void {
  const parsed = liveMessage.safeParse(JSON.parse(text));
  if (!parsed.success) return;
  const message = parsed.data;
  switch (message.type) {
    case 'alive':
      return undefined;
    case 'data':
      return meetData(message.id);
    case 'bays':
      return takeBays(message);
    case 'columns':
      forgetRows();
      // Columns that the server sent before it heard of the change of bay: the rows after them are not wanted either.
      if (message.bay !== useLive.getState().watched) return;
      return useLive.setState({ dynoDevice: message.device, columns: message.columns });
    case 'changed':
      return void fetchTouched([message.table], message.jobId);
  }
}

/**
 * The server says this up to thirty times a second, mostly unchanged: what is the same stays the same object, so that
 * nothing is drawn anew.
 */
function takeBays(said: BaysState): void {
  const { watched, ...before } = useLive.getState();
  const { bays, unplaced, plain, trial, pairing } = replaceEqualDeep(
    {
      ...said,
      bays: before.bays,
      unplaced: before.unplaced,
      plain: before.plain,
      trial: before.trial,
      pairing: before.pairing,
    },
    said,
  );
  const bay = bays.find((candidate) => candidate.bay === watched);
  useLive.setState({ bays, unplaced, plain, trial, pairing, bay, recorderSilentSince: said.silentSince });
  // The bay has been taken away.
  if (!bay) watchBay(bays[0]!.bay);
}

/** A dyno is not slower than this, ms: a longer step is a hole. */
const slowestRowMs = 2000;

function takeRows(values: Float64Array): void {
  const width = useLive.getState().columns.length;
  if (width === 0 || values.length % width !== 0) return;
  for (let at = 0; at < values.length; at += width) {
    const before = latestRow?.[0] ?? NaN;
    latestRow = values.subarray(at, at + width);
    const sinceBeforeMs = 1000 * (latestRow[0]! - before);
    if (sinceBeforeMs > 0) rowEveryMs = Math.min(sinceBeforeMs, slowestRowMs);
    latestRowMs = performance.now();
    for (const listener of rowListeners) listener(latestRow);
  }
}
