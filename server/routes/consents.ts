import { newConsent } from '../../contract/shop/consents.ts';
import { addConsent, consentsOfJob, consentTemplates, signedConsent } from '../../store/jobs/consents.ts';
import type { Database } from '../../store/database/database.ts';
import { jobState } from '../../store/jobs/jobs.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';
import { takesAway } from './takes-away.ts';

/** What owners agree to: texts, and what was signed. */
export function consentRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/consent-templates', async (_request, response) => {
    response.json(await consentTemplates(database));
  });

  routes.post('/jobs/:id/consents', async (request, response) => {
    const jobId = idOf(request);
    const fields = bodyAs(request, newConsent);
    found(await jobState(database, jobId), 'job');
    const id = await act(database, response, (client) => addConsent(client, jobId, fields));
    response.status(201).json(
      found(
        (await consentsOfJob(database, jobId)).find((one) => one.id === id),
        'consent',
      ),
    );
  });

  takesAway(routes, database, '/consents/:id', 'consent', 'consent');

  routes.get('/consents/:id/consent.pdf', async (request, response) => {
    const signed = found(await signedConsent(database, idOf(request)), 'consent');
    await inThread(request, response, async (thread) => {
      const { pdf } = await thread.ask('pdf', { signed });
      response.attachment(`${signed.title}, ${signed.name}.pdf`).type('application/pdf').send(Buffer.from(pdf));
    });
  });
}
