import {
  armRequest,
  deviceRequest,
  deviceSettingsRequest,
  faultsRequest,
  mounting,
  ratioRequest,
} from '../../contract/http.ts';
import { runPlan } from '../../contract/recording.ts';
import type { Bay } from '../../recorder/bay.ts';
import { bodyAs } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** The bay: what is on the dyno, and the recorder's control. */
export function bayRoutes(routes: ContractRoutes, bay: Bay): void {
  routes.get('/bay', (_request, response) => {
    response.json(bay.state());
  });

  routes.put('/bay/mounted', async (request, response) => {
    await bay.mount(bodyAs(request, mounting));
    response.json(bay.state());
  });

  routes.put('/bay/faults', (request, response) => {
    const { device, faults } = bodyAs(request, faultsRequest);
    bay.instruments.playFaults(device, faults);
    response.json(bay.state());
  });

  routes.put('/bay/plan', async (request, response) => {
    await bay.planNext(bodyAs(request, runPlan));
    response.json(bay.state());
  });

  routes.put('/bay/device', async (request, response) => {
    const { device, ...change } = bodyAs(request, deviceSettingsRequest);
    await bay.instruments.set(device, change);
    response.json(bay.state());
  });

  routes.post('/bay/device/ratio', async (request, response) => {
    const { device, engineRpm } = bodyAs(request, ratioRequest);
    await bay.instruments.calibrateRatio(device, engineRpm);
    response.json(bay.state());
  });

  routes.post('/bay/device/zero', async (request, response) => {
    await bay.instruments.zeroLoadCell(bodyAs(request, deviceRequest).device);
    response.json(bay.state());
  });

  routes.post('/bay/device/rest', (request, response) => {
    bay.instruments.bringToRest(bodyAs(request, deviceRequest).device);
    response.json(bay.state());
  });

  routes.post('/bay/arm', (request, response) => {
    bay.arm(bodyAs(request, armRequest).afterS);
    response.json(bay.state());
  });

  routes.post('/bay/end', (_request, response) => {
    bay.end();
    response.json(bay.state());
  });
}
