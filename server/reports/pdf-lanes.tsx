import { Circle, ClipPath, Defs, G, Line, Path, Svg, Text } from '@react-pdf/renderer';
import { onPaper } from '../../core/scene/paper-colours.ts';
import type { Picture, Shape } from '../../core/scene/picture.ts';
import { letters } from './pdf-fonts.ts';

/** The lanes as vectors: the shapes that the page draws, in the colours of paper. */
export function PdfLanes({ picture, width }: { picture: Picture; width: number }) {
  return (
    <Svg
      viewBox={`0 0 ${picture.width} ${picture.height}`}
      style={{ width, height: (width * picture.height) / picture.width }}
    >
      <Defs>
        {outlines(picture.shapes, plot).map(({ name, outline }) => (
          <ClipPath key={name} id={name}>
            <Path d={outline} />
          </ClipPath>
        ))}
      </Defs>
      <Shapes shapes={picture.shapes} within={plot} />
    </Svg>
  );
}

const plot = 'plot';

/** Outlines that shapes are clipped to, also within one another: the library knows those alone that stand at the top. */
function outlines(shapes: readonly Shape[], within: string): { name: string; outline: string }[] {
  return shapes.flatMap((shape, at) => {
    if (shape.is !== 'clipped') return [];
    const name = `${within}-${at}`;
    return [{ name, outline: shape.outline }, ...outlines(shape.shapes, name)];
  });
}

function Shapes({ shapes, within }: { shapes: readonly Shape[]; within: string }) {
  return shapes.map((shape, at) => <Drawn key={at} shape={shape} name={`${within}-${at}`} />);
}

function Drawn({ shape, name }: { shape: Shape; name: string }) {
  switch (shape.is) {
    case 'path':
      return <Path d={shape.d} {...inkOf(shape)} />;
    case 'circle':
      return <Circle cx={shape.x} cy={shape.y} r={shape.r} {...inkOf(shape)} />;
    case 'line':
      return <Line x1={shape.x1} x2={shape.x2} y1={shape.y1} y2={shape.y2} {...inkOf(shape)} />;
    case 'words':
      return (
        <Text
          x={shape.x}
          y={shape.y}
          textAnchor={shape.anchor ?? 'start'}
          fill={onPaper(shape.colour)}
          style={{ fontFamily: letters as never, fontSize: shape.size, fontWeight: shape.heavy ? 600 : 400 }}
        >
          {shape.words}
        </Text>
      );
    case 'clipped':
      return (
        <G clipPath={`url(#${name})`}>
          <Shapes shapes={shape.shapes} within={name} />
        </G>
      );
  }
}

type Inked = Extract<Shape, { is: 'path' | 'circle' | 'line' }>;

function inkOf({ fill, stroke, strokeWidth = 1, dash = [], opacity = 1 }: Inked) {
  return {
    fill: fill === undefined ? 'none' : onPaper(fill),
    fillOpacity: opacity,
    ...(stroke !== undefined && { stroke: onPaper(stroke), strokeWidth, strokeOpacity: opacity }),
    ...(dash.length > 0 && { strokeDasharray: dash.join(' ') }),
  };
}
