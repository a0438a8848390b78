import { useRef, useState, type PointerEvent } from 'react';
import { signaturePaths, signatureSize } from '../../core/consents/signature.ts';
import classes from './consents.module.css';

export type Strokes = [number, number, number][][];

/** A field that is signed in with pen, finger or mouse. */
export function SignaturePad({ strokes, onChange }: { strokes: Strokes; onChange: (strokes: Strokes) => void }) {
  const field = useRef<SVGSVGElement>(null);
  const [drawing, setDrawing] = useState<Strokes[number]>();
  const { width, height } = signatureSize;
  const pointOf = ({ clientX, clientY, pressure }: PointerEvent): [number, number, number] => {
    const box = field.current?.getBoundingClientRect();
    if (!box) return [0, 0, 0.5];
    return [((clientX - box.left) / box.width) * width, ((clientY - box.top) / box.height) * height, pressure || 0.5];
  };
  const all = drawing ? [...strokes, drawing] : strokes;
  return (
    <svg
      ref={field}
      className={classes.pad}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={all.length > 0 ? 'Signature' : 'Signature, empty: sign here with pen, finger or mouse'}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrawing([pointOf(event)]);
      }}
      onPointerMove={(event) => setDrawing((stroke) => stroke && [...stroke, pointOf(event)])}
      onPointerUp={() => {
        if (drawing) onChange([...strokes, drawing]);
        setDrawing(undefined);
      }}
      onPointerCancel={() => setDrawing(undefined)}
    >
      <path d={`M20 ${height - 36}H${width - 20}`} className={classes.line} />
      {signaturePaths(all).map((path, at) => (
        <path key={at} d={path} className={classes.ink} />
      ))}
    </svg>
  );
}
