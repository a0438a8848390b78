import { randomInt } from 'node:crypto';
import { silentLog } from '../contract/values/service-log.ts';
import { roles, type Role } from '../contract/values/role.ts';
import { Failure } from '../launch/failure.ts';
import { inTransaction, openDatabase } from '../store/database/database.ts';
import { addPerson, allPeople, changePerson, endSessions } from '../store/shop/people.ts';

/** Neither 0 and O nor 1, l and I: it is read from a screen and typed. */
const letters = 'abcdefghjkmnpqrstuvwxyz23456789';
const passwordLength = 20;

/** By chance: 20 of 31 letters are 99 bits. */
const newPassword = (): string =>
  Array.from({ length: passwordLength }, () => letters[randomInt(letters.length)])
    .join('')
    .replace(/(.{5})(?=.)/g, '$1-');

/**
 * Looks after accounts on the machine itself, where somebody must be able to
 * let themselves in again.
 * @param words list, add NAME ROLE, or password NAME
 * @throws Failure where the words say something else, or there is nobody of the name
 */
export async function accountCommand(
  url: string,
  words: readonly (string | undefined)[],
  say: (text: string) => void,
): Promise<void> {
  const [what, name, role] = words;
  const database = openDatabase(url, silentLog, { connections: 2 });
  try {
    const people = await allPeople(database);
    if (what === 'list') {
      if (people.length === 0) say('There are no accounts: whoever reaches the page can do everything.');
      for (const one of people) say(`${one.name}  ${one.role}${one.disabledAt ? ', shut' : ''}`);
      return;
    }
    if ((what !== 'add' && what !== 'password') || !name)
      throw new Failure('Say "account list", "account add NAME ROLE" or "account password NAME".');
    const password = newPassword();
    if (what === 'add') {
      if (!(roles as readonly (string | undefined)[]).includes(role))
        throw new Failure(`A role is one of ${roles.join(', ')}.`);
      if (people.length === 0 && role !== 'owner') throw new Failure('The first account is an owner’s.');
      if (people.some((one) => one.name.toLowerCase() === name.toLowerCase()))
        throw new Failure(`There is an account called ${name} already.`);
      await inTransaction(database, (client) => addPerson(client, { name, role: role as Role, password }));
    } else {
      const one = people.find((candidate) => candidate.name.toLowerCase() === name.toLowerCase());
      if (!one)
        throw new Failure(
          `There is no account called ${name}; there are ${people.map((other) => other.name).join(', ') || 'none'}.`,
        );
      await changePerson(database, one.id, { password, disabled: false });
      await endSessions(database, one.id);
    }
    say(`${name} signs in with ${password}`);
    say('It is shown this once. Change it on the page, under the initials at the top right.');
  } finally {
    await database.end();
  }
}
