#!/usr/bin/python3
"""How true traced outlines are: figures with known outlines are drawn, spoiled, traced and compared.

    benchmarks/accuracy/measure.py build/release/bin/snugrim-cli [clean|jpeg|light|hard|jagged ...] [--each]

Prints a table in Markdown: medians over all figures, and with --each one row a figure. The figures are drawn by cairo and
read back by svgelements, so nothing of the tracer judges itself. Distances in px, both ways.
"""
import argparse
import concurrent.futures
import pathlib
import re
import subprocess
import tempfile
import xml.etree.ElementTree as ElementTree

import cv2
import numpy as np
import svgelements
from scipy.spatial import cKDTree

import shapes

KINDS = {
    "clean": ("clean, anti-aliased", {}),
    "jpeg": ("blur 0.6 px, noise 4, JPEG 60", dict(blur=0.6, noise=4, jpeg=60)),
    "light": ("light falling off by 45 %, noise 6", dict(light=0.45, noise=6)),
    "hard": ("black and white, no greys", dict(hard=True)),
    "jagged": ("black and white, then blur 0.6 px, noise 4, JPEG 60", dict(hard=True, blur=0.6, noise=4, jpeg=60)),
}
STEP = 0.05


def read_svg(file, by_path=False):
    """Samples, segments and number of outlines, open ones; with `by_path` each outline's samples as well."""
    root = ElementTree.parse(file).getroot()
    data = " ".join(e.get("d") for e in root.iter("{http://www.w3.org/2000/svg}path"))
    places, segments, outlines, closed, paths = [], 0, 0, 0, []
    for part in re.findall(r"M[^M]*", data):
        outlines += 1
        before = len(places)
        for s in svgelements.Path(part):
            if isinstance(s, svgelements.Move):
                continue
            if isinstance(s, svgelements.Close):
                closed += 1
                if abs(complex(s.start) - complex(s.end)) < 1e-9:
                    continue
            segments += 1
            rough = [complex(x, y) for x, y in s.npoint(np.linspace(0, 1, 9))]
            count = max(4, int(np.abs(np.diff(rough)).sum() / STEP))
            places.append(np.array([complex(x, y) for x, y in s.npoint(np.arange(count) / count)]))
        paths.append(np.concatenate(places[before:]))
    read = np.concatenate(places) if places else np.zeros(0, complex), segments, outlines, outlines - closed
    return (*read, paths) if by_path else read


def distances(a, b):
    return cKDTree(np.c_[b.real, b.imag]).query(np.c_[a.real, a.imag])[0]


def trace(cli, name, contours, how):
    truth = shapes.sample(contours, STEP)
    width, height = (int(v) + 22 for v in (truth.real.max(), truth.imag.max()))
    with tempfile.TemporaryDirectory() as folder:
        picture, out = pathlib.Path(folder, "in.png"), pathlib.Path(folder, "out.svg")
        cv2.imwrite(str(picture), shapes.spoiled(shapes.picture(contours, width, height), **how))
        subprocess.run([cli, "trace", str(picture), "-o", str(out), "--dpi", "25.4", "--quiet"], check=True)
        got, segments, outlines, opened = read_svg(out)
    if not len(got):
        return name, dict(p95=np.inf, most=np.inf, corners=np.full(1, np.inf), ratio=np.inf, wrong=1)
    both = np.concatenate([distances(truth, got), distances(got, truth)])
    at = shapes.corners(contours)
    return name, dict(p95=np.percentile(both, 95), most=both.max(),
                      corners=distances(at, got) if len(at) else np.zeros(0),
                      ratio=segments / sum(map(len, contours)), wrong=int(opened > 0 or outlines != len(contours)))


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("kinds", nargs="*", default=list(KINDS))
    parser.add_argument("--every", type=int, default=1, help="only every so many-th figure")
    parser.add_argument("--each", action="store_true", help="a row for every figure")
    options = parser.parse_intermixed_args()
    figures = list(shapes.figures())[::options.every]
    print("| picture | p95 distance, px | worst figure's p95 | corners, median / 90 of 100, px | segments / truth | "
          "open or wrong topology |\n| --- | --- | --- | --- | --- | --- |")
    for kind in options.kinds:
        title, how = KINDS[kind]
        with concurrent.futures.ProcessPoolExecutor() as pool:
            jobs = [pool.submit(trace, options.cli, name, contours, how) for name, contours in figures]
            scores = [job.result() for job in jobs]
        of = {key: np.array([s[key] for _, s in scores]) for key in ("p95", "ratio", "wrong")}
        corner = np.concatenate([s["corners"] for _, s in scores])
        print(f"| {title} | {np.median(of['p95']):.3f} | {of['p95'].max():.3f} | {np.median(corner):.3f} / "
              f"{np.percentile(corner, 90):.3f} | {np.median(of['ratio']):.2f} | {of['wrong'].sum()} of {len(scores)} |",
              flush=True)
        for name, s in scores if options.each else []:
            worst = s["corners"].max() if len(s["corners"]) else 0
            print(f"|   {name} | {s['p95']:.3f} | {s['most']:.3f} | {worst:.3f} | {s['ratio']:.2f} | {s['wrong']} |")


if __name__ == "__main__":
    main()
