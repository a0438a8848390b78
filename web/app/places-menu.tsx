import { ActionIcon, Menu } from '@mantine/core';
import { IconMenu2 } from '@tabler/icons-react';
import { Link } from 'react-router';
import { openKeysHelp } from '../palette/everywhere.tsx';
import classes from './top-bar.module.css';

/**
 * Links to the pages outside of a job: always shown within a job, elsewhere only where the bar is too narrow for its
 * own links.
 */
export function PlacesMenu({ always }: { always: boolean }) {
  return (
    <Menu position="bottom-start" shadow="md" width={220}>
      <Menu.Target>
        <ActionIcon
          variant="subtle"
          color="gray"
          size={40}
          aria-label="Menu"
          title="Menu"
          className={always ? undefined : classes.onlyNarrow}
        >
          <IconMenu2 size={20} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {places.map(({ to, name }) => (
          <Menu.Item key={to} component={Link} to={to}>
            {name}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item onClick={openKeysHelp}>Keys of this screen</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** The pages outside of a job. */
export const places = [
  { to: '/today', name: 'Today' },
  { to: '/jobs', name: 'Jobs' },
  { to: '/vehicles', name: 'Vehicles' },
  { to: '/devices', name: 'Devices' },
  { to: '/equipment', name: 'Equipment' },
  { to: '/prices', name: 'Prices' },
  { to: '/people', name: 'People' },
  { to: '/drive', name: 'Driver’s view' },
] as const;
