import { line } from 'd3-shape';
import type { PicturePlace } from '../../../../../core/exchange/borrowed/traced-curve.ts';
import type { SheetPicture } from './read-picture.ts';
import { steps, type Mark } from './sheet-steps.ts';
import classes from './sheet-view.module.css';

interface SheetViewProps {
  picture: SheetPicture;
  marks: readonly Mark[];
  places: readonly PicturePlace[];
  /** Each place is a point that was pressed. */
  points: boolean;
  onPress: (place: PicturePlace) => void;
}

/** The picture, with what was marked and traced on it. */
export function SheetView({ picture, marks, places, points, onPress }: SheetViewProps) {
  const { width, height } = picture;
  const path = line<PicturePlace>(
    ({ x }) => x,
    ({ y }) => y,
  );
  const ordered = points ? [...places].sort((a, b) => a.x - b.x) : places;
  return (
    <div className={classes.frame}>
      <svg
        className={classes.sheet}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label="The sheet"
        onPointerDown={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          onPress({
            x: ((event.clientX - box.left) / box.width) * width,
            y: ((event.clientY - box.top) / box.height) * height,
          });
        }}
      >
        <image href={picture.address} width={width} height={height} />
        {places.length > 1 && <path className={classes.under} d={path(ordered) ?? ''} />}
        {places.length > 1 && <path className={classes.line} d={path(ordered) ?? ''} />}
        {points && places.map(({ x, y }, at) => <circle key={at} className={classes.point} cx={x} cy={y} r={5} />)}
        {marks.map(
          ({ place, figure }, at) =>
            place && (
              <g key={at} className={classes.mark} transform={`translate(${place.x} ${place.y})`}>
                <path d="M-12 0H12M0-12V12" />
                <text x={10} y={-10}>
                  {figure === '' ? steps[at]!.label : figure}
                </text>
              </g>
            ),
        )}
      </svg>
    </div>
  );
}
