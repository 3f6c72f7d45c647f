#!/usr/bin/python3
"""How well flat emblems of 3 to 8 colours come out in their inks, at 160 and 320 px, as PNG and as JPEG 70.

    benchmarks/accuracy/emblems.py build/release/bin/snugrim-cli [--count N] [--each]

The emblems are of two sets of the npm registry, fetched when they are missing (npm pack; kept in the user's cache):
flag-icons (MIT) and openmoji (CC BY-SA 4.0), of each `count` chosen by a fixed seed from the half of odd places in the
alphabet, which no setting was tuned on; those with gradients, other than 3 to 8 colours, or a colour on less than 20 square
pixels of the small picture are passed over. librsvg draws them; the truth is the same eight times as large. Traced by
`--colours auto --layout cut-out`. All inks right: as many as there are, each nearest to another one of the truth. The worst
ink's overlap is the least of an emblem; gaps and overlaps are areas that no ink or several cover, a pixel and more away from
the background. Prints a table in Markdown; --each a row for every emblem.
"""
import argparse
import functools
import multiprocessing
import pathlib
import random
import re
import subprocess
import tempfile
import xml.etree.ElementTree as ElementTree

import cv2
import numpy as np

import icons

TIMES, SEED = 8, 7
SVG = "{http://www.w3.org/2000/svg}"


def fetched(package, archive, inside):
    """The folder with the SVGs of one set."""
    folder = icons.CACHE / archive.removesuffix(".tgz")
    if not (folder / "package").exists():
        icons.CACHE.mkdir(parents=True, exist_ok=True)
        subprocess.run(["npm", "pack", "--silent", package], cwd=icons.CACHE, check=True, stdout=subprocess.DEVNULL)
        folder.mkdir(exist_ok=True)
        subprocess.run(["tar", "xzf", icons.CACHE / archive, "-C", folder], check=True)
    return folder / "package" / inside


def drawn(svg, side):
    run = subprocess.run(["rsvg-convert", "-w", str(side), "-h", str(side), "-a", "-b", "white", str(svg)],
                         capture_output=True, check=True)
    return cv2.imdecode(np.frombuffer(run.stdout, np.uint8), cv2.IMREAD_COLOR)


def truth_of(svg, side):
    """Picture, true label of each of the finer samples, colours; None when it is no flat emblem. Kept from run to run."""
    kept = icons.CACHE / "emblem-truths" / f"{svg.parent.parent.name}-{svg.stem}-{side}.npz"
    if not kept.exists():
        truth = truth_drawn(svg, side)
        kept.parent.mkdir(parents=True, exist_ok=True)
        np.savez_compressed(kept, **({} if truth is None else dict(zip(("small", "labels", "colours"), truth))))
    with np.load(kept) as read:
        return (read["small"], read["labels"], read["colours"]) if "colours" in read else None


def truth_drawn(svg, side):
    large, small = drawn(svg, side * TIMES), drawn(svg, side)
    height, width = small.shape[:2]
    large = cv2.resize(large, (width * TIMES, height * TIMES), interpolation=cv2.INTER_NEAREST)
    packed = (large.astype(np.uint32) * np.uint32([1, 256, 65536])).sum(2).astype(np.int64)
    values, counts = np.unique(packed, return_counts=True)
    # A mixture along an upright or level edge is a line of one sample.
    large_enough = [v for v, c in zip(values, counts) if c >= 20 * TIMES * TIMES]
    if len(large_enough) > 40:
        return None
    areas = [cv2.morphologyEx(np.uint8(packed == v), cv2.MORPH_OPEN, np.ones((TIMES - 1,) * 2)).sum() for v in large_enough]
    common = np.isin(values, [v for v, area in zip(large_enough, areas) if area >= 20 * TIMES * TIMES])
    if not 3 <= common.sum() <= 8 or counts[common].sum() < 0.97 * packed.size:
        return None
    colours = np.array([[v & 255, v >> 8 & 255, v >> 16] for v in values[common].tolist()], np.float32)
    if min(np.linalg.norm(a - b) for i, a in enumerate(colours) for b in colours[:i]) < 30:
        return None
    labels = nearest(large, colours)
    return small, cv2.medianBlur(labels, 5), colours


def is_flat(svg):
    return truth_of(svg, 160) is not None


def nearest(pixels, colours):
    least, labels = np.full(pixels.shape[:2], np.inf, np.float32), np.zeros(pixels.shape[:2], np.uint8)
    for number, colour in enumerate(colours):
        off = np.square(pixels.astype(np.float32) - colour).sum(2).astype(np.int64)
        labels[off < least] = number
        least = np.minimum(least, off)
    return labels


def traced(cli, picture, folder):
    """Colour and covered samples of each ink."""
    height, width = picture.shape[:2]
    out = pathlib.Path(folder, "out.svg")
    run = subprocess.run([cli, "trace", str(pathlib.Path(folder, "in.png")), "-o", str(out), "--colours", "auto",
                          "--layout", "cut-out", "--dpi", "25.4", "--quiet"], capture_output=True, text=True)
    if run.returncode:
        return []
    root = ElementTree.parse(out).getroot()
    layers = []
    for group in root.iter(SVG + "g"):
        paths = [p for p in group.iter(SVG + "path") if p.get("d")]
        if not paths:
            continue
        colour = [int(paths[0].get("fill")[i:i + 2], 16) for i in (5, 3, 1)]
        data = " ".join(p.get("d") for p in paths)
        alone = (f'<svg xmlns="http://www.w3.org/2000/svg" width="{width * TIMES}" height="{height * TIMES}" '
                 f'viewBox="{root.get("viewBox")}"><path fill="black" fill-rule="evenodd" d="{data}"/></svg>')
        png = subprocess.run(["rsvg-convert", "-b", "white"], input=alone.encode(), capture_output=True, check=True).stdout
        layers.append((np.float32(colour), cv2.imdecode(np.frombuffer(png, np.uint8), cv2.IMREAD_GRAYSCALE) < 128))
    return layers


def judged(cli, svg, side, jpeg):
    truth = truth_of(svg, side)
    if truth is None:
        return None
    picture, labels, colours = truth
    with tempfile.TemporaryDirectory() as folder:
        written = picture
        if jpeg:
            written = cv2.imdecode(cv2.imencode(".jpg", picture, [cv2.IMWRITE_JPEG_QUALITY, 70])[1], cv2.IMREAD_COLOR)
            cv2.imwrite(f"{folder}/in.jpg", picture, [cv2.IMWRITE_JPEG_QUALITY, 70])
            pathlib.Path(folder, "in.jpg").rename(pathlib.Path(folder, "in.png"))
        else:
            cv2.imwrite(f"{folder}/in.png", written)
        layers = traced(cli, picture, folder)
    if not layers:
        return {"right": False, "worst": 0.0, "astray": labels.size / TIMES**2, "inks": (0, len(colours))}
    covered = np.zeros(labels.shape, np.uint8)
    found = [np.zeros(labels.shape, bool) for _ in colours]
    used = []
    for colour, mask in layers:
        number = int(np.argmin([np.linalg.norm(colour - c) for c in colours]))
        used.append(number)
        found[number] |= mask
        covered += mask
    rest = [n for n in range(len(colours)) if n not in used]
    background = rest[0] if len(rest) == 1 else int(np.bincount(labels[covered == 0].ravel(), minlength=len(colours)).argmax())
    worst = min(float((found[n] & (labels == n)).sum() / max(1, (found[n] | (labels == n)).sum()))
                for n in range(len(colours)) if n != background)
    edge = cv2.dilate(np.uint8(labels == background), np.ones((2 * TIMES + 1,) * 2)) > 0
    astray = (((covered == 0) | (covered > 1)) & ~edge).sum() / TIMES**2
    return {"right": len(set(used)) == len(used) and len(rest) <= 1, "worst": worst, "astray": float(astray),
            "inks": (len(layers), len(colours))}


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--count", type=int, default=24)
    parser.add_argument("--each", action="store_true")
    parser.add_argument("--sizes", type=int, nargs="*", default=[160, 320])
    parser.add_argument("--tune", action="store_true", help="the other half")
    options = parser.parse_args()
    names = []
    for package, archive, inside in (("flag-icons@7.5.0", "flag-icons-7.5.0.tgz", "flags/4x3"),
                                     ("openmoji@17.0.0", "openmoji-17.0.0.tgz", "color/svg")):
        half = sorted(fetched(package, archive, inside).glob("*.svg"))[0 if options.tune else 1::2]
        random.Random(SEED).shuffle(half)
        with multiprocessing.Pool(2) as pool:
            flat = pool.map(is_flat, half[: 12 * options.count], chunksize=4)
        chosen = [name for name, good in zip(half, flat) if good]
        names += chosen[: options.count]
    print("| emblems | number | all inks right | worst ink's overlap, median / 10 of 100 | gaps and overlaps, 90 of 100, px² |\n"
          "| --- | --- | --- | --- | --- |")
    for side in options.sizes:
        for jpeg in (False, True):
            with multiprocessing.Pool(2) as pool:
                judge = functools.partial(judged, options.cli, side=side, jpeg=jpeg)
                rows = [(name, row) for name, row in zip(names, pool.map(judge, names, chunksize=1)) if row]
            if options.each:
                for name, row in sorted(rows, key=lambda pair: pair[1]["worst"]):
                    print(f"  {name.stem[:24]:24} worst {row['worst']:.3f} astray {row['astray']:7.2f} "
                          f"inks {row['inks'][0]} of {row['inks'][1]} {'right' if row['right'] else 'WRONG'}")
            worst = [row["worst"] for _, row in rows]
            print(f"| {side} px{', JPEG 70' if jpeg else ''} | {len(rows)} | {np.mean([row['right'] for _, row in rows]):.3f} | "
                  f"{np.median(worst):.3f} / {np.percentile(worst, 10):.3f} | "
                  f"{np.percentile([row['astray'] for _, row in rows], 90):.2f} |", flush=True)


if __name__ == "__main__":
    main()
