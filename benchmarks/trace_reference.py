#!/usr/bin/python3
"""Traces a dense picture of 16.8 megapixels with the command line tool and with OpenCV, in one run.

    benchmarks/trace_reference.py build/release/bin/snugrim-cli [TIMES]

The picture is the demo badge and weather vane, 320 px each, side by side all over 4096 x 4096 px. The tool's time is that
of the whole process, from reading the PNG to the written SVG. OpenCV reads the same file, thresholds it (Otsu), finds all
contours with all their points and approximates them within 1 px; starting Python is not counted. The least of TIMES (3)
runs is told, as the tool's own noise is other programs.
"""
import pathlib
import resource
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


def by_opencv(file):
    _, ink = cv2.threshold(cv2.imread(file, cv2.IMREAD_GRAYSCALE), 0, 255, cv2.THRESH_BINARY_INV + cv2.THRESH_OTSU)
    contours, _ = cv2.findContours(ink, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    for contour in contours:
        cv2.approxPolyDP(contour, 1, True)
    return sum(len(contour) for contour in contours)


def main():
    tool = sys.argv[1]
    times = int(sys.argv[2]) if len(sys.argv) > 2 else 3
    cv2.setNumThreads(2)
    with tempfile.TemporaryDirectory() as folder:
        source = f"{folder}/dense.png"
        cv2.imwrite(source, dense())
        command = [tool, "trace", source, "-o", f"{folder}/out.svg", "--quiet"]
        ours = min(timed(lambda: subprocess.run(command, check=True))[0] for _ in range(times))
        memory = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
        theirs, points = min(timed(lambda: by_opencv(source)) for _ in range(times))
    print(f"16.8 megapixels, {points} border points: {ours:.2f} s (at most {memory:.0f} MB); "
          f"OpenCV {theirs:.2f} s; {ours / theirs:.1f} times as long")


if __name__ == "__main__":
    main()
