import { Button } from '@mantine/core';
import { usePreferences } from '../state/preferences.ts';
import classes from './cautions.module.css';

/** What is to be known before the first run, until it has been read on this screen. */
export function Cautions() {
  return (
    <section className={classes.cautions}>
      <h2>Before the first run</h2>
      <p>
        Dyno runs can kill. People clear of rollers, straps and the line of the tyres; straps or hub bolts checked now,
        and again after warm-up, slip or hop.
      </p>
      <p>
        Extraction on and carbon-monoxide alarm working; fire extinguisher at hand; ears protected; tyres rated for the
        speed, whole and free of debris; mind fans, shafts and hot parts. Agree on the signal to stop.
      </p>
      <p>
        Suvok records and advises. It protects no one and is no emergency stop. The makers’ procedures, licensed
        practice and local law come first.
      </p>
      <Button variant="default" size="md" onClick={() => usePreferences.setState({ cautionsRead: true })}>
        Read and understood
      </Button>
    </section>
  );
}
