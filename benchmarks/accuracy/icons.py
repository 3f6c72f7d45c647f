#!/usr/bin/python3
"""How true the outlines of small pictures are: icons of 64 to 512 px, words of 14 to 32 px, polygons of 4 to 10 px.

    benchmarks/accuracy/icons.py build/release/bin/snugrim-cli [--count N] [--sizes 64,128] [--each] [--keep FOLDER]

The icons are silhouettes from two sets of the npm registry, which are fetched when they are missing (npm pack; kept in
the user's cache): @mdi/svg (Apache 2.0) and @iconify-json/game-icons (CC BY 3.0), of each `count` chosen by a fixed seed from the half
of even names, which no setting was tuned on. librsvg draws each with a white margin of 8 px; the truth is the same drawing
12 times as large. "web" is drawn 4 times as large, made smaller by areas, with noise 3 and as JPEG 45. "plain" is the
contour at half grey of the picture enlarged 8 times by Lanczos' kernel: what no trace should be worse than. Prints
tables in Markdown; --each a row for every icon, --keep writes pictures of the worst ten.
"""
import argparse
import concurrent.futures
import json
import math
import os
import pathlib
import random
import shutil
import subprocess
import sys
import tarfile
import tempfile

import cairo
import cv2
import numpy as np
from scipy.spatial import cKDTree
from skimage.measure import find_contours
from svgelements import SVG, Path as SvgPath

MARGIN, TIMES, SEED = 8, 12, 7
SETS = {"@mdi/svg@7.4.47": "mdi-svg-7.4.47.tgz", "@iconify-json/game-icons@1.2.4": "iconify-json-game-icons-1.2.4.tgz"}
CACHE = pathlib.Path(os.environ.get("XDG_CACHE_HOME", pathlib.Path.home() / ".cache")) / "snugrim-icons"


def fetched(package, archive):
    """The folder with the SVGs of one set."""
    folder = CACHE / archive.removesuffix(".tgz")
    if folder.exists():
        return folder
    if shutil.which("npm") is None:
        sys.exit("icons.py: npm is needed to fetch the icons: apt-get install npm")
    CACHE.mkdir(parents=True, exist_ok=True)
    subprocess.run(["npm", "pack", "--silent", package], cwd=CACHE, check=True, stdout=subprocess.DEVNULL)
    with tempfile.TemporaryDirectory(dir=CACHE) as temporary:
        with tarfile.open(CACHE / archive) as tar:
            tar.extractall(temporary, filter="data") if sys.version_info >= (3, 12) else tar.extractall(temporary)
        package_folder = pathlib.Path(temporary) / "package"
        icons = package_folder / "icons.json"
        if icons.exists():
            names = json.loads(icons.read_text())
            (package_folder / "svg").mkdir()
            for name, icon in names["icons"].items():
                (package_folder / "svg" / (name + ".svg")).write_text(
                    f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {names.get("width", 16)} {names.get("height", 16)}" '
                    f'color="#000">{icon["body"]}</svg>')
        (package_folder / "svg").rename(folder)
    return folder


def drawn_svg(svg, size, times):
    png = subprocess.run(["rsvg-convert", "-a", "-w", str(size * times), "-h", str(size * times), "-b", "white", str(svg)],
                         capture_output=True, timeout=60).stdout
    picture = cv2.imdecode(np.frombuffer(png, np.uint8), cv2.IMREAD_GRAYSCALE)
    side = (size + 2 * MARGIN) * times
    out = np.full((side, side), 255, np.uint8)
    at = MARGIN * times
    out[at:at + picture.shape[0], at:at + picture.shape[1]] = picture
    return out


def as_web(svg, size, seed):
    side = size + 2 * MARGIN
    small = cv2.resize(drawn_svg(svg, size, 4), (side, side), interpolation=cv2.INTER_AREA).astype(np.float32)
    noisy = np.clip(small + np.random.default_rng(seed).normal(0, 3, small.shape), 0, 255).astype(np.uint8)
    return cv2.imdecode(cv2.imencode(".jpg", noisy, [cv2.IMWRITE_JPEG_QUALITY, 45])[1], cv2.IMREAD_GRAYSCALE)


def contours(grey, times):
    """The borders at half grey, px of the picture that is `times` as small, with a point at least every 0.02 px."""
    rings = []
    for ring in find_contours(grey.astype(float), 127.5):
        points = (ring[:, ::-1] + 0.5) / times
        steps = np.maximum(1, np.ceil(np.hypot(*np.diff(points, axis=0).T) / 0.02).astype(int))
        rings.append(np.vstack([points[i] + (points[i + 1] - points[i]) * (np.arange(n) / n)[:, None] for i, n in enumerate(steps)]))
    return rings


def traced(cli, grey, folder):
    """Closed rings of points, px, and how many segments they have."""
    cv2.imwrite(f"{folder}/in.png", grey)
    run = subprocess.run([cli, "trace", f"{folder}/in.png", "-o", f"{folder}/out.svg", "--dpi", "96", "--quiet"], capture_output=True)
    if run.returncode != 0:
        return [], 0
    rings, segments = [], 0
    scale = 1.0
    for element in SVG.parse(f"{folder}/out.svg", ppi=96).elements():
        if not isinstance(element, SvgPath):
            continue
        for part in element.as_subpaths():
            path = SvgPath(part)
            points = []
            for segment in list(path)[1:]:
                if segment.length(error=1e-3) == 0:
                    continue
                segments += 1
                steps = max(1, int(segment.length(error=1e-3) / 0.1))
                points += [segment.point(k / steps) for k in range(steps)]
            rings.append(np.array([[p.x, p.y] for p in points]) * scale)
    return rings, segments


def filled(rings, shape):
    height, width = shape
    surface = cairo.ImageSurface(cairo.FORMAT_A8, width * TIMES, height * TIMES)
    context = cairo.Context(surface)
    context.set_antialias(cairo.ANTIALIAS_NONE)
    context.set_fill_rule(cairo.FILL_RULE_EVEN_ODD)
    for ring in rings:
        for x, y in (ring * TIMES).tolist():
            context.line_to(x, y)
        context.close_path()
    context.fill()
    return np.frombuffer(surface.get_data(), np.uint8).reshape(height * TIMES, -1)[:, :width * TIMES] > 127


def judged(rings, ink, border, shape):
    """Overlap, and the 95th percentile and the most of the distances from the trace to the truth, px."""
    if not rings:
        return 0.0, 99.0, 99.0
    mask = filled(rings, shape)
    off = cKDTree(border).query(np.vstack(rings))[0]
    return np.count_nonzero(mask & ink) / max(1, np.count_nonzero(mask | ink)), float(np.percentile(off, 95)), float(off.max())


def compared(cli, grey, large, keep=None):
    ink = large < 128
    border = np.vstack(contours(large, TIMES))
    enlarged = cv2.resize(grey, None, fx=8, fy=8, interpolation=cv2.INTER_LANCZOS4)
    plain = contours(enlarged, 8)
    polyline = sum(len(cv2.approxPolyDP(r.astype(np.float32)[:, None], 0.5, True)) for r in plain)
    with tempfile.TemporaryDirectory() as folder:
        rings, segments = traced(cli, grey, folder)
    if keep is not None:
        times = max(2, 1000 // max(grey.shape))
        picture = cv2.cvtColor(cv2.resize(grey // 2 + 127, None, fx=times, fy=times, interpolation=cv2.INTER_NEAREST), cv2.COLOR_GRAY2BGR)
        cv2.polylines(picture, [(r * times * 16).astype(np.int32) for r in rings], True, (0, 0, 220), 1, cv2.LINE_AA, 4)
        cv2.imwrite(str(keep), picture)
    return judged(rings, ink, border, grey.shape), judged(plain, ink, border, grey.shape), segments / max(1, polyline)


def icon(task):
    cli, svg, size, web, seed, keep, exact = task
    try:
        large = drawn_svg(svg, size, TIMES)
        side = size + 2 * MARGIN
        clean = cv2.resize(large, (side, side), interpolation=cv2.INTER_AREA) if exact else drawn_svg(svg, size, 1)
        return svg.stem, *compared(cli, as_web(svg, size, seed) if web else clean, large, keep)
    except ValueError:  # nothing is dark at this size
        return None


def word(task):
    cli, text, face, weight, size = task
    width, height = int(len(text) * size * 0.72 + 24), int(size * 1.6 + 14)

    def drawing(times):
        surface = cairo.ImageSurface(cairo.FORMAT_A8, width * times, height * times)
        context = cairo.Context(surface)
        context.scale(times, times)
        options = cairo.FontOptions()
        options.set_hint_style(cairo.HINT_STYLE_NONE)
        options.set_hint_metrics(cairo.HINT_METRICS_OFF)
        options.set_antialias(cairo.ANTIALIAS_GRAY)
        context.set_font_options(options)
        context.select_font_face(face, cairo.FONT_SLANT_NORMAL, weight)
        context.set_font_size(size)
        context.move_to(8.3, height - size * 0.45 - 4.6)
        context.text_path(text)
        context.fill()
        return 255 - np.frombuffer(surface.get_data(), np.uint8).reshape(height * times, -1)[:, :width * times]

    return f"{text} {face} {size}", *compared(cli, drawing(1), drawing(TIMES))


def small_polygon(task):
    """The median error of the corners, px, and segments against sides."""
    cli, sides, size, turn, middle = task
    radius = size / 2 / math.sin(math.pi / sides)
    corners = np.array([[middle[0] + radius * math.cos(turn + 2 * math.pi * k / sides), middle[1] + radius * math.sin(turn + 2 * math.pi * k / sides)]
                        for k in range(sides)])
    surface = cairo.ImageSurface(cairo.FORMAT_A8, 40, 40)
    context = cairo.Context(surface)
    context.set_antialias(cairo.ANTIALIAS_BEST)
    for x, y in corners:
        context.line_to(x, y)
    context.close_path()
    context.fill()
    grey = 255 - np.frombuffer(surface.get_data(), np.uint8).reshape(40, -1)[:, :40]
    with tempfile.TemporaryDirectory() as folder:
        rings, segments = traced(cli, grey, folder)
    if not rings:
        return 9.0, 0.0
    return float(np.median(cKDTree(np.vstack(rings)).query(corners)[0])), segments / sides


def row(name, results):
    tool, plain = np.array([r[1] for r in results]), np.array([r[2] for r in results])
    worse = int((tool[:, 0] < plain[:, 0] - 0.005).sum())
    print(f"| {name} | {len(results)} | {tool[:, 0].mean():.4f} / {tool[:, 0].min():.3f} | {plain[:, 0].mean():.4f} / {plain[:, 0].min():.3f} | "
          f"{np.median(tool[:, 1]):.3f} / {np.percentile(tool[:, 1], 90):.3f} | {np.median(plain[:, 1]):.3f} / {np.percentile(plain[:, 1], 90):.3f} | "
          f"{tool[:, 2].max():.1f} | {worse} | {max(r[3] for r in results):.2f} |", flush=True)


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--count", type=int, default=60)
    parser.add_argument("--sizes", default="64,128,256,512")
    parser.add_argument("--each", action="store_true")
    parser.add_argument("--exact", action="store_true", help="greys averaged from 144 pixels instead of librsvg's own")
    parser.add_argument("--keep")
    wanted = parser.parse_args()
    chosen = []
    for package, archive in SETS.items():
        names = sorted(fetched(package, archive).glob("*.svg"))[::2]
        chosen += random.Random(SEED).sample(names, min(wanted.count, len(names)))
    print("| picture | number | overlap, mean / least | plain | p95, median / 90 of 100, px | plain | farthest, px | worse than plain | most nodes / polyline's |")
    print("| --- | --- | --- | --- | --- | --- | --- | --- | --- |")
    with concurrent.futures.ProcessPoolExecutor() as pool:
        for size in map(int, wanted.sizes.split(",")):
            for web in (False,) if wanted.exact else (False, True):
                tasks = [(wanted.cli, svg, size, web, k, None, wanted.exact) for k, svg in enumerate(chosen)]
                results = [r for r in pool.map(icon, tasks, chunksize=4) if r]
                row(f"icons, {size} px{', web' if web else ', exact greys' if wanted.exact else ''}", results)
                worst = sorted(results, key=lambda r: r[1][0] - r[2][0])
                for name, tool, plain, nodes in worst if wanted.each else []:
                    print(f"|   {name} | | {tool[0]:.3f} | {plain[0]:.3f} | {tool[1]:.3f} | {plain[1]:.3f} | {tool[2]:.1f} | | {nodes:.2f} |")
                if wanted.keep:
                    folder = pathlib.Path(wanted.keep)
                    folder.mkdir(parents=True, exist_ok=True)
                    names = [r[0] for r in worst[:10]]
                    for task in tasks:
                        if task[1].stem in names:
                            icon((*task[:5], folder / f"{size}{'-web' if web else ''}-{task[1].stem}.png", wanted.exact))
        if wanted.exact:
            return
        faces = [("DejaVu Sans", cairo.FONT_WEIGHT_NORMAL), ("Lato", cairo.FONT_WEIGHT_BOLD), ("DejaVu Serif", cairo.FONT_WEIGHT_NORMAL)]
        tasks = [(wanted.cli, text, face, weight, size) for text in ("Kite", "filled", "Loft", "sails 24") for face, weight in faces
                 for size in (14, 18, 24, 32)]
        row("words, 14 to 32 px", list(pool.map(word, tasks, chunksize=4)))
        print("\n| polygons, px | corners off, median / worst of 12, px | segments / sides, mean |\n| --- | --- | --- |")
        r = random.Random(SEED)
        for name, sides, turned in (("squares", 4, False), ("squares, turned", 4, True), ("triangles, turned", 3, True)):
            for size in (4, 5, 6, 8, 10):
                tasks = [(wanted.cli, sides, size, r.uniform(0, math.pi) if turned else math.pi / 4, (20 + r.uniform(-0.5, 0.5), 20 + r.uniform(-0.5, 0.5)))
                         for _ in range(12)]
                found = np.array(list(pool.map(small_polygon, tasks)))
                print(f"| {name}, {size} | {np.median(found[:, 0]):.2f} / {found[:, 0].max():.2f} | {found[:, 1].mean():.2f} |")


if __name__ == "__main__":
    main()
