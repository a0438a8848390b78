import { useEffect, useRef, useState, type RefObject } from 'react';

/** The narrowest range that can be zoomed to, as a share of the whole. */
const narrowestShare = 0.06;
/** A range this near to the whole counts as the whole. */
const wholeShare = 0.999;
/** A press that moves further than this drags, px. */
const dragPx = 6;

interface Zoom {
  plot: RefObject<HTMLDivElement | null>;
  whole: readonly [number, number];
  range: readonly [number, number];
  /** Takes the range to be shown, on the lanes' axis; undefined for the whole. */
  onZoom: (range: readonly [number, number] | undefined) => void;
  /** Share of the plot's width that is lanes, and where they begin, px. */
  inset: { left: number; right: number };
}

/** Zoom by wheel and pinch; a drag over the whole range chooses the stretch to be zoomed to, over a part of it it pans. */
export function useZoom({ plot, whole, range, inset, onZoom }: Zoom) {
  const pointers = useRef(new Map<number, number>());
  const dragged = useRef<{ from: number; range: readonly [number, number]; moved: boolean }>(undefined);
  const pinched = useRef<{ apart: number; range: readonly [number, number] }>(undefined);
  const [selected, setSelected] = useState<readonly [number, number]>();
  const most = whole[1] - whole[0];
  const allowed = (width: number) => Math.max(narrowestShare * most, Math.min(most, width));
  const show = (from: number, to: number) => {
    const width = allowed(to - from);
    const start = Math.min(whole[1] - width, Math.max(whole[0], from));
    onZoom(width < wholeShare * most ? [start, start + width] : undefined);
  };
  const shareAt = (clientX: number) => {
    const box = plot.current?.getBoundingClientRect();
    if (!box) return 0.5;
    return Math.min(1, Math.max(0, (clientX - box.left - inset.left) / (box.width - inset.left - inset.right)));
  };
  const zoomAt = (share: number, factor: number, base = range) => {
    const middle = base[0] + share * (base[1] - base[0]);
    // At the narrowest, too, the place stays where it is.
    const width = allowed((base[1] - base[0]) * factor);
    show(middle - share * width, middle + (1 - share) * width);
  };
  const latest = useRef({ zoomAt, shareAt, range, show });
  useEffect(() => {
    latest.current = { zoomAt, shareAt, range, show };
  });
  useEffect(() => {
    const element = plot.current;
    if (!element) return undefined;
    // A wheel over the lanes must not scroll the page, which only a listener that is not passive can prevent.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = latest.current;
      if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        const by = ((event.deltaX || event.deltaY) / 600) * (now.range[1] - now.range[0]);
        now.show(now.range[0] + by, now.range[1] + by);
      } else now.zoomAt(now.shareAt(event.clientX), Math.exp(event.deltaY / 500));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [plot]);
  return {
    zoomAt,
    /** The stretch that is being chosen, as shares of the lanes' width. */
    selected,
    /** True when the press that just ended was a drag: it sets no crosshair. */
    wasDrag: () => dragged.current?.moved ?? false,
    onPointerDown(event: React.PointerEvent) {
      pointers.current.set(event.pointerId, event.clientX);
      const [a = 0, b] = [...pointers.current.values()];
      dragged.current = { from: event.clientX, range, moved: false };
      pinched.current = b === undefined ? undefined : { apart: Math.abs(a - b), range };
    },
    onPointerMove(event: React.PointerEvent) {
      const drag = dragged.current;
      const box = plot.current?.getBoundingClientRect();
      if (!drag || !box || !pointers.current.has(event.pointerId)) return;
      pointers.current.set(event.pointerId, event.clientX);
      const [a = 0, b] = [...pointers.current.values()];
      if (b !== undefined && pinched.current) {
        drag.moved = true;
        zoomAt(shareAt((a + b) / 2), pinched.current.apart / Math.max(10, Math.abs(a - b)), pinched.current.range);
        return;
      }
      if (!drag.moved && Math.abs(event.clientX - drag.from) < dragPx) return;
      drag.moved = true;
      if (drag.range[0] === whole[0] && drag.range[1] === whole[1]) {
        const [one, other] = [shareAt(drag.from), shareAt(event.clientX)];
        setSelected([Math.min(one, other), Math.max(one, other)]);
        return;
      }
      const by =
        ((drag.from - event.clientX) / (box.width - inset.left - inset.right)) * (drag.range[1] - drag.range[0]);
      show(drag.range[0] + by, drag.range[1] + by);
    },
    onPointerUp(event: React.PointerEvent) {
      pointers.current.delete(event.pointerId);
      pinched.current = undefined;
      if (selected) show(whole[0] + selected[0] * most, whole[0] + selected[1] * most);
      setSelected(undefined);
    },
    /** The pointer left without being released: no stretch is chosen. */
    onPointerLeave(event: React.PointerEvent) {
      pointers.current.delete(event.pointerId);
      pinched.current = undefined;
      setSelected(undefined);
    },
  };
}
