import {
  armRequest,
  deviceRequest,
  deviceSettingsRequest,
  faultsRequest,
  mounting,
  ratioRequest,
} from '../../contract/http.ts';
import { runPlan } from '../../contract/recording.ts';
import type { RecorderClient } from '../recorder-client.ts';
import { bodyAs } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** The bay: what is on the dyno, and the recorder's control. */
export function bayRoutes(routes: ContractRoutes, bay: RecorderClient): void {
  routes.get('/bay', (_request, response) => {
    response.json(bay.state());
  });

  routes.put('/bay/mounted', async (request, response) => {
    response.json(await bay.ask({ ask: 'mount', with: bodyAs(request, mounting) }));
  });

  routes.put('/bay/faults', async (request, response) => {
    response.json(await bay.ask({ ask: 'play faults', with: bodyAs(request, faultsRequest) }));
  });

  routes.put('/bay/plan', async (request, response) => {
    response.json(await bay.ask({ ask: 'plan', with: bodyAs(request, runPlan) }));
  });

  routes.put('/bay/device', async (request, response) => {
    response.json(await bay.ask({ ask: 'set device', with: bodyAs(request, deviceSettingsRequest) }));
  });

  routes.post('/bay/device/ratio', async (request, response) => {
    response.json(await bay.ask({ ask: 'calibrate ratio', with: bodyAs(request, ratioRequest) }));
  });

  routes.post('/bay/device/zero', async (request, response) => {
    response.json(await bay.ask({ ask: 'zero load cell', with: bodyAs(request, deviceRequest) }));
  });

  routes.post('/bay/device/rest', async (request, response) => {
    response.json(await bay.ask({ ask: 'bring to rest', with: bodyAs(request, deviceRequest) }));
  });

  routes.post('/bay/arm', async (request, response) => {
    response.json(await bay.ask({ ask: 'arm', with: bodyAs(request, armRequest) }));
  });

  routes.post('/bay/end', async (_request, response) => {
    response.json(await bay.ask({ ask: 'end', with: {} }));
  });
}
