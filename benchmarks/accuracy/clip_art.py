#!/usr/bin/python3
"""How true the outlines of real clip art are, and how few nodes they have.

    benchmarks/accuracy/clip_art.py build/release/bin/snugrim-cli [--count N] [--each]

The drawings are those of Debian's package openclipart-svg (public domain) that are black and white: rendered by librsvg
on white, 600 px at the longer side. The truth is the same drawing rendered eight times as large, where nearly all
pixels are light or dark. Drawings of thin strokes only are left out, and of every series (names that differ by their
digits) all but the first. Prints a table in Markdown. Distances in px of the small picture, both ways; nodes against those of the
small picture's borders after OpenCV's approxPolyDP within 0.5 px.
"""
import argparse
import concurrent.futures
import pathlib
import re
import subprocess
import sys
import tempfile

import cv2
import numpy as np
from shapely.geometry import LinearRing
from shapely.strtree import STRtree

import measure

DRAWINGS = pathlib.Path("/usr/share/openclipart/svg")
SIDE, TIMES = 600, 8
EDGE = 4
LEAST_AREA = 4
LEAST_THICKNESS = 8


def rendered(drawing, side):
    run = subprocess.run(["rsvg-convert", "-w", str(side), "-h", str(side), "--keep-aspect-ratio", "-b", "white",
                          str(drawing)], capture_output=True, timeout=60)
    picture = cv2.imdecode(np.frombuffer(run.stdout, np.uint8), cv2.IMREAD_GRAYSCALE) if run.stdout else None
    if picture is None or max(picture.shape) != side:
        return None
    edge = EDGE * side // SIDE
    return cv2.copyMakeBorder(picture, edge, edge, edge, edge, cv2.BORDER_CONSTANT, value=255)


def black_and_white(drawing):
    """The drawing when it is of two tones and not made of hairlines only; else nothing."""
    try:
        small = rendered(drawing, SIDE)
        if small is None or np.mean((small > 30) & (small < 225)) > 0.08:
            return None
        large = rendered(drawing, SIDE * 4)
    except subprocess.TimeoutExpired:
        return None
    if large is None:
        return None
    # Greys that are wider than an edge.
    grey = cv2.erode(np.uint8((large > 30) & (large < 225)), np.ones((3, 3)))
    if grey.mean() > 1e-4:
        return None
    ink = np.uint8(small < 128)
    around = sum(cv2.arcLength(c, True) for c in borders(ink, LEAST_AREA))
    solid = around > 0 and 2 * ink.sum() / around >= LEAST_THICKNESS
    tones = np.uint8(large < 128)
    hairs = tones - cv2.morphologyEx(tones, cv2.MORPH_OPEN, np.ones((9, 9)))
    return drawing if solid and ink.mean() < 0.9 and hairs.sum() < 0.003 * tones.sum() else None


def borders(ink, least):
    found, _ = cv2.findContours(ink, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    return [c for c in found if cv2.contourArea(c) >= least]


def edges(grey, ink):
    """Where rows and columns cross the middle grey between ink and paper, in px of the large picture."""
    rows_and_columns = []
    for turn in (False, True):
        g, i = (grey.T, ink.T) if turn else (grey, ink)
        rows, columns = np.nonzero(i[:, 1:] != i[:, :-1])
        low, high = g[rows, columns].astype(float), g[rows, columns + 1].astype(float)
        apart = np.where(high == low, 1, high - low)
        x = columns + 0.5 + np.clip((127.5 - low) / apart, 0, 1)
        rows_and_columns.append(rows + 0.5 + 1j * x if turn else x + 1j * (rows + 0.5))
    return np.concatenate(rows_and_columns)


def crossings(paths):
    """Pairs of outlines that share a point, and outlines that cross themselves."""
    rings = [LinearRing(np.c_[p.real, p.imag]) for p in paths]
    tree = STRtree(rings)
    pairs = sum(other is not ring and other.intersects(ring) for ring in rings for other in tree.query(ring))
    return pairs // 2 + sum(not ring.is_simple for ring in rings)


def score(cli, drawing):
    small, large = rendered(drawing, SIDE), rendered(drawing, SIDE * TIMES)
    height, width = small.shape
    ink = np.uint8(large[:height * TIMES, :width * TIMES] < 128)
    with tempfile.TemporaryDirectory() as folder:
        picture, out = pathlib.Path(folder, "in.png"), pathlib.Path(folder, "out.svg")
        cv2.imwrite(str(picture), small)
        subprocess.run([cli, "trace", str(picture), "-o", str(out), "--dpi", "25.4", "--quiet"], check=True)
        got, segments, _, opened, paths = measure.read_svg(out, by_path=True)
    if not len(got):
        return None
    drawn = np.zeros_like(ink)
    cv2.fillPoly(drawn, [np.int32(np.round((np.c_[p.real, p.imag] * TIMES - 0.5) * 16)) for p in paths], 1,
                 shift=4)
    overlap = np.sum(drawn & ink) / max(1, np.sum(drawn | ink))
    # Parts that the trace leaves out on purpose are no part of the border either.
    kept = np.zeros_like(ink)
    cv2.drawContours(kept, borders(ink, LEAST_AREA * TIMES * TIMES), -1, 1, cv2.FILLED)
    truth = edges(large, kept & ink) / TIMES
    off = np.concatenate([measure.distances(truth, got), measure.distances(got, truth)])
    polyline = sum(len(cv2.approxPolyDP(c, 0.5, True)) for c in borders(np.uint8(small < 128), LEAST_AREA))
    return dict(overlap=overlap, p95=np.percentile(off, 95), nodes=segments / polyline, crossing=crossings(paths), open=opened)


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--count", type=int, default=60, help="so many drawings, spread over the package")
    parser.add_argument("--only", default="", help="those whose path contains this")
    parser.add_argument("--each", action="store_true", help="a row for every drawing")
    options = parser.parse_args()
    series = {re.sub(r"[0-9]+", "", str(d)): d for d in sorted(DRAWINGS.rglob("*.svg"), reverse=True)}
    every = [d for d in sorted(series.values()) if options.only in str(d)]
    if not every:
        sys.exit("clip_art.py: no drawings: install Debian's package openclipart-svg")
    with concurrent.futures.ProcessPoolExecutor() as pool:
        usable = [d for d in pool.map(black_and_white, every[::max(1, len(every) // (options.count * 8))]) if d]
        usable = usable[:options.count]
        scores = list(pool.map(score, [options.cli] * len(usable), usable))
    if options.each:
        for drawing, s in zip(usable, scores):
            print(drawing.relative_to(DRAWINGS), s and {k: round(float(v), 4) for k, v in s.items()})
    scores = [s for s in scores if s]
    of = {key: np.array([s[key] for s in scores]) for key in scores[0]}
    print("| drawings | overlap, median / least | p95, median / 90 of 100, px | nodes / polyline's, median / 90 of 100 | "
          "crossing | open |\n| --- | --- | --- | --- | --- | --- |")
    print(f"| {len(scores)} | {np.median(of['overlap']):.4f} / {of['overlap'].min():.4f} | {np.median(of['p95']):.3f} / "
          f"{np.percentile(of['p95'], 90):.3f} | {np.median(of['nodes']):.2f} / {np.percentile(of['nodes'], 90):.2f} | "
          f"{int((of['crossing'] > 0).sum())} | {int((of['open'] > 0).sum())} |")


if __name__ == "__main__":
    main()
