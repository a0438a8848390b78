import type { Endpoint } from '../values/endpoint.ts';
import * as bays from '../bays/bay-requests.ts';
import { baysState, bayState } from '../bays/live.ts';
import { pairedName, pairingOffer } from '../people/pairing.ts';
import * as plain from '../instruments/plain-instrument.ts';
import { runPlan, setPoint } from '../instruments/recording.ts';

/** What is asked of the bays: what is on each dyno, what comes next there, and its recorder. `:id` is the bay's number. */
const ofBays: readonly Endpoint[] = [
  { method: 'get', path: '/bays', does: 'All bays, and instruments that stand in none.', answer: baysState },
  { method: 'post', path: '/bays', does: 'Adds a bay.', body: bays.bayName, answer: baysState },
  {
    method: 'get',
    path: '/bays/:id',
    does: 'Instruments, air, what is on the dyno, and the recorder.',
    answer: bayState,
  },
  { method: 'patch', path: '/bays/:id', does: 'Renames a bay.', body: bays.bayName, answer: bayState },
  {
    method: 'delete',
    path: '/bays/:id',
    does: 'Takes away a bay with nothing in it; the runs made there stay.',
    answer: baysState,
  },
  {
    method: 'put',
    path: '/bays/:id/mounted',
    does: 'Puts a job’s setup on the dyno; the job is taken off another one.',
    body: bays.mounting,
    answer: bayState,
  },
  {
    method: 'delete',
    path: '/bays/:id/mounted',
    does: 'Takes the car off the dyno: runs belong to no job until they are claimed.',
    answer: bayState,
  },
  {
    method: 'put',
    path: '/bays/:id/plan',
    does: 'Settles what is recorded next: kind, speeds, ramp, holds, repeats and rest.',
    body: runPlan,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bays/:id/arm',
    does: 'Makes the recorder and the instruments ready for a pull.',
    body: bays.armRequest,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bays/:id/hold',
    does: 'Tells a stand-in a speed and a load to hold; a real dyno is set by its operator, and this is refused.',
    body: setPoint,
    answer: bayState,
  },
  {
    method: 'post',
    path: '/bays/:id/end',
    does: 'Ends the run being recorded. It does not stop the car.',
    answer: bayState,
  },
];

/** What is asked of an instrument, by its name on the bench link, whichever bay it stands in. */
const ofDevices: readonly Endpoint[] = [
  {
    method: 'put',
    path: '/device',
    does: 'Places an instrument in a bay, sets its channel names and probe, or takes its calibrated ratio or zero back.',
    body: bays.deviceSettingsRequest,
    answer: baysState,
  },
  {
    method: 'put',
    path: '/device/faults',
    does: 'Switches a stand-in’s faults on and off, for demonstrations and training.',
    body: bays.faultsRequest,
    answer: baysState,
  },
  {
    method: 'post',
    path: '/device/ratio',
    does: 'Calibrates engine ÷ drum speed from the steady speed held now, for the car and gear on the dyno.',
    body: bays.ratioRequest,
    answer: baysState,
  },
  {
    method: 'post',
    path: '/device/zero',
    does: 'Takes what the load cells read now, with the drum at rest, as their zero.',
    body: bays.deviceRequest,
    answer: baysState,
  },
  {
    method: 'post',
    path: '/device/rest',
    does: 'Has a stand-in come to rest; a real machine is left to its own controls.',
    body: bays.deviceRequest,
    answer: baysState,
  },
];

/** Instruments that send lines of text: entered by hand, listened to before they are settled. */
const ofLines: readonly Endpoint[] = [
  {
    method: 'put',
    path: '/plain-instrument',
    needs: 'owner',
    does: 'Connects an instrument that sends lines of text, in the place of one of the same name.',
    body: plain.plainRequest,
    answer: baysState,
  },
  {
    method: 'post',
    path: '/plain-instrument/disconnect',
    does: 'Lets an instrument that sends lines go for good; its runs stay.',
    body: plain.plainName,
    answer: baysState,
  },
  {
    method: 'put',
    path: '/plain-instrument/trial',
    needs: 'owner',
    does: 'Listens to lines before an instrument is settled, or goes on listening; ends a minute after the last asking.',
    body: plain.trialRequest,
    answer: baysState,
  },
  { method: 'delete', path: '/plain-instrument/trial', does: 'Ends listening.', answer: baysState },
];

/** Instruments on other machines, over TLS. */
const ofPairing: readonly Endpoint[] = [
  {
    method: 'post',
    path: '/pairing',
    needs: 'owner',
    does: 'Makes a code that lets one instrument on another machine in, for ten minutes; an earlier code is worth nothing any more.',
    answer: pairingOffer,
  },
  { method: 'delete', path: '/pairing', needs: 'owner', does: 'Takes the code back.', answer: baysState },
  {
    method: 'post',
    path: '/pairing/revoke',
    needs: 'owner',
    does: 'Takes an instrument’s key back and ends its connection; its runs stay.',
    body: pairedName,
    answer: baysState,
  },
];

export const bayEndpoints: readonly Endpoint[] = [...ofBays, ...ofDevices, ...ofLines, ...ofPairing];
