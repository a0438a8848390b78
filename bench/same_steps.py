"""The same steps as Suvok's reduction and the same table, by NumPy and SciPy: each with what its library does best.

Arguments: a CSV table, the recording of a pull, the dyno (inertia in kg·m², losses) as JSON, the span (rpm). Prints ms, the least of many:
what others on the machine take away is in every other one.
"""

import json
import sys
import time

import numpy as np
from scipy.signal import savgol_filter

table, pull, dyno, span = sys.argv[1], sys.argv[2], json.loads(sys.argv[3]), float(sys.argv[4])


def least_ms(work, times=21):
    taken = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        taken.append(1000 * (time.perf_counter() - begun))
    return min(taken)


recorded = np.loadtxt(pull, delimiter=",", skiprows=1)


def averaged(series, count):
    whole = len(series) // count * count
    return series[:whole].reshape(-1, count).mean(axis=1)


def reduced():
    # To 200 Hz, as Suvok does, from 1 kHz.
    at, speed, engine = (averaged(recorded[:, column], 5) for column in range(3))
    step = at[1] - at[0]
    # The sweep: where acceleration stays high.
    slope = savgol_filter(speed, 61, 2, deriv=1, delta=step)
    strong = slope > 0.3 * slope.max()
    edges = np.flatnonzero(np.diff(np.concatenate(([0], strong.view(np.int8), [0]))))
    begins, ends = edges[::2], edges[1::2]
    longest = np.argmax(ends - begins)
    inside = slice(begins[longest], ends[longest])
    ratio = savgol_filter(engine / speed, 161, 1)[inside]
    smooth = savgol_filter(speed[inside], 25, 2)
    rpm = np.maximum.accumulate(smooth * ratio)
    when = at[inside]
    losses = dyno["parasitic"]
    loss = losses["aNm"] + losses["bNmPerRadS"] * speed[inside] + losses["cNmPerRadS2"] * speed[inside] ** 2
    amount = dyno["inertiaKgM2"] * speed[inside] + step * np.cumsum(loss)
    grid = np.arange(np.ceil(rpm[0] / 25) * 25, rpm[-1], 25)
    torque = np.empty(len(grid))
    for index, center in enumerate(grid):
        first, last = np.searchsorted(rpm, (center - span / 2, center + span / 2))
        z = (rpm[first:last] - center) / (span / 2)
        dt = np.diff(when[first:last], prepend=when[first])
        c1 = np.cumsum(dt)
        c2, c3 = (np.cumsum(dt * (power + np.concatenate((power[:1], power[:-1]))) / 2) for power in (z, z * z))
        weight = np.sqrt(np.maximum(1 - z * z, 1e-6))
        design = np.stack((np.ones_like(z), c1, c2, c3), axis=1) * weight[:, None]
        torque[index] = np.linalg.lstsq(design, (amount[first:last] - amount[first]) * weight, rcond=None)[0][1]
    return torque * np.interp(grid, rpm, smooth) / 1000


print(
    json.dumps(
        {
            "loadtxt": least_ms(lambda: np.loadtxt(table, delimiter=",", skiprows=1), 9),
            "reduced": least_ms(reduced),
            "peak": float(reduced().max()),
        }
    )
)
