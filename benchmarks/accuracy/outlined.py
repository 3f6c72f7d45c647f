#!/usr/bin/python3
"""How true the middles are of strokes that were drawn as outlines: icons of one pen, whose strokes were made outlines.

    benchmarks/accuracy/outlined.py build/release/bin/snugrim-cli [--count N] [--seed N] [--worst N]

The icons are of a set of the npm registry, fetched when it is missing (npm pack; kept in the user's cache), in three
weights of 8, 12 and 16 units of a grid of 256. `mend --double centre` makes lines of them; shapely draws these as wide as
the pen was, with round ends, and compares the area with the icon's own. Icons of which outlines stay what they were, or
whose strokes all close on themselves (these are paired, which is tested elsewhere), are counted and left out.
"""
import argparse
import json
import pathlib
import random
import subprocess
import tempfile

import numpy as np
import shapely.geometry
import shapely.ops
import shapely.validation
import svgelements

import emblems

SET = "@phosphor-icons/core@2.1.1"
PENS = {"thin": 8, "light": 12, "regular": 16}
MM_PER_UNIT = 25.4 / 96


def points_of(file):
    for shape in svgelements.SVG.parse(str(file), ppi=25.4).elements():
        if isinstance(shape, svgelements.Path):
            for sub in shape.as_subpaths():
                path = svgelements.Path(sub)
                yield path.npoint(np.linspace(0, 1, max(8, min(4000, int(path.length() / 0.2)))))


def area_of(file):
    """Even-odd."""
    area = None
    for points in points_of(file):
        if len(points) > 3:
            polygon = shapely.validation.make_valid(shapely.geometry.Polygon(points))
            area = polygon if area is None else area.symmetric_difference(polygon)
    return area


def difference(cli, icon, pen_mm, folder):
    """What the lines drawn with the pen have too much or too little, as a share of the icon; None: not all are lines."""
    lines, report = folder / "lines.svg", folder / "report.json"
    subprocess.run([cli, "mend", icon, "-o", lines, "--double", "centre", "--stroke-width", str(1.6 * pen_mm), "--quiet",
                    "--report", report], check=True)
    told = json.loads(report.read_text())
    if len(told.get("strokes", [])) < told["outlines"]:
        return None
    own = area_of(icon)
    drawn = shapely.ops.unary_union([shapely.geometry.LineString(p / MM_PER_UNIT).buffer(pen_mm / MM_PER_UNIT / 2)
                                     for p in points_of(lines)])
    return own.symmetric_difference(drawn).area / own.area


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--count", type=int, default=100, help="icons of each weight")
    parser.add_argument("--seed", type=int, default=5)
    parser.add_argument("--worst", type=int, default=0, help="name so many")
    options = parser.parse_args()
    folder = emblems.fetched(SET, "phosphor-icons-core-2.1.1.tgz", "assets")
    print("| pen | icons | left out | difference, median | 90 of 100 | worst |\n| --- | --- | --- | --- | --- | --- |")
    for weight, pen in PENS.items():
        files = sorted(pathlib.Path(folder).rglob(f"{weight}/*.svg"))
        random.Random(options.seed).shuffle(files)
        with tempfile.TemporaryDirectory() as temporary:
            found = [(difference(options.cli, f, pen * MM_PER_UNIT, pathlib.Path(temporary)), f.stem)
                     for f in files[:options.count]]
        told = sorted(one for one in found if one[0] is not None)
        shares = [100 * share for share, _ in told]
        print(f"| {pen} | {len(told)} | {len(found) - len(told)} | {np.median(shares):.2f} % | "
              f"{np.quantile(shares, 0.9):.2f} % | {shares[-1]:.1f} % |")
        for share, name in told[::-1][:options.worst]:
            print(f"  {name}: {100 * share:.1f} %")


if __name__ == "__main__":
    main()
