import { rateLimit } from 'express-rate-limit';
import type { Request, RequestHandler, Response } from 'express';
import {
  firstAccount,
  newPerson,
  ownPassword,
  personChange,
  signIn,
  type Person,
} from '../../contract/people/people.ts';
import { units } from '../../contract/values/units.ts';
import { inTransaction, type Database } from '../../store/database/database.ts';
import {
  addPerson,
  allPeople,
  changePerson,
  chooseUnits,
  endSessions,
  haveAccounts,
  idOfName,
  personWith,
} from '../../store/shop/people.ts';
import type { Accounts } from '../accounts/accounts.ts';
import { bodyAs, found, idOf } from './answer.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { fromOutside } from '../loopback.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** So many wrong passwords for a name, and then none for this time, ms. */
const guesses = 8;
const guessesMs = 15 * 60_000;

/**
 * Lets so many guesses of a password through, and then none for a while.
 * @param wrong the status of an answer that says that the password was wrong; other answers are no guesses
 * @param whose password is guessed
 */
function slowed(
  wrong: number,
  whose: (request: Request, response: Response) => string | Promise<string>,
): RequestHandler {
  return rateLimit({
    windowMs: guessesMs,
    limit: guesses,
    skipSuccessfulRequests: true,
    requestWasSuccessful: (_request, response) => response.statusCode !== wrong,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    // Guesses from elsewhere shut nobody out who signs in on the machine itself.
    keyGenerator: async (request, response) =>
      `${fromOutside(request) ? 'elsewhere' : 'here'} ${await whose(request, response)}`,
    handler: () => {
      throw new HttpRefusal(429, 'Too many wrong passwords for this account. Wait a quarter of an hour.');
    },
  });
}

/** Signing in and out, and who may. */
export function peopleRoutes(routes: ContractRoutes, database: Database, accounts: Accounts): void {
  // Counted by the account that the name means, as sign-in reads it: no other way to write it gives further guesses.
  const slowedSignIn = slowed(401, async (request) => {
    const { data: name } = signIn.shape.name.safeParse((request.body as { name?: unknown } | undefined)?.name);
    const person = name && (await idOfName(database, name));
    return person ? `account ${person}` : `no account ${name ?? ''}`;
  });
  // By itself: whoever has taken over a session shuts nobody out who signs in.
  const slowedChange = slowed(422, (_request, response) => `account ${response.locals.person?.id ?? ''}`);
  /** The session is a new one: nobody has its number from before. */
  const begin = async (request: Request, person: Person) => {
    await new Promise<void>((resolve, reject) =>
      request.session.regenerate((error?: unknown) => (error ? reject(error as Error) : resolve())),
    );
    request.session.personId = person.id;
    request.session.signedInAt = Date.now();
    return { accounts: true, me: person };
  };
  const end = (request: Request) =>
    new Promise<void>((resolve, reject) =>
      request.session.destroy((error?: unknown) => (error ? reject(error as Error) : resolve())),
    );
  const mine = (person: Person | undefined): Person => {
    if (!person) throw new HttpRefusal(401, 'Sign in first.');
    return person;
  };

  routes.get('/account', async (_request, response) => {
    response.json({ accounts: await accounts.any(), me: response.locals.person ?? null });
  });
  routes.post('/account/first', async (request, response) => {
    const { name, password } = bodyAs(request, firstAccount);
    const person = await inTransaction(database, async (client) => {
      await client.query('lock table person in share row exclusive mode');
      if (await haveAccounts(client)) throw new HttpRefusal(409, 'There are accounts already: sign in.');
      return addPerson(client, { name, role: 'owner', password });
    });
    accounts.changed();
    response.status(201).json(await begin(request, person));
  });
  routes.post('/account/sign-in', slowedSignIn, async (request, response) => {
    const { name, password } = bodyAs(request, signIn);
    const person = await personWith(database, name, password);
    if (!person) throw new HttpRefusal(401, 'No account has this name and password.');
    response.json(await begin(request, person));
  });
  routes.post('/account/sign-out', async (request, response) => {
    await end(request);
    accounts.changed();
    response.json({ accounts: await accounts.any(), me: null });
  });
  routes.post('/account/sign-out-everywhere', async (request, response) => {
    await endSessions(database, mine(response.locals.person).id);
    await end(request);
    accounts.changed();
    response.json({ accounts: await accounts.any(), me: null });
  });
  routes.post('/account/password', slowedChange, async (request, response) => {
    const { before, password } = bodyAs(request, ownPassword);
    const me = mine(response.locals.person);
    if (!(await personWith(database, me.name, before)))
      throw new HttpRefusal(422, 'The password until now is another one.', 'before');
    await changePerson(database, me.id, { password });
    // All others end; this one has just shown that it knows the password.
    await endSessions(database, me.id, request.sessionID);
    accounts.changed();
    response.json({ accounts: true, me });
  });
  routes.put('/account/units', async (request, response) => {
    const chosen = bodyAs(request, units);
    const me = mine(response.locals.person);
    await chooseUnits(database, me.id, chosen);
    accounts.changed();
    response.json({ accounts: true, me: { ...me, units: chosen } });
  });
  routes.get('/people', async (_request, response) => {
    response.json(await allPeople(database));
  });
  routes.post('/people', async (request, response) => {
    const fields = bodyAs(request, newPerson);
    if (!(await accounts.any())) throw new HttpRefusal(409, 'Make the first account first: it is an owner’s.');
    response.status(201).json(await addPerson(database, fields));
  });
  routes.patch('/people/:id', async (request, response) => {
    const id = idOf(request);
    const change = bodyAs(request, personChange);
    const person = found(await changePerson(database, id, change), 'account');
    // Whoever had signed in with what was changed signs in anew; the own session stays.
    await endSessions(database, id, response.locals.person?.id === id ? request.sessionID : null);
    accounts.changed();
    response.json(person);
  });
}
