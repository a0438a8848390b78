import { Modal } from '@mantine/core';
import { Keycap } from '../ui/keycap.tsx';
import classes from './keys-help.module.css';
import { useAllKeys } from '../keys/use-keys.ts';

/** The keys of what is on the screen. */
export function KeysHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const keys = useAllKeys();
  return (
    <Modal opened={opened} onClose={onClose} title="Keys of this screen" size="md">
      <dl className={classes.keys}>
        {keys.map(({ shown, says }) => (
          <div key={`${shown} ${says}`}>
            <dt>
              {shown.split(' ').map((key) => (
                <Keycap key={key}>{key}</Keycap>
              ))}
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
      <p className="soft">
        Tab goes from control to control, Enter or the space bar presses; Escape closes what is open.
      </p>
    </Modal>
  );
}
