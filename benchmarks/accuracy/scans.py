#!/usr/bin/python3
"""What real photographs and scans become: how many nodes, and whether the areas are those that a careful person would take.

    benchmarks/accuracy/scans.py build/release/bin/snugrim-cli [--each] [--keep FOLDER]

The pictures are those that Debian's packages python3-skimage and python3-matplotlib ship (photographs of things, people,
coins, a clock, brick, grass; micrographs; scanned print), up to 1000 px at the longer side. Nodes are those of the trace
against the borders of its own areas after scikit-image's approximate_polygon (Douglas and Peucker) within 0.5 px. A careful person tries several
thresholds: Otsu's, Otsu's after the light was evened out, and Sauvola's in windows of an eighth of the picture; the
overlap is that with the one of them that agrees best.
"""
import argparse
import concurrent.futures
import pathlib
import re
import subprocess
import tempfile

import cv2
import numpy as np
from skimage.filters import threshold_otsu, threshold_sauvola
from skimage.measure import approximate_polygon, find_contours

import measure

FOLDERS = ["/usr/lib/python3/dist-packages/skimage/data", "/usr/share/matplotlib/mpl-data/sample_data"]
# Drawn by a program, made for tests of file formats, or the same picture once more.
LEFT_OUT = re.compile(r"chess|checker|color|palette|phantom|foo|logo|block|multi|tiny|horse|bw_text|blobs|topobathy|Minduka|_right|_GRAY|binary")
LONGEST, LEAST_AREA, LEAST_SIDE = 1000, 4, 100


def pictures():
    found = []
    for folder in FOLDERS:
        for file in sorted(pathlib.Path(folder).glob("*")):
            if file.suffix.lower() not in (".png", ".jpg", ".jpeg") or LEFT_OUT.search(file.name):
                continue
            picture = cv2.imread(str(file), cv2.IMREAD_COLOR)
            if picture is not None and min(picture.shape[:2]) >= LEAST_SIDE:
                found.append((file.name, picture))
    return found


def thresholds(grey):
    even = grey / np.maximum(cv2.GaussianBlur(grey, (0, 0), max(grey.shape) / 12), 1)
    window = max(grey.shape) // 8 | 1
    return [grey < threshold_otsu(grey), even < threshold_otsu(even), grey < threshold_sauvola(grey, window)]


def traced(cli, picture):
    """The areas of the trace as pixels, even-odd, and its nodes; None when it was refused."""
    with tempfile.TemporaryDirectory() as folder:
        cv2.imwrite(folder + "/in.png", picture)
        run = subprocess.run([cli, "trace", folder + "/in.png", "-o", folder + "/out.svg", "--quiet"], capture_output=True)
        if run.returncode != 0:
            return None, 0
        head = open(folder + "/out.svg").read(2000)
        _, segments, _, _, paths = measure.read_svg(folder + "/out.svg", by_path=True)
    box = [float(v) for v in re.search(r'viewBox="([^"]+)"', head).group(1).split()]
    scale, bits = picture.shape[1] / box[2], 8
    rings = [np.round(np.c_[p.real, p.imag] * scale * (1 << bits) - (1 << bits - 1)).astype(np.int32)
             for p in paths if len(p) > 2]
    ink = np.zeros(picture.shape[:2], np.uint8)
    cv2.fillPoly(ink, rings, 1, shift=bits)
    return ink > 0, segments


def area_of(ring):
    y, x = ring.T
    return abs(np.dot(x, np.roll(y, 1)) - np.dot(y, np.roll(x, 1))) / 2


def polyline_nodes(ink):
    rings = find_contours(np.pad(ink, 1).astype(float), 0.5)
    return sum(len(approximate_polygon(ring, 0.5)) - 1 for ring in rings if area_of(ring) >= LEAST_AREA)


def overlap(a, b):
    best = max((a & b).sum() / max(1, (a | b).sum()), (~a & b).sum() / max(1, (~a | b).sum()))
    return float(best)


def judged(cli, name, picture, keep):
    grey = cv2.cvtColor(picture, cv2.COLOR_BGR2GRAY).astype(float)
    ink, nodes = traced(cli, picture)
    if ink is None:
        return name, None, None
    if keep:
        cv2.imwrite(f"{keep}/{name}", np.hstack([grey, np.where(ink, 0, 255)]).astype(np.uint8))
    return name, nodes / max(1, polyline_nodes(ink)), max(overlap(ink, person) for person in thresholds(grey))


def main():
    parser = argparse.ArgumentParser()
    parser.add_argument("cli")
    parser.add_argument("--each", action="store_true")
    parser.add_argument("--keep")
    asked = parser.parse_args()
    if asked.keep:
        pathlib.Path(asked.keep).mkdir(parents=True, exist_ok=True)
    all_pictures = []
    for name, picture in pictures():
        share = LONGEST / max(picture.shape[:2])
        if share < 1:
            picture = cv2.resize(picture, None, fx=share, fy=share, interpolation=cv2.INTER_AREA)
        all_pictures.append((name, picture))
    if not all_pictures:
        raise SystemExit("There are no pictures: apt-get install python3-skimage python3-matplotlib")
    with concurrent.futures.ThreadPoolExecutor(2) as pool:
        rows = list(pool.map(lambda p: judged(asked.cli, *p, asked.keep), all_pictures))
    known = [r for r in rows if r[1] is not None]
    nodes, overlaps = (sorted(r[k] for r in known) for k in (1, 2))
    print("| pictures | refused | nodes / polyline's, median / worst | overlap, median / 10 of 100 |")
    print("| --- | --- | --- | --- |")
    print(f"| {len(rows)} | {len(rows) - len(known)} | {np.median(nodes):.2f} / {nodes[-1]:.2f} | "
          f"{np.median(overlaps):.2f} / {overlaps[len(overlaps) // 10]:.2f} |")
    if asked.each:
        for r in rows:
            print(r[0], *("-" if v is None else f"{v:.3f}" for v in r[1:]))


if __name__ == "__main__":
    main()
