import { IconPin, IconPinFilled } from '@tabler/icons-react';
import classes from './pin-button.module.css';

/** Keeps a channel's lane open in every run of the job. */
export function PinButton({ label, pinned, onPress }: { label: string; pinned: boolean; onPress: () => void }) {
  return (
    <button
      className={classes.pin}
      aria-pressed={pinned}
      aria-label={pinned ? `Unpin ${label}` : `Pin ${label} for this job`}
      title={pinned ? 'Unpin' : 'Always a lane in this job'}
      onClick={onPress}
    >
      {pinned ? <IconPinFilled size={14} /> : <IconPin size={14} />}
    </button>
  );
}
