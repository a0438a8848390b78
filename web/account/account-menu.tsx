import { Button, Group, Menu, Modal, PasswordInput, Stack } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { shortestPassword } from '../../contract/people/people.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { initialsOf } from './initials.ts';
import classes from './account-menu.module.css';
import { beginAnew, useAccount } from '../state/account.ts';

/** Whose page this is, where there are accounts, and the way out of it. */
export function AccountMenu() {
  const me = useAccount()?.me;
  const navigate = useNavigate();
  const [changing, setChanging] = useState(false);
  const leave = (how: () => Promise<unknown>) =>
    void how().then(
      () => beginAnew('/jobs'),
      (error: Error) => notifications.show({ message: error.message, color: 'red' }),
    );
  if (!me) return null;
  return (
    <>
      {me.role === 'viewer' && <small className={classes.looks}>looks only</small>}
      <Menu position="bottom-end" shadow="md" width={230}>
        <Menu.Target>
          <button className={classes.me} aria-label={`Account of ${me.name}`} title={`${me.name}, ${me.role}`}>
            {initialsOf(me.name)}
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>
            {me.name}, {me.role}
          </Menu.Label>
          <Menu.Item onClick={() => setChanging(true)}>Change the password</Menu.Item>
          {me.role === 'owner' && <Menu.Item onClick={() => void navigate('/people')}>People</Menu.Item>}
          <Menu.Divider />
          <Menu.Item onClick={() => leave(api.signOut)}>Sign out</Menu.Item>
          <Menu.Item onClick={() => leave(api.signOutEverywhere)}>Sign out everywhere</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {changing && <ChangePassword onClose={() => setChanging(false)} />}
    </>
  );
}

function ChangePassword({ onClose }: { onClose: () => void }) {
  const [before, setBefore] = useState('');
  const [password, setPassword] = useState('');
  const change = useChange(() => api.changePassword(before, password));
  return (
    <Modal opened onClose={onClose} title="Change the password">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate(undefined, {
            onSuccess: () => {
              notifications.show({ message: 'The password is changed; all other sessions of yours have ended.' });
              onClose();
            },
          });
        }}
      >
        <Stack gap={12}>
          <PasswordInput
            label="Until now"
            autoComplete="current-password"
            value={before}
            onChange={(event) => setBefore(event.currentTarget.value)}
          />
          <PasswordInput
            label="From now on"
            description={`${shortestPassword} characters at least`}
            autoComplete="new-password"
            value={password}
            onChange={(event) => setPassword(event.currentTarget.value)}
          />
          <Group justify="flex-end">
            <Button type="submit" loading={change.isPending} disabled={password.length < shortestPassword || !before}>
              Change
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
