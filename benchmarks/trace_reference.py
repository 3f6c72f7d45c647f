#!/usr/bin/python3
"""Traces a dense picture of 16.8 megapixels with the command line tool and with OpenCV, in one run.

    benchmarks/trace_reference.py build/release/bin/snugrim-cli [TIMES]

The picture is the demo badge and weather vane, 320 px each, side by side all over 4096 x 4096 px. Both times are those of
whole processes: the tool's from reading the PNG to the written SVG, and that of opencv-trace beside it, which reads the same
file, thresholds it (Otsu), finds all contours with all their points and approximates them within 1 px. What OpenCV does
without the start of its program is told, too. Both run in turn; the least of TIMES (5) runs is told, as what is more is
other programs.
"""
import pathlib
import subprocess
import sys
import tempfile

import cv2
import numpy as np

from timed import timed

SIDE = 4096
TILE = 320
DEMO = pathlib.Path(__file__).resolve().parent.parent / "demo"


def dense():
    tiles = [cv2.resize(cv2.imread(str(DEMO / name), cv2.IMREAD_GRAYSCALE), (TILE, TILE), interpolation=cv2.INTER_AREA)
             for name in ("badge.png", "weather-vane.png")]
    times = SIDE // TILE // 2 + 1
    row = np.hstack(tiles * times)[:, :SIDE]
    return np.ascontiguousarray(np.vstack([row, row[:, ::-1]] * times)[:SIDE])


def megabytes(command):
    """The most memory that a command takes. A small process starts it: until then it would have this one's size."""
    start = ("import resource, subprocess, sys; subprocess.run(sys.argv[1:], check=True); "
             "print(resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss)")
    done = subprocess.run([sys.executable, "-c", start, *command], check=True, capture_output=True, text=True)
    return float(done.stdout) / 1024


def main():
    tool = pathlib.Path(sys.argv[1])
    times = int(sys.argv[2]) if len(sys.argv) > 2 else 5
    runs = []
    with tempfile.TemporaryDirectory() as folder:
        source = f"{folder}/dense.png"
        cv2.imwrite(source, dense())
        trace = [tool, "trace", source, "-o", f"{folder}/out.svg", "--quiet"]
        reference = [tool.parent / "opencv-trace", source]
        for _ in range(times):
            ours, _ = timed(lambda: subprocess.run(trace, check=True))
            theirs, done = timed(lambda: subprocess.run(reference, check=True, capture_output=True, text=True))
            points, started = done.stdout.split()
            runs.append((ours, theirs, float(started)))
        largest = megabytes(trace)
    ours, theirs, started = (min(column) for column in zip(*runs))
    print(f"16.8 megapixels, {points} border points: {ours:.2f} s (at most {largest:.0f} MB); OpenCV {theirs:.2f} s; "
          f"{ours / theirs:.1f} times as long (without the start of its program {started:.2f} s; {ours / started:.1f} times)")


if __name__ == "__main__":
    main()
