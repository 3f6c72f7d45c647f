#!/usr/bin/python3
"""Traces pictures of 16.8 megapixels in six inks, and sorts their pixels with OpenCV's k-means, in one run.

    benchmarks/inks_reference.py build/release/bin/snugrim-cli [TIMES]

The pictures are the demo badge drawn 4096 px wide, and 164 badges of 320 px side by side, both as JPEG 85. The tool's time
is that of the whole process, from reading the file to the written SVG. OpenCV reads the same file, finds six centres by
k-means on every 16th pixel (one attempt, 10 iterations, k-means++) and gives every pixel the nearest centre, a million
pixels at a time; starting Python is not counted. The least of TIMES (2) runs is told.
"""
import pathlib
import subprocess
import sys
import tempfile

import cv2
import numpy as np

from timed import timed

SIDE, TILE, INKS = 4096, 320, 6
DEMO = pathlib.Path(__file__).resolve().parent.parent / "demo"
sys.path.insert(0, str(DEMO))
import make_demo  # noqa: E402


def large():
    return np.ascontiguousarray(np.array(make_demo.draw_badge(SIDE).convert("RGB"))[:, :, ::-1])


def dense():
    tile = cv2.imread(str(DEMO / "badge.png"))
    times = SIDE // TILE + 1
    return np.ascontiguousarray(np.tile(tile, (times, times, 1))[:SIDE, :SIDE])


def by_opencv(file):
    pixels = cv2.imread(file).reshape(-1, 3)
    rule = (cv2.TERM_CRITERIA_MAX_ITER, 10, 0)
    _, _, centres = cv2.kmeans(pixels[::16].astype(np.float32), INKS, None, rule, 1, cv2.KMEANS_PP_CENTERS)
    nearest = np.empty(len(pixels), np.uint8)
    million = 1 << 20
    for first in range(0, len(pixels), million):
        some = pixels[first:first + million].astype(np.float32)
        nearest[first:first + million] = ((centres ** 2).sum(1) - 2 * some @ centres.T).argmin(1)
    return nearest


def main():
    tool = sys.argv[1]
    times = int(sys.argv[2]) if len(sys.argv) > 2 else 2
    cv2.setNumThreads(2)
    for name, picture in (("the badge, large", large), ("164 badges", dense)):
        with tempfile.TemporaryDirectory() as folder:
            source = f"{folder}/inks.jpg"
            cv2.imwrite(source, picture(), [cv2.IMWRITE_JPEG_QUALITY, 85])
            command = [tool, "trace", source, "-o", f"{folder}/out.svg", "--colours", str(INKS), "--quiet"]
            ours = min(timed(lambda: subprocess.run(command, check=True))[0] for _ in range(times))
            theirs = min(timed(lambda: by_opencv(source))[0] for _ in range(times))
        print(f"{name}, 16.8 megapixels: {ours:.2f} s; OpenCV's k-means and assignment {theirs:.2f} s; "
              f"{ours / theirs:.1f} times as long", flush=True)


if __name__ == "__main__":
    main()
