import { Router } from 'express';
import { armRequest, faultsRequest, mounting } from '../../contract/http.ts';
import type { Bay } from '../recorder/bay.ts';
import { bodyAs } from './answer.ts';

/** The bay: what is on the dyno, and the recorder's control. */
export function bayRoutes(bay: Bay): Router {
  const router = Router();

  router.get('/bay', (_request, response) => {
    response.json(bay.state());
  });

  router.put('/bay/mounted', async (request, response) => {
    await bay.mount(bodyAs(request, mounting));
    response.json(bay.state());
  });

  router.put('/bay/faults', (request, response) => {
    const { device, faults } = bodyAs(request, faultsRequest);
    bay.playFaults(device, faults);
    response.json(bay.state());
  });

  router.post('/bay/arm', (request, response) => {
    bay.arm(bodyAs(request, armRequest).afterS);
    response.json(bay.state());
  });

  router.post('/bay/end', (_request, response) => {
    bay.end();
    response.json(bay.state());
  });

  return router;
}
