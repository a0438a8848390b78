import { Link, useRouteError } from 'react-router';
import classes from './problem-page.module.css';

/** Shown at an address that leads nowhere, or when the page itself has failed. */
export function ProblemPage() {
  const error = useRouteError();
  return (
    <main className={classes.page}>
      <h1>{error instanceof Error ? 'The page has failed' : 'There is nothing at this address'}</h1>
      <p>
        {error instanceof Error
          ? `Nothing recorded is lost. Reload the page; if it fails again, the reason was: ${error.message}`
          : 'The link may be incomplete, or what it led to was never here.'}
      </p>
      <Link to="/jobs">All jobs</Link>
    </main>
  );
}
