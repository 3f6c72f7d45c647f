#!/usr/bin/python3
"""Reads every file of a folder with general-purpose readers and compares what they find with what was meant.

    other_readers.py FOLDER

FOLDER/meant.json names the files and what each should hold: outlines, closed ones, the box in mm, layers. DXF is read by
ezdxf (nothing in it may need mending) and by GDAL/OGR, SVG by svgelements and librsvg, PDF by poppler; pictures that
these draw are compared with our own PNG of the same drawing. Prints what differs, a line each, and how much was compared.
"""
import json
import pathlib
import re
import subprocess
import sys

import cv2
import ezdxf
import numpy as np
import svgelements
from ezdxf import bbox, recover

MM = 1e-3
SEEN_MM = 0.02  # curves that are taken apart into chords
PX_PER_MM = 8
MM_PER_INCH = 25.4


def far(box, meant, within):
    return any(abs(a - b) > within for a, b in zip(box, meant))


def by_ezdxf(file, meant):
    if b"\\U+" in pathlib.Path(file).read_bytes():
        drawing, auditor = recover.readfile(file)  # its quick reader leaves such letters as they are
    else:
        drawing = ezdxf.readfile(file)
        auditor = drawing.audit()
    if auditor.errors or auditor.fixes:
        yield f"ezdxf mends it: {[e.message for e in auditor.errors + auditor.fixes][:2]}"
    entities = list(drawing.modelspace())
    closed = sum(e.dxftype() in ("CIRCLE", "ELLIPSE") or bool(getattr(e, "closed", False) or getattr(e, "is_closed", False)) for e in entities)
    if (len(entities), closed) != (meant["outlines"], meant["closed"]):
        yield f"ezdxf: {len(entities)} outlines, {closed} closed"
    unit = {4: 1, 1: MM_PER_INCH}[drawing.header["$INSUNITS"]]
    box = bbox.extents(entities, fast=False)
    got = [v * unit for v in (box.extmin.x, box.extmin.y, box.extmax.x, box.extmax.y)]
    if far(got, meant["box"], SEEN_MM):
        yield f"ezdxf: box {got}"
    said = [v * unit for name in ("$EXTMIN", "$EXTMAX") for v in drawing.header[name][:2]]
    if far(said, meant["box"], MM):
        yield f"ezdxf: header says box {said}"
    layers = sorted({e.dxf.layer for e in entities})
    if meant["layers"] and layers != sorted(meant["layers"]):
        yield f"ezdxf: layers {layers}"


def by_ogr(file, meant):
    run = subprocess.run(["ogrinfo", "-al", "-so", file], capture_output=True, text=True, check=False)
    count = re.search(r"Feature Count: (\d+)", run.stdout)
    extent = re.search(r"Extent: \(([-\d.]+), ([-\d.]+)\) - \(([-\d.]+), ([-\d.]+)\)", run.stdout)
    if not count or int(count.group(1)) != meant["outlines"]:
        yield f"OGR: {count and count.group(1)} outlines {run.stderr[:80]}"
    # It takes splines apart into chords of its own choice.
    elif far([float(v) * meant["unit"] for v in extent.groups()], meant["box"], 0.5 if "splines" in file else 0.05):
        yield f"OGR: box {extent.groups()}"


def by_svgelements(file, meant):
    svg = svgelements.SVG.parse(file, ppi=MM_PER_INCH)  # a millimetre is 1
    count = closed = 0
    low, high = [1e9, 1e9], [-1e9, -1e9]
    for element in svg.elements():
        if not isinstance(element, svgelements.Path):
            continue
        for part in element.as_subpaths():
            one = svgelements.Path(part)
            count += 1
            closed += isinstance(one[-1], svgelements.Close)
            x0, y0, x1, y1 = one.bbox()
            low = [min(low[0], x0), min(low[1], y0)]
            high = [max(high[0], x1), max(high[1], y1)]
    if (count, closed) != (meant["outlines"], meant["closed"]):
        yield f"svgelements: {count} outlines, {closed} closed"
    height = meant["page"][1]
    got = [low[0], height - high[1], high[0], height - low[1]]
    if far(got, meant["box"], MM * 2):
        yield f"svgelements: box {got}"


def ink(file):
    return 255.0 - cv2.imread(str(file))


def overlap(a, b):
    h, w = min(a.shape[0], b.shape[0]), min(a.shape[1], b.shape[1])
    a, b = a[:h, :w], b[:h, :w]
    return np.minimum(a, b).sum() / max(1.0, np.maximum(a, b).sum())


def by_eye(file, meant, folder, draw):
    if not meant.get("drawn"):
        return
    out = folder / (pathlib.Path(file).name + ".seen.png")
    draw(file, out, meant)
    same = overlap(ink(out), ink(folder / meant["drawn"]))
    if same < 0.999:
        yield f"drawn: overlap {same:.5f}"


def by_rsvg(file, out, meant):
    size = [str(round(v * PX_PER_MM)) for v in meant["page"]]
    subprocess.run(["rsvg-convert", "-w", size[0], "-h", size[1], "-b", "white", file, "-o", out], check=True)


def by_poppler(file, out, meant):
    subprocess.run(["pdftocairo", "-png", "-singlefile", "-r", str(PX_PER_MM * MM_PER_INCH), file, str(out)[:-4]], check=True)


def main():
    folder = pathlib.Path(sys.argv[1])
    wrong, compared = [], 0
    for name, meant in json.loads((folder / "meant.json").read_text()).items():
        file = str(folder / name)
        ways = {
            ".dxf": [by_ezdxf(file, meant), by_ogr(file, meant)],
            ".svg": [by_svgelements(file, meant), by_eye(file, meant, folder, by_rsvg)],
            ".pdf": [by_eye(file, meant, folder, by_poppler)],
        }[pathlib.Path(name).suffix]
        for way in ways:
            wrong += [f"{name}: {text}" for text in way]
            compared += 1
    print(json.dumps({"wrong": wrong, "compared": compared}))


if __name__ == "__main__":
    main()
