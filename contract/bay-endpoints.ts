import type { Endpoint } from './endpoint.ts';
import * as http from './http.ts';
import { bayState } from './live.ts';
import { runPlan } from './recording.ts';

/** What is asked of the bay: what is on the dyno, what comes next, its instruments, and the recorder. */
export const bayEndpoints: readonly Endpoint[] = [
  { method: 'get', path: '/bay', does: 'Instruments, air, what is on the dyno, and the recorder.', answer: bayState },
  {
    method: 'put',
    path: '/bay/mounted',
    does: 'Puts a job’s setup on the dyno.',
    body: http.mounting,
    answer: bayState,
  },
  {
    method: 'put',
    path: '/bay/faults',
    does: 'Switches a stand-in’s faults on and off, for demonstrations and training.',
    body: http.faultsRequest,
    answer: bayState,
  },
  {
    method: 'put',
    path: '/bay/plan',
    does: 'Settles what is recorded next: kind, speeds, ramp, holds, repeats and rest.',
    body: runPlan,
    answer: bayState,
  },
  {
    method: 'put',
    path: '/bay/device',
    does: 'Sets an instrument’s channel names and probe, or takes its calibrated ratio or zero back.',
    body: http.deviceSettingsRequest,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bay/device/ratio',
    does: 'Calibrates engine ÷ drum speed from the steady speed held now, for the car and gear on the dyno.',
    body: http.ratioRequest,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bay/device/zero',
    does: 'Takes what the load cells read now, with the drum at rest, as their zero.',
    body: http.deviceRequest,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bay/device/rest',
    does: 'Has a stand-in come to rest; a real machine is left to its own controls.',
    body: http.deviceRequest,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bay/arm',
    does: 'Makes the recorder and the instruments ready for a pull.',
    body: http.armRequest,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bay/end',
    does: 'Ends the run being recorded. It does not stop the car.',
    answer: bayState,
  },
];
