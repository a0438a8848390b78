import { useEffect, useState } from 'react';

/** Renders anew at most this many times a second while something moves. @returns a number that grows */
export function useFrame(perSecond: number): number {
  const [frame, setFrame] = useState(0);
  useEffect(() => {
    let handle = 0;
    let latest = 0;
    const tick = (now: number) => {
      handle = requestAnimationFrame(tick);
      if (now - latest < 1000 / perSecond - 2) return;
      latest = now;
      setFrame((count) => count + 1);
    };
    handle = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(handle);
  }, [perSecond]);
  return frame;
}
