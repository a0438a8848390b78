import { randomInt } from 'node:crypto';
import { pairedName, type PairingOffer } from '../../contract/people/pairing.ts';
import type { Accounts } from '../accounts/accounts.ts';
import { HttpRefusal } from '../http-refusal.ts';
import type { RecorderClient } from '../recorder-client.ts';
import { bodyAs } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** A code is worth something for so long, ms. */
const lastsMs = 10 * 60_000;
/** Nothing that is read as something else; eight of them are forty bits, and five may be wrong. */
const letters = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

/** Instruments on other machines: let in by an owner, once, by a code. */
export function pairingRoutes(routes: ContractRoutes, recorder: RecorderClient, accounts: Accounts): void {
  routes.post('/pairing', async (_request, response) => {
    if (!(await accounts.any()))
      throw new HttpRefusal(
        409,
        'Make the first account first, on the page People: without accounts Suvok stays on this machine.',
      );
    const code = newCode();
    const now = Date.now();
    const [at, until] = [new Date(now).toISOString(), new Date(now + lastsMs).toISOString()];
    const { pairing } = await recorder.ask({ ask: 'offer pairing', with: { code, until } });
    if (!pairing.outside) throw new HttpRefusal(409, 'Suvok listens to this machine alone.');
    response.status(201).json({ code, at, until, outside: pairing.outside } satisfies PairingOffer);
  });
  routes.delete('/pairing', async (_request, response) => {
    response.json(await recorder.ask({ ask: 'withdraw pairing', with: {} }));
  });
  routes.post('/pairing/revoke', async (request, response) => {
    response.json(await recorder.ask({ ask: 'revoke pairing', with: bodyAs(request, pairedName) }));
  });
}

function newCode(): string {
  const signs = Array.from({ length: 8 }, () => letters[randomInt(letters.length)]).join('');
  return `${signs.slice(0, 4)}-${signs.slice(4)}`;
}
