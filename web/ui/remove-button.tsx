import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';

/** Takes an entry away; it can be brought back. */
export function RemoveButton({ what, onRemove }: { what: string; onRemove: () => void }) {
  return (
    <ActionIcon
      variant="subtle"
      color="gray"
      size={32}
      aria-label={`Take away ${what}`}
      title="Take away"
      onClick={onRemove}
    >
      <IconX size={15} />
    </ActionIcon>
  );
}
