import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import * as people from '../people/people.ts';
import { units } from '../values/units.ts';

/** Accounts: who may do what, and signing in. */
export const peopleEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/account',
    needs: 'nobody',
    does: 'Who asks, and whether there are accounts.',
    answer: people.account,
  },
  {
    method: 'post',
    path: '/account/first',
    needs: 'nobody',
    does: 'Makes the first account, an owner’s, and signs it in; from then on everybody signs in.',
    body: people.firstAccount,
    answer: people.account,
  },
  {
    method: 'post',
    path: '/account/sign-in',
    needs: 'nobody',
    does: 'Signs in; the session is a new one.',
    body: people.signIn,
    answer: people.account,
  },
  { method: 'post', path: '/account/sign-out', needs: 'viewer', does: 'Ends this session.', answer: people.account },
  {
    method: 'post',
    path: '/account/sign-out-everywhere',
    needs: 'viewer',
    does: 'Ends every session of whoever asks.',
    answer: people.account,
  },
  {
    method: 'post',
    path: '/account/password',
    needs: 'viewer',
    does: 'Changes the own password and ends all other sessions.',
    body: people.ownPassword,
    answer: people.account,
  },
  {
    method: 'put',
    path: '/account/units',
    needs: 'viewer',
    does: 'Chooses what whoever asks is told quantities in, wherever they sign in.',
    body: units,
    answer: people.account,
  },
  {
    method: 'get',
    path: '/people',
    needs: 'owner',
    does: 'Everybody with an account.',
    answer: z.array(people.person),
  },
  {
    method: 'post',
    path: '/people',
    needs: 'owner',
    does: 'Makes an account.',
    body: people.newPerson,
    answer: people.person,
  },
  {
    method: 'patch',
    path: '/people/:id',
    needs: 'owner',
    does: 'Changes a role or a password, or shuts an account; its sessions end.',
    body: people.personChange,
    answer: people.person,
  },
  {
    method: 'get',
    path: '/outside',
    needs: 'owner',
    does: 'How other machines reach Suvok, and by which certificate they know it; null where they do not.',
    answer: people.outside.nullable(),
  },
];
