#!/usr/bin/python3
"""Twenty pen drawings, traced by the middles of their strokes, beside what OpenCV's thinning and scikit-image's skeleton make of them.

    strokes_outside.py CLI FOLDER     prints one JSON list

Of each drawing: how many connected parts and loops there are, ours and theirs, and how many free ends, ours and as drawn. Skeletons
of pixels grow spurs, so that their ends say nothing.
"""
import json
import math
import pathlib
import random
import re
import subprocess
import sys

import cv2
import numpy as np
import svgelements
from skimage.morphology import skeletonize

SIZE, FINER = 300, 16


def drawing(seed):
    """Polylines, and which of them close. Rings apart from each other, lines that cross or end on a ring's middle."""
    r = random.Random(seed)
    parts = []
    for k in range(r.randint(1, 3)):
        x, y, radius = 60 + 90 * k + r.uniform(-8, 8), r.choice([80, 220]) + r.uniform(-10, 10), r.uniform(18, 34)
        ring = [(x + radius * math.cos(t), y + radius * math.sin(t)) for t in np.linspace(0, 2 * math.pi, 200, endpoint=False)]
        parts.append((ring, True))
        if r.random() < 0.5:
            way = math.copysign(1, 150 - y)
            parts.append(([(x, y + way * radius), (x + r.uniform(-10, 10), y + way * (radius + 28))], False))
    for k in range(r.randint(1, 3)):
        y = 130 + 20 * k
        parts.append(([(20, y), (r.uniform(260, 285), y + r.uniform(-4, 4))], False))
    if r.random() < 0.7:
        x = r.uniform(60, 240)
        parts.append(([(x, 115), (x + r.uniform(-25, 25), 190)], False))
    return parts


def ink(parts, pen):
    fine = np.zeros((SIZE * FINER, SIZE * FINER), np.uint8)
    for points, closed in parts:
        scaled = np.round(np.array(points) * FINER).astype(np.int32)
        cv2.polylines(fine, [scaled], closed, 255, pen * FINER)
    return 255 - cv2.resize(fine, (SIZE, SIZE), interpolation=cv2.INTER_AREA)


def shape_of(mask, smallest):
    """Connected parts, and holes of more than so many pixels."""
    parts = cv2.connectedComponents(mask, connectivity=8)[0] - 1
    count, _, stats, _ = cv2.connectedComponentsWithStats(255 - mask, connectivity=4)
    return parts, sum(stats[i, cv2.CC_STAT_AREA] > smallest for i in range(1, count)) - 1


def lines_of(file):
    """Dense points of every line of an SVG, and whether it closes."""
    for data in re.findall(r' d="([^"]+)"', file.read_text()):
        for part in re.findall(r"M[^M]*", data):
            points = []
            for s in svgelements.Path(part):
                if not isinstance(s, svgelements.Move) and abs(complex(s.start) - complex(s.end)) + s.length(error=1e-3) > 1e-9:
                    points += [complex(x, y) for x, y in s.npoint(np.linspace(0, 1, 60))]
            yield np.array(points), "Z" in part


def ours(file, pen):
    scale = 4
    mask = np.zeros((SIZE * scale, SIZE * scale), np.uint8)
    lines = list(lines_of(file))
    for points, _ in lines:
        at = np.round(np.c_[points.real, points.imag] * scale).astype(np.int32)
        cv2.polylines(mask, [at], False, 255, 3)
    # An end that lies on another stroke is none.
    ends = 0
    for k, (points, closed) in enumerate(lines):
        others = np.concatenate([p for j, (p, _) in enumerate(lines) if j != k] or [np.array([1e9 + 0j])])
        ends += 0 if closed else sum(np.abs(others - e).min() > pen + 1 for e in (points[0], points[-1]))
    return (*shape_of(mask, 20), ends)


def drawn_ends(parts, pen):
    ends = 0
    for k, (points, closed) in enumerate(parts):
        if closed:
            continue
        others = [complex(*p) for j, (q, _) in enumerate(parts) if j != k for a, b in zip(q, q[1:] + q[:1])
                  for p in [(a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t) for t in np.linspace(0, 1, 200 if len(q) < 9 else 2)]]
        ends += sum(min(abs(o - complex(*e)) for o in others) > pen + 1 for e in (points[0], points[-1]))
    return ends


def main():
    cli, folder = sys.argv[1], pathlib.Path(sys.argv[2])
    results = []
    for seed in range(20):
        parts = drawing(seed)
        pen = 5 + seed % 4
        grey = ink(parts, pen)
        picture, out = folder / f"{seed}.png", folder / f"{seed}.svg"
        cv2.imwrite(str(picture), grey)
        subprocess.run([cli, "trace", str(picture), "-o", str(out), "--dpi", "25.4", "--quiet", "--method", "centreline"], check=True)
        mask = ((grey < 128) * 255).astype(np.uint8)
        thinned = cv2.ximgproc.thinning(mask)
        skeleton = (skeletonize(mask > 0) * 255).astype(np.uint8)
        components, loops, ends = ours(out, pen)
        results.append(dict(ours=[components, int(loops)], opencv=[int(v) for v in shape_of(thinned, 8)],
                            skimage=[int(v) for v in shape_of(skeleton, 8)], ends=int(ends), drawn=drawn_ends(parts, pen)))
    print(json.dumps(results))


if __name__ == "__main__":
    main()
