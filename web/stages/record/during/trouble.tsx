import { useLive } from '../../../state/live.ts';
import classes from './trouble.module.css';

/** What is wrong with an instrument or the recorder, where it cannot be missed. */
export function Trouble() {
  const bay = useLive((state) => state.bay);
  // What is old anyway is not called silent one by one.
  const silent = useLive((state) => state.recorderSilentSince !== null);
  const sentences = [
    ...(bay?.recorder.problem ? [bay.recorder.problem] : []),
    ...(silent ? [] : (bay?.devices ?? [])).flatMap((device) => {
      if (!device.connected) return [`${device.name} is not connected. It takes its place again when it comes back.`];
      if (!device.heard) return [`${device.name} is connected but silent.`];
      return device.problem ? [`${device.name}: ${device.problem}.`] : [];
    }),
  ];
  if (sentences.length === 0) return null;
  return (
    <section className={classes.trouble} role="alert">
      {sentences.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
    </section>
  );
}
