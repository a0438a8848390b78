import { Popover } from '@mantine/core';
import { IconDeviceMobile } from '@tabler/icons-react';
import { QRCodeSVG } from 'qrcode.react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useLive } from '../../../state/live.ts';
import { useReachedOrigin } from '../../../state/reached-origin.ts';
import control from './control-bar.module.css';
import classes from './hand-off.module.css';

/** Hands the driver's view of this bay to a phone: its address, to be read by the phone's camera. */
export function HandOff() {
  const bay = useLive((state) => state.watched);
  const [open, setOpen] = useState(false);
  return (
    <Popover position="top-start" shadow="md" trapFocus opened={open} onChange={setOpen}>
      <Popover.Target>
        <button
          className={`${control.gear} ${classes.phone}`}
          title="The driver’s view, on a phone"
          aria-label="Driver’s view on a phone"
          onClick={() => setOpen(!open)}
        >
          <IconDeviceMobile size={26} aria-hidden />
        </button>
      </Popover.Target>
      <Popover.Dropdown className={classes.dropdown}>
        {open && <Address path={`/bays/${bay}/drive`} />}
      </Popover.Dropdown>
    </Popover>
  );
}

function Address({ path }: { path: string }) {
  const { pending, origin, madeHere } = useReachedOrigin();
  if (pending) return <p>Looking up the address…</p>;
  return (
    <>
      {origin ? (
        <>
          <QRCodeSVG value={origin + path} size={188} marginSize={4} title={`The driver’s view at ${origin}${path}`} />
          <p>
            Point the phone’s camera at it, or open <b>{origin + path}</b>
          </p>
          {madeHere && <p>The phone warns once of the certificate: People shows its fingerprint.</p>}
        </>
      ) : (
        <p>
          No phone reaches this machine: start Suvok with HOST set to its name or address in the shop’s network
          (docs/operations.md). Or take this screen into the car.
        </p>
      )}
      <Link to={path}>Open it on this screen</Link>
    </>
  );
}
