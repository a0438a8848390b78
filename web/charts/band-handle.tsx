import classes from './speed-axis.module.css';

interface BandHandleProps {
  name: string;
  rpm: number;
  range: readonly [number, number];
  /** Share of the axis at which it stands. */
  at: string;
  onGrab: (event: React.PointerEvent<HTMLElement>) => void;
  onMove: (rpm: number) => void;
}

const stepRpm = 50;

/** An end of the band that a gloved finger can take, and arrow keys can move. */
export function BandHandle({ name, rpm, range, at, onGrab, onMove }: BandHandleProps) {
  return (
    <span
      className={classes.handle}
      style={{ left: at }}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuemin={range[0]}
      aria-valuemax={range[1]}
      aria-valuenow={rpm}
      aria-valuetext={`${rpm} rpm`}
      onPointerDown={onGrab}
      onKeyDown={(event) => {
        const step = event.key === 'ArrowRight' ? stepRpm : event.key === 'ArrowLeft' ? -stepRpm : 0;
        if (step === 0) return;
        event.preventDefault();
        event.stopPropagation();
        onMove(Math.min(range[1], Math.max(range[0], rpm + step)));
      }}
    />
  );
}
