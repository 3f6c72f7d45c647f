#!/usr/bin/python3
"""Mends a soup of loose lines with the command line tool and does the same work with GEOS, in one run.

    benchmarks/mend_reference.py build/release/bin/snugrim-cli [LINES]

The tool's time is that of the whole process: reading the DXF, mending, inspecting and writing. GEOS (through Shapely)
gets the lines ready-made and unites and polygonizes them; snapping before that, which the tool's joining also does, is
timed on a tenth of the lines, as its time grows with their square.
"""
import math
import pathlib
import random
import subprocess
import sys
import tempfile

from shapely.geometry import LineString, MultiLineString
from shapely.ops import polygonize, snap, unary_union

from timed import timed

CORNERS = 60


def soup(count):
    rng = random.Random(1)
    circles = count // CORNERS
    side = math.ceil(math.sqrt(circles))
    lines = []
    for i in range(circles):
        x, y, r = i % side * 12, i // side * 12, rng.uniform(3, 5)
        corner = [(x + r * math.cos(2 * math.pi * k / CORNERS), y + r * math.sin(2 * math.pi * k / CORNERS)) for k in range(CORNERS)]
        for k in range(CORNERS):
            line = (corner[k], corner[(k + 1) % CORNERS])
            lines.append(line if rng.random() < 0.5 else line[::-1])
    rng.shuffle(lines)
    return lines


def dxf(lines):
    text = ["0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"]
    text += [f"0\nLINE\n8\n0\n10\n{a[0]:.6f}\n20\n{a[1]:.6f}\n11\n{b[0]:.6f}\n21\n{b[1]:.6f}\n" for a, b in lines]
    return "".join(text) + "0\nENDSEC\n0\nEOF\n"


def main():
    tool = sys.argv[1]
    lines = soup(int(sys.argv[2]) if len(sys.argv) > 2 else 180_000)
    with tempfile.TemporaryDirectory() as folder:
        source = pathlib.Path(folder) / "soup.dxf"
        source.write_text(dxf(lines))
        ours, _ = timed(lambda: subprocess.run([tool, "mend", source, "-o", source.with_name("out.dxf"), "--quiet"], check=True))
    many = MultiLineString([LineString(line) for line in lines])
    theirs, polygons = timed(lambda: list(polygonize(unary_union(many))))
    few = MultiLineString([LineString(line) for line in lines[: len(lines) // 10]])
    snapping, _ = timed(lambda: snap(few, few, 0.01))
    print(f"{len(lines)} lines, {len(polygons)} outlines")
    print(f"mend, whole process          {ours:6.2f} s")
    print(f"GEOS, union and polygonize   {theirs:6.2f} s   ratio {ours / theirs:.2f}")
    print(f"GEOS, snap a tenth of them   {snapping:6.2f} s")


if __name__ == "__main__":
    main()
