#!/usr/bin/python3
"""How true the inks of the demo badge are against the artwork it was drawn from.

    benchmarks/accuracy/badge.py build/release/bin/snugrim-cli [--quality Q ...]

demo/make_demo.py draws the badge again at 16 times its size; every place where two of its six colours meet there is the
truth. demo/badge.jpg (JPEG 55), demo/badge.png and, with --quality, JPEGs made of the latter are traced by
`snugrim-cli --colours auto --layout cut-out` and read back by svgelements. Prints a table in Markdown: of every ink the 95th
percentile of the distances between its true and its traced border, both ways, in px of the picture of 320 px.
"""
import argparse
import pathlib
import subprocess
import sys
import tempfile
import xml.etree.ElementTree as ElementTree

import cv2
import numpy as np

import measure

ROOT = pathlib.Path(__file__).resolve().parents[2]
sys.path.insert(0, str(ROOT / "demo"))
import make_demo  # noqa: E402

SIDE, TIMES = 320, 16
INKS = {"paper": make_demo.PAPER, "navy": make_demo.NAVY, "cream": make_demo.CREAM, "sky": make_demo.SKY,
        "red": make_demo.RED, "yellow": make_demo.YELLOW}
COLOURS = np.array([[round(255 * part) for part in colour] for colour in INKS.values()])


def nearest_ink(colours):
    """The number of the ink that each colour is nearest to. One ink at a time: the large picture has 26 megapixels."""
    nearest, least = np.zeros(colours.shape[:-1], np.uint8), np.full(colours.shape[:-1], np.inf, np.float32)
    for number, ink in enumerate(COLOURS):
        off = sum(np.square(colours[..., part].astype(np.float32) - ink[part]) for part in range(3))
        nearest[off < least] = number
        least = np.minimum(least, off)
    return nearest


def true_borders():
    """Of every ink the places of its border, px."""
    large = np.array(make_demo.draw_badge(SIDE * TIMES).convert("RGB"))
    # A mixture at an edge may look like a third ink: hairs of a few samples are none.
    areas = cv2.medianBlur(nearest_ink(large), 5)
    borders = {}
    for number, ink in enumerate(INKS):
        own = cv2.morphologyEx(np.uint8(areas == number), cv2.MORPH_OPEN, np.ones((5, 5)))
        rows, columns = np.nonzero(own[:, 1:] != own[:, :-1])
        level = (columns + 1.0) + 1j * (rows + 0.5)
        rows, columns = np.nonzero(own[1:] != own[:-1])
        borders[ink] = np.concatenate([level, (columns + 0.5) + 1j * (rows + 1.0)]) / TIMES
    return borders


def traced_borders(cli, picture, folder):
    out = pathlib.Path(folder, "badge.svg")
    subprocess.run([cli, "trace", str(picture), "-o", str(out), "--colours", "auto", "--layout", "cut-out", "--width-mm",
                    str(SIDE), "--quiet"], check=True)
    borders = {}
    for group in ElementTree.parse(out).getroot().iter("{http://www.w3.org/2000/svg}g"):
        colour = group.find("{http://www.w3.org/2000/svg}path").get("fill")
        rgb = np.array([int(colour[i:i + 2], 16) for i in (1, 3, 5)])
        alone = pathlib.Path(folder, "ink.svg")
        ElementTree.ElementTree(group).write(alone)
        ink = list(INKS)[int(nearest_ink(rgb))]
        borders[ink] = np.append(borders.get(ink, []), measure.read_svg(alone)[0])
    return borders


def p95(truth, traced):
    return np.percentile(np.concatenate([measure.distances(truth, traced), measure.distances(traced, truth)]), 95)


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--quality", type=int, nargs="*", default=[], help="JPEGs of these qualities, too")
    options = parser.parse_args()
    truth = true_borders()
    names = [ink for ink in INKS if ink != "paper"]
    print(f"| the badge | inks | {' | '.join(names)} |\n|{' --- |' * (len(names) + 2)}")
    with tempfile.TemporaryDirectory() as folder:
        pictures = {"JPEG 55 (demo/badge.jpg)": ROOT / "demo/badge.jpg", "PNG (demo/badge.png)": ROOT / "demo/badge.png"}
        for quality in options.quality:
            pictures[f"JPEG {quality}"] = pathlib.Path(folder, f"{quality}.jpg")
            cv2.imwrite(str(pictures[f"JPEG {quality}"]), cv2.imread(str(ROOT / "demo/badge.png")),
                        [cv2.IMWRITE_JPEG_QUALITY, quality])
        for name, picture in pictures.items():
            traced = traced_borders(options.cli, picture, folder)
            cells = [f"{p95(truth[ink], traced[ink]):.3f}" if ink in traced else "missing" for ink in names]
            print(f"| {name} | {len(traced)} | {' | '.join(cells)} |", flush=True)


if __name__ == "__main__":
    main()
