import type { Request } from 'express';
import {
  armRequest,
  bayName,
  deviceRequest,
  deviceSettingsRequest,
  faultsRequest,
  mounting,
  ratioRequest,
} from '../../contract/bays/bay-requests.ts';
import type { BaysState, BayState } from '../../contract/bays/live.ts';
import { plainName, plainRequest, trialRequest } from '../../contract/instruments/plain-instrument.ts';
import type { BayAsk } from '../../contract/bays/recorder-link.ts';
import { runPlan, setPoint } from '../../contract/instruments/recording.ts';
import type { RecorderClient } from '../recorder-client.ts';
import type { Database } from '../../store/database/database.ts';
import { jobState } from '../../store/jobs/jobs.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { bodyAs, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** The bays: what is on each dyno, its recorder's control, and instruments. */
export function bayRoutes(routes: ContractRoutes, recorder: RecorderClient, database: Database): void {
  const bayIn = ({ bays }: BaysState, request: Request): BayState => {
    const number = idOf(request);
    return found(
      bays.find(({ bay }) => bay === number),
      'bay',
    );
  };
  /** Asks something of the bay in the address. */
  const of = async (request: Request, ask: (bay: number) => BayAsk): Promise<BayState> => {
    const { bay } = bayIn(recorder.state(), request);
    return bayIn(await recorder.ask(ask(bay)), request);
  };

  routes.get('/bays', (_request, response) => {
    response.json(recorder.state());
  });
  routes.post('/bays', async (request, response) => {
    response.status(201).json(await recorder.ask({ ask: 'add bay', with: bodyAs(request, bayName) }));
  });
  routes.get('/bays/:id', (request, response) => {
    response.json(bayIn(recorder.state(), request));
  });
  routes.patch('/bays/:id', async (request, response) => {
    const name = bodyAs(request, bayName);
    response.json(await of(request, (bay) => ({ ask: 'rename bay', bay, with: name })));
  });
  routes.delete('/bays/:id', async (request, response) => {
    const { bay } = bayIn(recorder.state(), request);
    response.json(await recorder.ask({ ask: 'remove bay', bay, with: {} }));
  });
  routes.put('/bays/:id/mounted', async (request, response) => {
    const mounted = bodyAs(request, mounting);
    if ((await jobState(database, mounted.jobId)) === 'closed')
      throw new HttpRefusal(409, 'The job is closed. Reopen it (Brief, Reopen), then put it on the dyno.');
    response.json(await of(request, (bay) => ({ ask: 'mount', bay, with: mounted })));
  });
  routes.delete('/bays/:id/mounted', async (request, response) => {
    response.json(await of(request, (bay) => ({ ask: 'clear', bay, with: {} })));
  });
  routes.put('/bays/:id/plan', async (request, response) => {
    const plan = bodyAs(request, runPlan);
    response.json(await of(request, (bay) => ({ ask: 'plan', bay, with: plan })));
  });
  routes.post('/bays/:id/arm', async (request, response) => {
    const how = bodyAs(request, armRequest);
    const by = response.locals.person?.name ?? '';
    response.json(await of(request, (bay) => ({ ask: 'arm', bay, with: { ...how, by } })));
  });
  routes.post('/bays/:id/hold', async (request, response) => {
    const point = bodyAs(request, setPoint);
    response.json(await of(request, (bay) => ({ ask: 'hold', bay, with: point })));
  });
  routes.post('/bays/:id/end', async (request, response) => {
    response.json(await of(request, (bay) => ({ ask: 'end', bay, with: {} })));
  });

  routes.put('/device', async (request, response) => {
    response.json(await recorder.ask({ ask: 'set device', with: bodyAs(request, deviceSettingsRequest) }));
  });
  routes.put('/device/faults', async (request, response) => {
    response.json(await recorder.ask({ ask: 'play faults', with: bodyAs(request, faultsRequest) }));
  });
  routes.post('/device/ratio', async (request, response) => {
    response.json(await recorder.ask({ ask: 'calibrate ratio', with: bodyAs(request, ratioRequest) }));
  });
  routes.post('/device/zero', async (request, response) => {
    response.json(await recorder.ask({ ask: 'zero load cell', with: bodyAs(request, deviceRequest) }));
  });
  routes.put('/plain-instrument', async (request, response) => {
    response.json(await recorder.ask({ ask: 'connect plain', with: bodyAs(request, plainRequest) }));
  });
  routes.post('/plain-instrument/disconnect', async (request, response) => {
    response.json(await recorder.ask({ ask: 'disconnect plain', with: bodyAs(request, plainName) }));
  });
  routes.put('/plain-instrument/trial', async (request, response) => {
    response.json(await recorder.ask({ ask: 'listen', with: bodyAs(request, trialRequest) }));
  });
  routes.delete('/plain-instrument/trial', async (_request, response) => {
    response.json(await recorder.ask({ ask: 'end listening', with: {} }));
  });
  routes.post('/device/rest', async (request, response) => {
    response.json(await recorder.ask({ ask: 'bring to rest', with: bodyAs(request, deviceRequest) }));
  });
}
