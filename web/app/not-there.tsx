import { Button } from '@mantine/core';
import { Link } from 'react-router';
import classes from './problem-page.module.css';

interface NotThereProps {
  /** Why it cannot be shown, as a sentence. */
  why: string;
  /** Asks once more; absent where that cannot help. */
  tryAgain?: (() => void) | undefined;
  /** Where the others of its kind are listed. */
  list: { address: string; name: string };
}

/** In the place of something whose address leads nowhere, or that could not be read: the reason, and ways on. */
export function NotThere({ why, tryAgain, list }: NotThereProps) {
  return (
    <main className={classes.page} role="alert">
      <p>{why}</p>
      <p className={classes.ways}>
        {tryAgain && (
          <Button variant="default" onClick={tryAgain}>
            Try again
          </Button>
        )}
        <Link to={list.address}>{list.name}</Link>
      </p>
    </main>
  );
}
