import { keys } from '../../state/query-keys.ts';
import { Button, Group, PasswordInput, Select, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { outsideAddresses, shortestPassword, type Person, type PersonChange } from '../../../contract/people/people.ts';
import { roles, type Role } from '../../../contract/values/role.ts';
import { CalibrationTable } from '../../forecasts/calibration-table.tsx';
import { beginAnew, useAccount } from '../../state/account.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import jobs from '../jobs/jobs-page.module.css';
import classes from './people-page.module.css';

const roleWords: Record<Role, string> = {
  owner: 'owner: everything, and who may do what',
  operator: 'operator: all the work',
  viewer: 'viewer: looks only',
};

/** Who may use Suvok, and for what. */
export function PeoplePage() {
  const account = useAccount();
  return (
    <main className={jobs.page}>
      <header className={jobs.head}>
        <h1>People</h1>
      </header>
      {account?.accounts === false && <FirstAccount />}
      {account?.me?.role === 'owner' && <Everybody me={account.me} />}
      {account?.me && account.me.role !== 'owner' && (
        <p className={jobs.empty}>Only an owner says who may use Suvok. You are signed in as {account.me.name}.</p>
      )}
      <CalibrationTable />
    </main>
  );
}

/** Until there is one, whoever reaches the page can do everything. */
function FirstAccount() {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const make = useChange(() => api.makeFirstAccount(name.trim(), password));
  return (
    <section className={classes.first}>
      <p>
        There are no accounts: whoever works on this machine can do everything here. With the first account, an owner’s,
        everybody signs in, and the history names who did what.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate(undefined, { onSuccess: () => beginAnew() });
        }}
      >
        <Group gap={12} align="end">
          <TextInput
            label="Your name"
            autoComplete="username"
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <NewPassword label="A password" value={password} onChange={setPassword} />
          <Button type="submit" loading={make.isPending} disabled={!name.trim() || password.length < shortestPassword}>
            Make the first account
          </Button>
        </Group>
      </form>
    </section>
  );
}

function Everybody({ me }: { me: Person }) {
  const { data: people } = useQuery({ queryKey: keys.people, queryFn: api.people });
  return (
    <>
      <ul className={classes.list}>
        {people?.map((person) => (
          <One key={person.id} person={person} isMe={person.id === me.id} />
        ))}
      </ul>
      <Add />
      <Outside />
    </>
  );
}

function One({ person, isMe }: { person: Person; isMe: boolean }) {
  const change = useChange((fields: PersonChange) => api.changePerson(person.id, fields));
  const shut = person.disabledAt !== null;
  return (
    <li data-shut={shut || undefined}>
      <b>
        {person.name} {isMe && <small>you</small>}
      </b>
      <Select
        aria-label={`Role of ${person.name}`}
        size="sm"
        w={300}
        allowDeselect={false}
        disabled={shut}
        data={roles.map((value) => ({ value, label: roleWords[value] }))}
        value={person.role}
        onChange={(role) => role && change.mutate({ role })}
      />
      {!isMe && <Acts person={person} change={change} />}
    </li>
  );
}

/** What an owner does to the account of somebody else. */
function Acts({ person, change }: { person: Person; change: ReturnType<typeof useChange<PersonChange, Person>> }) {
  const [password, setPassword] = useState<string>();
  const shut = person.disabledAt !== null;
  return (
    <>
      {password === undefined ? (
        <Button variant="default" size="sm" disabled={shut} onClick={() => setPassword('')}>
          Set another password
        </Button>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate({ password }, { onSuccess: () => setPassword(undefined) });
          }}
        >
          <Group gap={8}>
            <NewPassword label={undefined} value={password} onChange={setPassword} />
            <Button type="submit" variant="default" size="sm" disabled={password.length < shortestPassword}>
              Set it
            </Button>
          </Group>
        </form>
      )}
      <Button
        variant="subtle"
        color="gray"
        size="sm"
        loading={change.isPending}
        onClick={() => change.mutate({ disabled: !shut })}
      >
        {shut ? 'Open the account again' : 'Shut the account'}
      </Button>
    </>
  );
}

function Add() {
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('operator');
  const [password, setPassword] = useState('');
  const add = useChange(() => api.addPerson({ name: name.trim(), role, password }));
  return (
    <form
      className={classes.add}
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate(undefined, {
          onSuccess: () => {
            setName('');
            setPassword('');
          },
        });
      }}
    >
      <h2>Another account</h2>
      <Group gap={12} align="end">
        <TextInput label="Name" maxLength={60} value={name} onChange={(event) => setName(event.currentTarget.value)} />
        <Select
          label="May do"
          w={300}
          allowDeselect={false}
          data={roles.map((value) => ({ value, label: roleWords[value] }))}
          value={role}
          onChange={(value) => value && setRole(value)}
        />
        <NewPassword label="First password" value={password} onChange={setPassword} />
        <Button
          type="submit"
          variant="default"
          loading={add.isPending}
          disabled={!name.trim() || password.length < shortestPassword}
        >
          Make the account
        </Button>
      </Group>
    </form>
  );
}

/** How others than this machine reach Suvok, and what their browsers must show. */
function Outside() {
  const { data: outside } = useQuery({ queryKey: keys.outside, queryFn: api.outside });
  if (outside === undefined) return null;
  return (
    <section className={classes.add}>
      <h2>From other machines</h2>
      {outside ? (
        <>
          <p>{outsideAddresses(outside)}</p>
          <p>
            {outside.madeHere
              ? 'The certificate was made here and is signed by nobody: a browser warns once. Go on only where it shows this SHA-256 fingerprint:'
              : 'The shop’s own certificate, SHA-256 fingerprint:'}
          </p>
          <p className={classes.print}>{outside.fingerprint}</p>
        </>
      ) : (
        <p>
          Not reached from other machines. Start Suvok with HOST set to the name or address that others know this
          machine by; docs/operations.md says how.
        </p>
      )}
    </section>
  );
}

interface NewPasswordProps {
  label: string | undefined;
  value: string;
  onChange: (value: string) => void;
}

function NewPassword({ label, value, onChange }: NewPasswordProps) {
  return (
    <PasswordInput
      {...(label === undefined ? { 'aria-label': 'New password', size: 'sm' as const } : { label })}
      w={230}
      placeholder={`${shortestPassword} characters at least`}
      autoComplete="new-password"
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
    />
  );
}
