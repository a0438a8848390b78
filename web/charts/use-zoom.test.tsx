/** @jest-environment jsdom */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { act, cleanup, renderHook } from '@testing-library/react';
import { useZoom } from './use-zoom.ts';

type Range = readonly [number, number] | undefined;

const whole = [2000, 7000] as const;
/** 1,000 px of lanes: a pixel is 5 rpm of the whole range. */
const plot = document.createElement('div');
plot.getBoundingClientRect = () => ({ left: 54, width: 1000 + 54 + 108 }) as DOMRect;

let shown: Range[];
let zoom: ReturnType<typeof useZoom>;
let again: (range: readonly [number, number]) => void;

beforeEach(() => {
  shown = [];
  const place = { current: plot };
  const { result, rerender } = renderHook(
    ({ range }: { range: readonly [number, number] }) =>
      useZoom({ plot: place, whole, range, inset: { left: 54, right: 108 }, onZoom: (to) => shown.push(to) }),
    { initialProps: { range: whole as readonly [number, number] } },
  );
  zoom = result.current;
  again = (range) => {
    rerender({ range });
    zoom = result.current;
  };
});
afterEach(cleanup);

const pointer = (clientX: number, pointerId = 1) => ({ clientX, pointerId }) as unknown as React.PointerEvent;
const wheel = (over: WheelEventInit & { clientX?: number }) =>
  plot.dispatchEvent(new WheelEvent('wheel', { cancelable: true, ...over }));
const last = () => shown.at(-1)!;

describe('the wheel', () => {
  test('zooms about the place under it, and keeps the page where it is', () => {
    // A quarter of the way along the lanes, which begin after the axis and its margin.
    const event = new WheelEvent('wheel', { deltaY: -250, cancelable: true, clientX: 54 + 54 + 250 });
    plot.dispatchEvent(event);
    expect(event.defaultPrevented).toBe(true);
    const [from, to] = last();
    expect((to - from) / 5000).toBeCloseTo(Math.exp(-0.5), 6);
    expect((3250 - from) / (to - from)).toBeCloseTo(0.25, 6);
  });

  test('zoomed out to all there is shows all there is', () => {
    wheel({ deltaY: 400, clientX: 500 });
    expect(shown).toEqual([undefined]);
  });

  test('moves along where it turns sideways, and stops at the ends', () => {
    again([3000, 4000]);
    wheel({ deltaX: 300, deltaY: 0 });
    expect(last()).toEqual([3500, 4500]);
    wheel({ deltaX: 60_000, deltaY: 0 });
    expect(last()).toEqual([6000, 7000]);
    wheel({ deltaY: -600, shiftKey: true });
    expect(last()).toEqual([2000, 3000]);
  });
});

test('nothing narrower than a few hundred rpm is looked at', () => {
  zoom.zoomAt(0.5, 0.001);
  const [from, to] = last();
  expect(to - from).toBeCloseTo(300, 6);
  expect((from + to) / 2).toBeCloseTo(4500, 6);
});

describe('a finger', () => {
  test('that moves drags the lanes along with it; one that only presses does not', () => {
    again([3000, 4000]);
    zoom.onPointerDown(pointer(500));
    zoom.onPointerMove(pointer(503));
    expect(shown).toEqual([]);
    expect(zoom.wasDrag()).toBe(false);
    zoom.onPointerMove(pointer(400));
    // 100 px to the left of 1,000: a tenth of what is shown comes in from the right.
    expect(last()).toEqual([3100, 4100]);
    expect(zoom.wasDrag()).toBe(true);
    zoom.onPointerUp(pointer(400));
    zoom.onPointerMove(pointer(100));
    expect(shown).toHaveLength(1);
  });

  test('and another spread apart zoom in about the place between them', () => {
    zoom.onPointerDown(pointer(54 + 54 + 450, 1));
    zoom.onPointerDown(pointer(54 + 54 + 550, 2));
    zoom.onPointerMove(pointer(54 + 54 + 650, 2));
    const [from, to] = last();
    expect((to - from) / 5000).toBeCloseTo(0.5, 6);
    zoom.onPointerUp(pointer(700, 2));
    zoom.onPointerUp(pointer(500, 1));
  });

  test('over the whole range it chooses a stretch, which is zoomed to when it is let go', () => {
    zoom.onPointerDown(pointer(54 + 54 + 600));
    act(() => zoom.onPointerMove(pointer(54 + 54 + 200)));
    again(whole);
    expect(zoom.selected).toEqual([0.2, 0.6]);
    expect(shown).toEqual([]);
    act(() => zoom.onPointerUp(pointer(54 + 54 + 200)));
    expect(last()).toEqual([3000, 5000]);
    again([3000, 5000]);
    expect(zoom.selected).toBeUndefined();
  });

  test('that leaves the lanes before it is let go chooses nothing', () => {
    zoom.onPointerDown(pointer(54 + 54 + 600));
    act(() => zoom.onPointerMove(pointer(54 + 54 + 200)));
    again(whole);
    act(() => zoom.onPointerLeave(pointer(0)));
    expect(shown).toEqual([]);
  });

  test('that was never put down moves nothing', () => {
    zoom.onPointerMove(pointer(300));
    expect(shown).toEqual([]);
  });
});
