import { z } from 'zod';
import { touchedHeader } from '../../contract/job/changes.ts';
import type { EntryPath } from '../../contract/job/entries.ts';
import { watchedFolder } from '../../contract/shop/watched-folder.ts';
import {
  type JobChange,
  type NewJob,
  type NewSetup,
  type RunChange,
  type SetupChange,
  type StateChange,
} from '../../contract/job/job-requests.ts';
import { type DeviceSettingsRequest, type Mounting } from '../../contract/bays/bay-requests.ts';
import { refusal } from '../../contract/values/answers.ts';
import { change, type freezing, photo, returnedTuneFile, takenTuneFile } from '../../contract/job/job-file.ts';
import { booking, day, type BookingChange, type NewBooking } from '../../contract/shop/day.ts';
import { checkHistory } from '../../contract/job/check-history.ts';
import { consent, consentTemplate, type newConsent } from '../../contract/shop/consents.ts';
import { scoredForecast } from '../../contract/shop/forecasts.ts';
import { price } from '../../contract/shop/charges.ts';
import { shiftNote } from '../../contract/shop/shifts.ts';
import { equipment, equipmentFile } from '../../contract/shop/equipment.ts';
import { pairingOffer } from '../../contract/people/pairing.ts';
import { logSource, type JoinedLog, type LogSource } from '../../contract/instruments/logger-file.ts';
import type { PlainInstrument } from '../../contract/instruments/plain-instrument.ts';
import { account, outside, person, type NewPerson, type PersonChange } from '../../contract/people/people.ts';
import { baysState, bayState, unclaimedRuns } from '../../contract/bays/live.ts';
import type { RunPlan, SetPoint } from '../../contract/instruments/recording.ts';
import {
  madeSharedLink,
  sharedContent,
  sharedLink,
  sharedPath,
  type newSharedLink,
} from '../../contract/report/shared-link.ts';
import { reportVersion, wholeReportVersion, type newReportVersion } from '../../contract/report/report.ts';
import { job, jobList, run, setup } from '../../contract/job/records.ts';
import { owner, vehicleSummary, vehicleWithAll } from '../../contract/shop/vehicles.ts';
import type { Units } from '../../core/units/told-units.ts';
import { rememberAct } from './acts.ts';
import { headersOfData } from './data-identity.ts';
import { noteChanged } from './changed-tables.ts';

/** A request that the server, or the way to it, said no to; the message is a sentence for the screen. */
export class RequestProblem extends Error {
  override name = 'RequestProblem';

  constructor(
    message: string,
    /** The field that it is about, and what is stored now where somebody else changed it. */
    readonly field?: string,
    readonly current?: Record<string, unknown>,
  ) {
    super(message);
  }
}

let signedOut = () => undefined as void;
/** Hears of it when a session has ended. */
export function whenSignedOut(listener: () => void): void {
  signedOut = listener;
}

async function answerTo(path: string, init?: RequestInit): Promise<{ response: Response; content: unknown }> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, { ...init, headers: headersOfData(init?.headers as Record<string, string>) });
  } catch {
    throw new RequestProblem(
      'The server does not answer. What was recorded is kept; check that Suvok is running and try again.',
    );
  }
  const content: unknown = response.status === 204 ? undefined : await response.json().catch(() => undefined);
  if (response.ok) {
    rememberAct(response.headers.get('suvok-act'));
    if (init?.method) noteChanged(response.headers.get(touchedHeader));
    return { response, content };
  }
  if (response.status === 401 && !path.startsWith('/account')) signedOut();
  const said = refusal.safeParse(content);
  if (said.success) throw new RequestProblem(said.data.error, said.data.field, said.data.current);
  throw new RequestProblem(`The server answered with ${response.status} and no reason.`);
}

async function ask<T extends z.ZodType>(schema: T, path: string, init?: RequestInit): Promise<z.output<T>> {
  const { content } = await answerTo(path, init);
  const parsed = schema.safeParse(content);
  if (!parsed.success)
    throw new RequestProblem('The server answered in a form this page does not know. Reload the page.');
  return parsed.data;
}

function sending(method: string, body: unknown): RequestInit {
  return { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}

function sendingForm(file: File, fields: Record<string, string>): RequestInit {
  const form = new FormData();
  form.append('file', file);
  for (const [field, value] of Object.entries(fields)) form.append(field, value);
  return { method: 'POST', body: form };
}

const entryAnswer = z.looseObject({ id: z.int() });

/** Everything that the page asks of the server. */
export const api = {
  jobs: (query: { search: string; state: string; offset: number }) =>
    ask(jobList, `/jobs?${new URLSearchParams({ ...query, offset: String(query.offset) }).toString()}`),
  job: (id: number) => ask(job, `/jobs/${id}`),
  history: (id: number) => ask(z.array(change), `/jobs/${id}/history`),
  addJob: (fields: NewJob) => ask(job, '/jobs', sending('POST', fields)),
  changeJob: (id: number, fields: JobChange) => ask(job, `/jobs/${id}`, sending('PATCH', fields)),
  setJobState: (id: number, state: StateChange) => ask(job, `/jobs/${id}/state`, sending('PUT', state)),
  freezeBaseline: (id: number, fields: z.input<typeof freezing>) =>
    ask(job, `/jobs/${id}/baseline`, sending('POST', fields)),
  addSetup: (jobId: number, fields: NewSetup) => ask(setup, `/jobs/${jobId}/setups`, sending('POST', fields)),
  changeSetup: (id: number, fields: SetupChange) => ask(setup, `/setups/${id}`, sending('PATCH', fields)),
  removeSetup: (id: number) => answerTo(`/setups/${id}`, { method: 'DELETE' }),
  /** @param id of what it belongs to; null for what belongs to the shop */
  addEntry: (of: 'jobs' | 'vehicles', id: number | null, path: EntryPath, fields: object) =>
    ask(entryAnswer, id === null ? `/${path}` : `/${of}/${id}/${path}`, sending('POST', fields)),
  changeEntry: (path: EntryPath, id: number, fields: object) =>
    ask(entryAnswer, `/${path}/${id}`, sending('PATCH', fields)),
  removeEntry: (
    path: EntryPath | 'equipment-files' | 'consents' | 'tune-files' | 'tuner-packages' | 'photos' | 'vehicles',
    id: number,
  ) => answerTo(`/${path}/${id}`, { method: 'DELETE' }),
  undo: (act: string) => answerTo(`/acts/${act}/undo`, { method: 'POST' }),
  owners: () => ask(z.array(owner), '/owners'),
  changeOwner: (id: number, fields: object) => ask(owner, `/owners/${id}`, sending('PATCH', fields)),
  vehicles: (search: string) => ask(z.array(vehicleSummary), `/vehicles?${new URLSearchParams({ search }).toString()}`),
  vehicle: (id: number) => ask(vehicleWithAll, `/vehicles/${id}`),
  addVehicle: (fields: object) => ask(vehicleWithAll, '/vehicles', sending('POST', fields)),
  changeVehicle: (id: number, fields: object) => ask(vehicleWithAll, `/vehicles/${id}`, sending('PATCH', fields)),
  addTuneFile: (setupId: number, file: File) =>
    ask(takenTuneFile, `/setups/${setupId}/tune-files`, sendingForm(file, {})),
  addReturnedFile: (setupId: number, file: File) =>
    ask(returnedTuneFile, `/setups/${setupId}/returned-files`, sendingForm(file, {})),
  changeTuneFile: (id: number, fields: object) => answerTo(`/tune-files/${id}`, sending('PATCH', fields)),
  addPhoto: (jobId: number, file: File, caption: string) =>
    ask(photo, `/jobs/${jobId}/photos`, sendingForm(file, { caption })),
  changeRun: (id: number, fields: RunChange) => ask(run, `/runs/${id}`, sending('PATCH', fields)),
  changeRuns: (runIds: number[], change: RunChange) => ask(z.array(run), '/runs', sending('PATCH', { runIds, change })),
  logSources: () => ask(z.array(logSource), '/log-sources'),
  watchedFolder: () => ask(watchedFolder, '/watched-folder'),
  watchFolder: (path: string | null) => ask(watchedFolder, '/watched-folder', sending('PUT', { path })),
  takeAgain: (id: number) => ask(watchedFolder, `/watched-files/${id}/again`, sending('POST', {})),
  keepLogSource: (source: LogSource) => ask(logSource, '/log-sources', sending('PUT', source)),
  joinLog: (runId: number, samples: Uint8Array, words: JoinedLog) =>
    ask(
      run,
      `/runs/${runId}/logs`,
      sendingForm(new File([samples as BlobPart], 'samples'), { settings: JSON.stringify(words) }),
    ),
  takeLogOff: (runId: number, source: number) => ask(run, `/runs/${runId}/logs/${source}`, { method: 'DELETE' }),
  keepReport: (jobId: number, version: z.input<typeof newReportVersion>) =>
    ask(reportVersion, `/jobs/${jobId}/report/versions`, sending('POST', version)),
  reportVersion: (id: number) => ask(wholeReportVersion, `/report-versions/${id}`),
  removeReportVersion: (id: number) => answerTo(`/report-versions/${id}`, { method: 'DELETE' }),
  sharedLinks: (jobId: number) => ask(z.array(sharedLink), `/jobs/${jobId}/shared-links`),
  shareJob: (jobId: number, link: z.input<typeof newSharedLink>) =>
    ask(madeSharedLink, `/jobs/${jobId}/shared-links`, sending('POST', link)),
  removeSharedLink: (id: number) => answerTo(`/shared-links/${id}`, { method: 'DELETE' }),
  shared: (key: string) => ask(sharedContent, sharedPath(key)),
  day: (from: string, to: string) => ask(day, `/day?${new URLSearchParams({ from, to }).toString()}`),
  addBookings: (fields: NewBooking) => ask(z.array(booking), '/bookings', sending('POST', fields)),
  changeBooking: (id: number, fields: BookingChange) => ask(booking, `/bookings/${id}`, sending('PATCH', fields)),
  removeBooking: (id: number, rest: boolean) =>
    answerTo(`/bookings/${id}${rest ? '?series=rest' : ''}`, { method: 'DELETE' }),
  prices: () => ask(z.array(price), '/prices'),
  consentTemplates: () => ask(z.array(consentTemplate), '/consent-templates'),
  signConsent: (jobId: number, fields: z.input<typeof newConsent>) =>
    ask(consent, `/jobs/${jobId}/consents`, sending('POST', fields)),
  forecasts: () => ask(z.array(scoredForecast), '/forecasts'),
  shiftNotes: () => ask(z.array(shiftNote), '/shift-notes'),
  equipment: () => ask(z.array(equipment), '/equipment'),
  addEquipmentFile: (id: number, file: File) => ask(equipmentFile, `/equipment/${id}/files`, sendingForm(file, {})),
  unclaimedRuns: () => ask(unclaimedRuns, '/unclaimed-runs'),
  account: () => ask(account, '/account'),
  makeFirstAccount: (name: string, password: string) =>
    ask(account, '/account/first', sending('POST', { name, password })),
  signIn: (name: string, password: string) => ask(account, '/account/sign-in', sending('POST', { name, password })),
  signOut: () => ask(account, '/account/sign-out', { method: 'POST' }),
  signOutEverywhere: () => ask(account, '/account/sign-out-everywhere', { method: 'POST' }),
  chooseUnits: (units: Units) => ask(account, '/account/units', sending('PUT', units)),
  changePassword: (before: string, password: string) =>
    ask(account, '/account/password', sending('POST', { before, password })),
  outside: () => ask(outside.nullable(), '/outside'),
  people: () => ask(z.array(person), '/people'),
  addPerson: (fields: NewPerson) => ask(person, '/people', sending('POST', fields)),
  changePerson: (id: number, change: PersonChange) => ask(person, `/people/${id}`, sending('PATCH', change)),
  addBay: (name: string) => ask(baysState, '/bays', sending('POST', { name })),
  renameBay: (bay: number, name: string) => ask(bayState, `/bays/${bay}`, sending('PATCH', { name })),
  removeBay: (bay: number) => ask(baysState, `/bays/${bay}`, { method: 'DELETE' }),
  mount: (bay: number, mounting: Mounting) => ask(bayState, `/bays/${bay}/mounted`, sending('PUT', mounting)),
  clearBay: (bay: number) => ask(bayState, `/bays/${bay}/mounted`, { method: 'DELETE' }),
  playFaults: (device: string, faults: string[]) =>
    ask(baysState, '/device/faults', sending('PUT', { device, faults })),
  planNext: (bay: number, plan: RunPlan) => ask(bayState, `/bays/${bay}/plan`, sending('PUT', plan)),
  setDevice: (request: DeviceSettingsRequest) => ask(baysState, '/device', sending('PUT', request)),
  calibrateRatio: (device: string, engineRpm?: number) =>
    ask(baysState, '/device/ratio', sending('POST', { device, engineRpm })),
  zeroLoadCell: (device: string) => ask(baysState, '/device/zero', sending('POST', { device })),
  bringToRest: (device: string) => ask(baysState, '/device/rest', sending('POST', { device })),
  connectPlain: (instrument: PlainInstrument, bay: number | null) =>
    ask(baysState, '/plain-instrument', sending('PUT', { instrument, bay })),
  offerPairing: () => ask(pairingOffer, '/pairing', sending('POST', {})),
  withdrawPairing: () => ask(baysState, '/pairing', { method: 'DELETE' }),
  revokePairing: (device: string) => ask(baysState, '/pairing/revoke', sending('POST', { device })),
  disconnectPlain: (device: string) => ask(baysState, '/plain-instrument/disconnect', sending('POST', { device })),
  listenToLines: (way: PlainInstrument['way'], greeting: string) =>
    ask(baysState, '/plain-instrument/trial', sending('PUT', { way, greeting })),
  endListening: () => ask(baysState, '/plain-instrument/trial', { method: 'DELETE' }),
  checkHistory: (device: string, job?: number) =>
    ask(
      checkHistory,
      `/check-history?${new URLSearchParams({ device, ...(job === undefined ? {} : { job: String(job) }) }).toString()}`,
    ),
  arm: (bay: number) => ask(bayState, `/bays/${bay}/arm`, sending('POST', {})),
  hold: (bay: number, point: SetPoint) => ask(bayState, `/bays/${bay}/hold`, sending('POST', point)),
  end: (bay: number) => ask(bayState, `/bays/${bay}/end`, sending('POST', {})),
};
