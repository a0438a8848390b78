import { z } from 'zod';
import { bayEndpoints } from './bay-endpoints.ts';
import { bundleEndpoints } from './bundle-endpoints.ts';
import { fuellingEndpoints } from '../shop/fuelling.ts';
import { peopleEndpoints } from './people-endpoints.ts';
import { checkHistory } from '../job/check-history.ts';
import { testEndpoints } from '../job/other-tests.ts';
import { curveJson } from '../files/curve.ts';
import type { Endpoint } from '../values/endpoint.ts';
import { dayEndpoints } from '../shop/day.ts';
import { chargeEndpoints } from '../shop/charges.ts';
import { consentEndpoints } from '../shop/consents.ts';
import { forecastEndpoints } from '../shop/forecasts.ts';
import { equipmentEndpoints } from '../shop/equipment.ts';
import { shiftEndpoints } from '../shop/shifts.ts';
import { addedAt, entryKinds } from '../job/entries.ts';
import { airFile, dynoFile } from '../files/machine-and-air.ts';
import * as http from '../job/job-requests.ts';
import * as file from '../job/job-file.ts';
import { unclaimedRuns } from '../bays/live.ts';
import { logSource } from '../instruments/logger-file.ts';
import { job, jobList, run, setup } from '../job/records.ts';
import { reportEndpoints } from './report-endpoints.ts';
import { sharedLinkEndpoints } from '../report/shared-link.ts';
import * as vehicles from '../shop/vehicles.ts';
import { watchedFolder, watchedFolderChoice } from '../shop/watched-folder.ts';

const revision = z.int().positive().optional();
const entryEndpoints = Object.values(entryKinds).flatMap(({ of, path, what, fields, record }): Endpoint[] => [
  { method: 'post', path: addedAt({ of, path }), does: `Adds ${what}.`, body: fields, answer: record },
  {
    method: 'patch',
    path: `/${path}/:id`,
    does: `Changes ${what}; leaves alone what is not named.`,
    // Rules that bind two fields are checked against the entry as it will be.
    body: z
      .object(fields.shape as z.ZodRawShape)
      .partial()
      .extend({ revision }),
    answer: record,
  },
  { method: 'delete', path: `/${path}/:id`, does: `Takes ${what} away; undone by its act.` },
]);

export const endpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/health',
    needs: 'nobody',
    does: 'Whether server and database answer.',
    answer: z.object({ ok: z.boolean() }),
  },
  {
    method: 'get',
    path: '/jobs',
    does: 'A page of the job list: those on a dyno, those that wait, those that are finished; the one touched last first. Every word of the search must be found in vehicle, plate, owner, question, notes, setups, suspicions or tune files. `state` is all, dyno, waiting, finished, open, paused or closed.',
    query: ['search', 'state', 'offset', 'most'],
    answer: jobList,
  },
  {
    method: 'post',
    path: '/jobs',
    does: 'Begins a job with its first setup; vehicle and owner by name are found or written down anew.',
    body: http.newJob,
    answer: job,
  },
  { method: 'get', path: '/jobs/:id', does: 'A job with all that is in its file.', answer: job },
  { method: 'patch', path: '/jobs/:id', does: 'Changes what the brief says.', body: http.jobChange, answer: job },
  {
    method: 'put',
    path: '/jobs/:id/state',
    does: 'Pauses, resumes, closes or reopens a job.',
    body: http.stateChange,
    answer: job,
  },
  {
    method: 'get',
    path: '/jobs/:id/history',
    does: 'Every change of what people wrote, the last first.',
    answer: z.array(file.change),
  },
  {
    method: 'post',
    path: '/jobs/:id/baseline',
    does: 'Freezes a list of runs as the next version of the baseline.',
    body: file.freezing,
    answer: job,
  },
  {
    method: 'post',
    path: '/jobs/:id/setups',
    does: 'Begins the next setup; its items are read out of the line unless they are given.',
    body: http.newSetup,
    answer: setup,
  },
  {
    method: 'patch',
    path: '/setups/:id',
    does: 'Changes a setup: its line, items, prediction (until its first run) or decision.',
    body: http.setupChange,
    answer: setup,
  },
  { method: 'delete', path: '/setups/:id', does: 'Takes away a setup that never ran; undone by its act.' },
  {
    method: 'post',
    path: '/acts/:id/undo',
    does: 'Undoes all that one act changed. The act’s number came in the header suvok-act of its answer.',
  },
  ...entryEndpoints,
  ...reportEndpoints,
  ...sharedLinkEndpoints,
  ...bundleEndpoints,
  ...dayEndpoints,
  ...forecastEndpoints,
  ...consentEndpoints,
  ...chargeEndpoints,
  ...equipmentEndpoints,
  ...shiftEndpoints,
  ...fuellingEndpoints,
  ...testEndpoints,
  { method: 'get', path: '/owners', does: 'All owners by name.', answer: z.array(vehicles.owner) },
  {
    method: 'patch',
    path: '/owners/:id',
    does: 'Changes an owner.',
    body: vehicles.ownerFields.partial().extend({ revision }),
    answer: vehicles.owner,
  },
  {
    method: 'get',
    path: '/vehicles',
    does: 'Vehicles, the one seen last first.',
    query: ['search'],
    answer: z.array(vehicles.vehicleSummary),
  },
  {
    method: 'post',
    path: '/vehicles',
    does: 'Writes a vehicle down.',
    body: vehicles.newVehicle,
    answer: vehicles.vehicleWithAll,
  },
  {
    method: 'get',
    path: '/vehicles/:id',
    does: 'A vehicle with owner, parts and jobs.',
    answer: vehicles.vehicleWithAll,
  },
  {
    method: 'patch',
    path: '/vehicles/:id',
    does: 'Changes a vehicle; its owner by number or by name.',
    body: vehicles.vehicleChange.extend({ revision }),
    answer: vehicles.vehicleWithAll,
  },
  { method: 'delete', path: '/vehicles/:id', does: 'Takes away a vehicle that has no job; undone by its act.' },
  {
    method: 'post',
    path: '/setups/:id/tune-files',
    does: 'Takes a tune file in, opaque; says where its content is known from.',
    form: ['file', 'author', 'note'],
    answer: file.takenTuneFile,
  },
  {
    method: 'post',
    path: '/setups/:id/returned-files',
    does: 'Takes in a tune file that was made for a setup elsewhere: a new setup with it, or, where this job has seen its content, where that was.',
    form: ['file', 'author', 'note'],
    answer: file.returnedTuneFile,
  },
  {
    method: 'patch',
    path: '/tune-files/:id',
    does: 'Changes what is written of a tune file.',
    body: file.tuneFileFields.partial().extend({ revision }),
    answer: file.tuneFile,
  },
  { method: 'delete', path: '/tune-files/:id', does: 'Takes a tune file off a setup; undone by its act.' },
  {
    method: 'get',
    path: '/tune-files/:id/content',
    does: 'A tune file as it came.',
    binary: 'application/octet-stream',
  },
  {
    method: 'post',
    path: '/jobs/:id/photos',
    does: 'Takes a photo in: JPEG, PNG or WebP.',
    form: ['file', 'caption'],
    answer: file.photo,
  },
  { method: 'patch', path: '/photos/:id', does: 'Changes a photo’s caption.', body: file.photoFields },
  { method: 'delete', path: '/photos/:id', does: 'Takes a photo away; undone by its act.' },
  { method: 'get', path: '/photos/:id/content', does: 'A photo as it came.', binary: 'image/*' },
  {
    method: 'get',
    path: '/unclaimed-runs',
    does: 'Runs that were kept while no job was on the dyno.',
    answer: unclaimedRuns,
  },
  { method: 'get', path: '/runs/:id', does: 'What is known of a run beside its samples.', answer: run },
  {
    method: 'patch',
    path: '/runs/:id',
    does: 'Changes what people say of a run and what it was made under, or moves it to another setup.',
    body: http.runChange,
    answer: run,
  },
  {
    method: 'patch',
    path: '/runs',
    does: 'Says the same of several runs, in one act.',
    body: http.runsChange,
    answer: z.array(run),
  },
  {
    method: 'get',
    path: '/runs/:id/recording',
    does: 'A run’s samples, binary; form in docs/file-formats.md. `source` 1, 2 … asks for those of a logger beside it.',
    query: ['source'],
    binary: 'application/octet-stream',
  },
  {
    method: 'get',
    path: '/recordings',
    does: 'Samples of several runs that have ended, and of loggers beside them (`of=KEY.KEY-1`), one after the other; form in docs/file-formats.md.',
    query: ['of'],
    binary: 'application/octet-stream',
  },
  {
    method: 'get',
    path: '/runs/:id/run.csv',
    does: 'A run’s samples as CSV, with its air; of a logger beside it on the logger’s own clock.',
    query: ['source'],
    binary: 'text/csv',
  },
  { method: 'get', path: '/runs/:id/dyno.json', does: 'The machine that a run was made on.', answer: dynoFile },
  { method: 'get', path: '/runs/:id/air.json', does: 'The air of a run.', answer: airFile },
  {
    method: 'get',
    path: '/runs/:id/curve',
    does: 'A run’s curve.',
    query: ['standard', 'smoothing', 'grid', 'share'],
    answer: curveJson,
  },
  {
    method: 'get',
    path: '/watched-folder',
    does: 'The folder in which dynos and loggers drop their files, and what became of each.',
    answer: watchedFolder,
  },
  {
    method: 'put',
    path: '/watched-folder',
    needs: 'owner',
    does: 'Chooses the folder, or none.',
    body: watchedFolderChoice,
    answer: watchedFolder,
  },
  {
    method: 'post',
    path: '/watched-files/:id/again',
    does: 'Takes a file again that was refused.',
    answer: watchedFolder,
  },
  {
    method: 'get',
    path: '/log-sources',
    does: 'Loggers whose files were read before: how, by their headings.',
    answer: z.array(logSource),
  },
  {
    method: 'put',
    path: '/log-sources',
    does: 'Remembers how the files of a logger are read.',
    body: logSource,
    answer: logSource,
  },
  {
    method: 'post',
    path: '/runs/:id/logs',
    does: 'Adds a logger’s recording to a run that has ended: samples in the form of /runs/:id/recording, on the logger’s own clock.',
    form: ['file', 'settings'],
    answer: run,
  },
  {
    method: 'delete',
    path: '/runs/:id/logs/:source',
    does: 'Takes a logger’s recording off a run; undone by its act.',
    answer: run,
  },
  {
    method: 'post',
    path: '/imports',
    does: 'Takes a recording in; `settings` is JSON.',
    form: ['file', 'settings'],
    answer: http.importResult,
  },
  {
    method: 'get',
    path: '/check-history',
    does: 'A dyno’s check runs, the spread within and between mountings that they show, and the spreads of repeats in other jobs.',
    query: ['device', 'job'],
    answer: checkHistory,
  },
  ...bayEndpoints,
  ...peopleEndpoints,
  { method: 'get', path: '/', does: 'This list, to be read.', binary: 'text/html' },
  {
    method: 'get',
    path: '/openapi.json',
    does: 'This list as OpenAPI 3.1.',
    answer: z.record(z.string(), z.unknown()),
  },
];
