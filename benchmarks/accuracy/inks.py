#!/usr/bin/python3
"""How true the common borders of several inks are.

    benchmarks/accuracy/inks.py build/release/bin/snugrim-cli [clean|hard|jpeg ...] [--each]

Flat artwork with known areas (discs over stripes, sectors, fields of a chessboard, tiles, shards) is drawn with 16 x 16
samples a pixel, traced by `snugrim-cli --colours auto --layout cut-out`, and the SVG is read back by svgelements.
Prints a table in Markdown: overlap of every ink's area with the truth at 8 times the resolution, gaps and overlaps
between inks, the area that all inks have together, and how far junctions are off, px.
"""
import argparse
import math
import pathlib
import random
import re
import subprocess
import tempfile
import xml.etree.ElementTree as ElementTree

import cairo
import cv2
import numpy as np
import svgelements

SIZE, SAMPLES, TIMES = 240, 16, 8
INKS = np.array([(255, 255, 255), (23, 41, 84), (194, 35, 40), (245, 186, 33), (140, 199, 230), (40, 130, 70),
                 (20, 20, 20), (150, 150, 150), (230, 120, 170), (110, 60, 140), (150, 95, 50), (190, 215, 90)])


def grid():
    at = (np.arange(SIZE * SAMPLES) + 0.5) / SAMPLES
    return np.meshgrid(at, at)


def disc_over_stripes(x, y, inks):
    areas = np.zeros(x.shape, np.uint8)
    slanted = x * math.cos(0.3) + y * math.sin(0.3)
    inside = (x > 20.3) & (x < 219.6) & (y > 30.4) & (y < 210.2)
    areas[inside] = 1 + (slanted[inside] / 40).astype(int) % (inks - 2)
    areas[(x - 120) ** 2 + (y - 120) ** 2 < 60 ** 2] = inks - 1
    return areas, []


def sectors(x, y, inks):
    count = inks - 1 if (inks - 1) % 2 else inks - 1
    angle = (np.arctan2(y - 121.3, x - 118.6) + 0.4) % (2 * math.pi)
    areas = 1 + (angle / (2 * math.pi / count)).astype(np.uint8)
    areas[np.hypot(x - 121, y - 119) > 95] = 0
    return areas, [(118.6, 121.3)] if count > 2 else []


def chessboard(x, y, inks):
    c, s = math.cos(0.2), math.sin(0.2)
    u, v = (x - 120) * c + (y - 120) * s, (y - 120) * c - (x - 120) * s
    i, k = np.floor(u / 45).astype(int), np.floor(v / 45).astype(int)
    areas = (1 + (i + 2 * k) % (inks - 1)).astype(np.uint8)
    inside = (np.abs(u) < 90) & (np.abs(v) < 90)
    areas[~inside] = 0
    nodes = [(120 + a * 45 * c - b * 45 * s, 120 + b * 45 * c + a * 45 * s) for a in (-1, 0, 1) for b in (-1, 0, 1)]
    return areas, nodes if inks > 3 else []


def shards(x, y, inks):
    pick = random.Random(inks)
    seeds = [(pick.uniform(30, 210), pick.uniform(30, 210)) for _ in range(inks * 2)]
    off = np.stack([np.hypot(x - a, y - b) for a, b in seeds])
    areas = (1 + off.argmin(0) % (inks - 1)).astype(np.uint8)
    areas[np.maximum(np.abs(x - 120), np.abs(y - 120)) > 108.4] = 0
    return areas, []


FIGURES = [disc_over_stripes, sectors, chessboard, shards]


def picture(areas, inks, hard=False):
    """Each pixel the mean of its colours, or that of its middle."""
    if hard:
        return np.uint8(INKS[:inks][areas[SAMPLES // 2::SAMPLES, SAMPLES // 2::SAMPLES]])[:, :, ::-1]
    colours = INKS[:inks][areas].reshape(SIZE, SAMPLES, SIZE, SAMPLES, 3).mean((1, 3))
    return np.uint8(np.round(colours))[:, :, ::-1]


def layers(file):
    """Of every group: its colour and the polygons, in px."""
    svg = "{http://www.w3.org/2000/svg}"
    found = []
    for group in ElementTree.parse(file).getroot().iter(svg + "g"):
        path = group.find(svg + "path")
        colour = path.get("fill")
        outlines, ends = [], []
        for part in re.findall(r"M[^M]*", path.get("d")):
            places = []
            for s in svgelements.Path(part):
                if isinstance(s, svgelements.Move):
                    continue
                steps = 1 if isinstance(s, (svgelements.Line, svgelements.Close)) else 40
                places += [complex(a, b) for a, b in s.npoint(np.arange(steps) / steps)]
                ends.append(complex(s.end))
            outlines.append(np.array(places))
        found.append((tuple(int(colour[i:i + 2], 16) for i in (1, 3, 5)), outlines, np.array(ends)))
    return found


def filled(outlines):
    """Which samples lie inside, even-odd."""
    surface = cairo.ImageSurface(cairo.FORMAT_A8, SIZE * TIMES, SIZE * TIMES)
    cr = cairo.Context(surface)
    cr.set_antialias(cairo.ANTIALIAS_NONE)
    cr.set_fill_rule(cairo.FILL_RULE_EVEN_ODD)
    for outline in outlines:
        cr.new_sub_path()
        for p in outline:
            cr.line_to(p.real * TIMES, p.imag * TIMES)
        cr.close_path()
    cr.fill()
    surface.flush()
    rows = np.frombuffer(surface.get_data(), np.uint8).reshape(SIZE * TIMES, surface.get_stride())
    return np.uint8(rows[:, :SIZE * TIMES] > 0)


def measure(cli, figure, inks, hard, jpeg):
    areas, junctions = figure(*grid(), inks)
    with tempfile.TemporaryDirectory() as folder:
        source, out = pathlib.Path(folder, "in.png"), pathlib.Path(folder, "out.svg")
        image = picture(areas, inks, hard)
        if jpeg:
            image = cv2.imdecode(cv2.imencode(".jpg", image, [cv2.IMWRITE_JPEG_QUALITY, jpeg])[1], cv2.IMREAD_COLOR)
        cv2.imwrite(str(source), image)
        subprocess.run([cli, "trace", str(source), "-o", str(out), "--dpi", "25.4", "--quiet", "--colours", "auto",
                        "--background", "#ffffff"], check=True)
        found = layers(out)
    truth = areas[SAMPLES // TIMES // 2::SAMPLES // TIMES, SAMPLES // TIMES // 2::SAMPLES // TIMES]
    covered = np.zeros(truth.shape, np.uint8)
    overlaps, ends = [], np.zeros(0, complex)
    for ink in sorted(set(np.unique(truth)) - {0}):
        near = [f for f in found if np.abs(np.subtract(f[0], INKS[ink])).max() < 24]
        drawn = filled([p for _, outlines, _ in near for p in outlines])
        ends = np.concatenate([ends, *(own for _, _, own in near)])
        covered += drawn
        want = truth == ink
        overlaps.append(np.sum(drawn & want) / max(1, np.sum(drawn | want)))
    off = [np.abs(ends - complex(*j)).min() for j in junctions] if len(ends) else []
    return dict(overlap=min(overlaps), found=len(found), wanted=len(overlaps),
                junction=max(off) if off else 0.0)


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("kinds", nargs="*", default=["clean", "hard", "jpeg"])
    parser.add_argument("--only", default="", help="those whose name contains this")
    parser.add_argument("--each", action="store_true")
    options = parser.parse_intermixed_args()
    print("| picture | figures | inks right | overlap of an ink, median / least | junctions off by at most, px |\n"
          "| --- | --- | --- | --- | --- |")
    for kind in options.kinds:
        rows = []
        for figure in FIGURES:
            for inks in (3, 4, 5, 6, 8, 12):
                if options.only not in f"{figure.__name__} {inks}":
                    continue
                row = measure(options.cli, figure, inks, kind == "hard", 75 if kind == "jpeg" else 0)
                rows.append(row)
                if options.each:
                    print(f"|   {figure.__name__} {inks} | {row}")
        overlap = np.array([r["overlap"] for r in rows])
        print(f"| {kind} | {len(rows)} | {sum(r['found'] == r['wanted'] for r in rows)} | {np.median(overlap):.4f} / "
              f"{overlap.min():.4f} | {max(r['junction'] for r in rows):.3f} |", flush=True)


if __name__ == "__main__":
    main()
