import { Button } from '@mantine/core';

/** A list that did not come, with the reason and another try; nothing where it came. */
export function NotFetched({
  error,
  tryAgain,
  className,
}: {
  error: Error | null;
  tryAgain: () => unknown;
  className?: string | undefined;
}) {
  if (!error) return null;
  return (
    <p role="alert" className={className}>
      {error.message}{' '}
      <Button variant="default" size="sm" onClick={() => void tryAgain()}>
        Try again
      </Button>
    </p>
  );
}
