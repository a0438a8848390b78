import { Button, PasswordInput, Stack, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Mark } from '../ui/mark.tsx';
import { api } from '../state/api.ts';
import { useAccountUnits } from '../units/use-own-units.tsx';
import { beginAnew, useAccount } from '../state/account.ts';
import classes from './signed-in.module.css';

/** The page for whoever may see it; others sign in first. */
export function SignedIn({ children }: { children: ReactNode }) {
  const account = useAccount();
  useAccountUnits(account);
  return account?.accounts && !account.me ? <SignIn /> : children;
}

function SignIn() {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useMutation({ mutationFn: () => api.signIn(name.trim(), password), onSuccess: () => beginAnew() });
  return (
    <main className={classes.page}>
      <Mark />
      <h1>Sign in</h1>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate(undefined);
        }}
      >
        <Stack gap={14}>
          <TextInput
            label="Name"
            size="md"
            autoComplete="username"
            autoFocus
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <PasswordInput
            label="Password"
            size="md"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.currentTarget.value)}
          />
          {signIn.isError && (
            <p className={classes.problem} role="alert">
              {signIn.error.message}
            </p>
          )}
          <Button type="submit" size="md" loading={signIn.isPending} disabled={!name.trim() || !password}>
            Sign in
          </Button>
        </Stack>
      </form>
      <p className={classes.help}>
        A run being recorded goes on without this page. A password that is lost is set anew by an owner, or on the
        machine itself: <code>npm run suvok -- account password NAME</code>
      </p>
    </main>
  );
}
