#!/usr/bin/python3
"""How true the middles of pen strokes are: icons drawn with one pen, whose middles are known, are traced by them.

    benchmarks/accuracy/strokes.py build/release/bin/snugrim-cli [--set NAME] [--count N] [--size PX] [--pen UNITS]
                                   [--jpeg] [--skip N] [--worst N] [--keep DIR]

The icons are of sets of the npm registry, fetched when they are missing (npm pack; kept in the user's cache); each
is drawn by cairo with round tips and joins, on a grid of 24 units. Distances in px, both ways. A line is right when as
many come out as were drawn; lines that were drawn as several which meet end to end count as one, those that go on
straightest first. *hershey* are glyphs of single-line engraving faces (A. V. Hershey, "Calligraphy for Computers", 1967;
Debian's package hershey-fonts-data). Apart are drawings whose ink has as many parts and holes with this pen as with one a
third as wide: in others strokes ran into each other, and what was drawn in the dark between them cannot be seen. Showing are
those in which a quarter of each line's ink is its own and none runs on another for more than two pens: a dot within a dot,
or that four squares side by side are four, nobody sees.
"""
import argparse
import concurrent.futures
import itertools
import pathlib
import random
import subprocess
import tarfile
import tempfile

import cairo
import cv2
import numpy as np
import svgelements

import measure

SETS = {"feather": "feather-icons@4.29.2", "lucide": "lucide-static@1.62.0", "tabler": "@tabler/icons@3.52.0",
        "iconoir": "iconoir@7.12.1", "heroicons": "heroicons@2.2.0"}
CACHE = pathlib.Path.home() / ".cache" / "snugrim-benchmarks"
GRID = 24


def icons_of(name):
    folder = CACHE / ("strokes-" + name)
    if not folder.exists():
        CACHE.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory() as temporary:
            subprocess.run(["npm", "pack", SETS[name]], cwd=temporary, check=True, capture_output=True)
            with tarfile.open(next(pathlib.Path(temporary).glob("*.tgz"))) as archive:
                archive.extractall(folder)
    files = [f for f in folder.rglob("*.svg")
             if not any(word in str(f) for word in ("filled", "solid", "optimized/20", "optimized/16", "src/"))]
    return sorted(f for f in files if 'fill="currentColor"' not in f.read_text() and "transform" not in f.read_text())


class Glyph:
    """A glyph of a single-line face, on the icons' grid."""
    def __init__(self, stem, lines):
        self.stem = stem
        self.paths = [svgelements.Path("M " + " L ".join(f"{x},{y}" for x, y in line)) for line in lines]


def glyphs():
    """All of the faces of one line whose strokes are all longer than a dot."""
    found = []
    for face in ("rowmans", "futural", "scripts", "cursive"):
        file = pathlib.Path("/usr/share/hershey-fonts", face + ".jhf")
        if not file.exists():
            raise SystemExit("strokes.py: apt-get install hershey-fonts-data")
        for number, row in enumerate(file.read_text().splitlines()):
            pairs = [row[i:i + 2] for i in range(10, len(row) - 1, 2)]
            lines, line = [], []
            for pair in [*pairs, " R"]:
                if pair == " R":
                    lines, line = lines + [np.array(line, float)] * (len(line) > 1), []
                else:
                    line.append((ord(pair[0]) - ord("R"), ord(pair[1]) - ord("R")))
            if not lines or min(np.ptp(l, 0).max() for l in lines) < 4:
                continue
            low, high = np.min([l.min(0) for l in lines], 0), np.max([l.max(0) for l in lines], 0)
            scale = 18 / (high - low).max()
            found.append(Glyph(f"{face}-{number}", [(l - (low + high) / 2) * scale + GRID / 2 for l in lines]))
    return found


def strokes_of(file):
    """The subpaths that one pen draws; None when the icon is drawn otherwise."""
    if isinstance(file, Glyph):
        return file.paths
    parts = []
    for shape in svgelements.SVG.parse(str(file), reify=True).elements():
        if isinstance(shape, svgelements.Shape):
            if shape.stroke.value is None:
                continue
            path = svgelements.Path(shape)
            path.approximate_arcs_with_cubics()
            parts += [svgelements.Path(p) for p in path.as_subpaths()]
    return [p for p in parts if len(p) > 1] or None


def segments(path):
    return [s for s in path if not isinstance(s, svgelements.Move)]


def is_closed(path):
    s = segments(path)
    return isinstance(s[-1], svgelements.Close) or (len(s) > 1 and abs(complex(s[0].start) - complex(s[-1].end)) < 1e-6)


def draw(paths, size, pen):
    k = size / GRID
    surface = cairo.ImageSurface(cairo.FORMAT_A8, size, size)
    c = cairo.Context(surface)
    c.scale(k, k)
    c.set_line_width(pen)
    c.set_line_cap(cairo.LINE_CAP_ROUND)
    c.set_line_join(cairo.LINE_JOIN_ROUND)
    for path in paths:
        for s in path:
            if isinstance(s, svgelements.Move):
                c.move_to(s.end.x, s.end.y)
            elif isinstance(s, svgelements.Close):
                c.close_path()
            elif isinstance(s, svgelements.Line):
                c.line_to(s.end.x, s.end.y)
            elif isinstance(s, svgelements.QuadraticBezier):
                a, b, e = complex(s.start), complex(s.control), complex(s.end)
                p, q = a + 2 / 3 * (b - a), e + 2 / 3 * (b - e)
                c.curve_to(p.real, p.imag, q.real, q.imag, e.real, e.imag)
            else:
                c.curve_to(s.control1.x, s.control1.y, s.control2.x, s.control2.y, s.end.x, s.end.y)
        c.stroke()
    surface.flush()
    ink = np.ndarray((size, surface.get_stride()), np.uint8, surface.get_data())[:, :size]
    return 255 - ink


def spoiled(grey):
    noisy = cv2.GaussianBlur(grey, (0, 0), 0.6).astype(float)
    noisy += np.random.default_rng(1).normal(0, 4, grey.shape)
    return cv2.imdecode(cv2.imencode(".jpg", np.clip(noisy, 0, 255).astype(np.uint8),
                                     [cv2.IMWRITE_JPEG_QUALITY, 60])[1], cv2.IMREAD_GRAYSCALE)


def parts_and_holes(grey):
    ink = np.uint8(grey < 128)
    return cv2.connectedComponents(ink, connectivity=8)[0], cv2.connectedComponents(1 - ink, connectivity=4)[0]


def truth_of(paths, size):
    k = size / GRID
    places = []
    for path in paths:
        for s in segments(path):
            if isinstance(s, svgelements.Close) and abs(complex(s.start) - complex(s.end)) < 1e-9:
                continue
            count = max(2, int(s.length(error=1e-3) * k / measure.STEP))
            places.append(np.array([complex(x, y) for x, y in s.npoint(np.linspace(0, 1, count))]) * k)
    return np.concatenate(places)


def ways_out(path):
    """The two ends of an open path, each with the way in which it leaves that end."""
    s = segments(path)
    first, last = complex(s[0].start), complex(s[-1].end)
    inward = [complex(p.x, p.y) - end for p, end in ((s[0].point(0.02), first), (s[-1].point(0.98), last))]
    return [(p, way / (abs(way) or 1)) for p, way in zip((first, last), inward)]


def expected(paths):
    """How many lines: what meets end to end is one line, the two first that go on straightest there."""
    ends = {}
    lines = len(paths)
    for i, path in enumerate(paths):
        if is_closed(path):
            continue
        for p, way in ways_out(path):
            ends.setdefault((round(p.real, 2), round(p.imag, 2)), []).append((i, way))
    parent = list(range(len(paths)))

    def find(i):
        while parent[i] != i:
            i = parent[i]
        return i
    for members in ends.values():
        while len(members) > 1:
            a, b = min(itertools.combinations(members, 2), key=lambda two: (two[0][1] * two[1][1].conjugate()).real)
            members = [m for m in members if m is not a and m is not b]
            if find(a[0]) != find(b[0]):
                parent[find(a[0])] = find(b[0])
                lines -= 1
    return lines


def all_show(paths, size, pen):
    """Whether a quarter of each line's ink is its own, and none runs on the track of another one for more than two pens."""
    near_px = 0.15
    tracks = [truth_of([path], size) for path in paths]
    for i, track in enumerate(tracks):
        others = tracks[:i] + tracks[i + 1:]
        if not others:
            continue
        along_px = np.sum(measure.distances(track, np.concatenate(others)) < near_px) * measure.STEP
        own = draw([paths[i]], size, pen) < 128
        alone = np.logical_and(own, draw(paths[:i] + paths[i + 1:], size, pen) >= 128)
        if along_px > 2 * pen * size / GRID or alone.sum() * 4 < own.sum():
            return False
    return True


def row_of(rows, chosen, title):
    """A row of the table for some of the drawings."""
    some = [r for r, ok in zip(rows, chosen) if ok]
    if not some:
        return f"| {title} | 0 icons |"
    p95 = np.array([r["p95"] for r in some])
    most = np.array([r["most"] for r in some])
    right = np.array([is_right(r) for r in some])
    return (f"| {title} | {len(some)} icons | p95 median {np.median(p95):.3f}, 95 of 100 {np.percentile(p95, 95):.3f}, worst "
            f"{p95.max():.3f} | at most 0.3: {np.mean(p95 <= 0.3):.1%} | farthest, median {np.median(most):.2f} "
            f"| lines right {right.mean():.1%} | both {np.mean(right & (p95 <= 0.3)):.1%} |")


def is_right(row):
    return row["got"] in (row["wanted"], row.get("drawn"))


def judge(cli, file, size, pen, jpeg, keep):
    paths = strokes_of(file)
    if not paths:
        return None
    grey = draw(paths, size, pen)
    with tempfile.TemporaryDirectory() as folder:
        folder = pathlib.Path(keep or folder)
        picture, out = folder / (file.stem + ".png"), folder / (file.stem + ".svg")
        cv2.imwrite(str(picture), spoiled(grey) if jpeg else grey)
        done = subprocess.run([cli, "trace", str(picture), "-o", str(out), "--dpi", "25.4", "--quiet", "--method",
                               "centreline"], capture_output=True, text=True)
        if done.returncode:
            return dict(name=file.stem, failed=done.stderr, p95=np.inf, most=np.inf, wanted=0, got=0)
        got, count, outlines, opened = measure.read_svg(out)
    truth = truth_of(paths, size)
    if not len(got):
        return dict(name=file.stem, p95=np.inf, most=np.inf, wanted=expected(paths), got=0)
    both = np.concatenate([measure.distances(truth, got), measure.distances(got, truth)])
    return dict(name=file.stem, p95=np.percentile(both, 95), most=both.max(), wanted=expected(paths), got=outlines,
                drawn=len(paths), segments=count, shows=all_show(paths, size, pen),
                apart=parts_and_holes(grey) == parts_and_holes(draw(paths, size, pen / 3)))


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--set", default="feather", choices=[*SETS, "hershey"])
    parser.add_argument("--count", type=int, default=100)
    parser.add_argument("--skip", type=int, default=0, help="leave out the first so many of the shuffled icons")
    parser.add_argument("--size", type=int, default=240)
    parser.add_argument("--pen", type=float, default=2)
    parser.add_argument("--jpeg", action="store_true", help="blur 0.6 px, noise 4, JPEG 60")
    parser.add_argument("--worst", type=int, default=10)
    parser.add_argument("--keep", help="a folder for pictures and outlines")
    parser.add_argument("--name", help="only this icon")
    o = parser.parse_args()
    files = glyphs() if o.set == "hershey" else icons_of(o.set)
    random.Random(7).shuffle(files)
    files = [f for f in files if f.stem == o.name] if o.name else files[o.skip:o.skip + o.count]
    with concurrent.futures.ThreadPoolExecutor(2) as pool:
        rows = [r for r in pool.map(lambda f: judge(o.cli, f, o.size, o.pen, o.jpeg, o.keep), files) if r]
    apart = [r.get("apart", False) for r in rows]
    shows = [r.get("shows", False) for r in rows]
    title = f"{o.set}, pen {o.pen}, {o.size} px, {'JPEG 60' if o.jpeg else 'clean'}"
    print(row_of(rows, [True] * len(rows), title), row_of(rows, apart, "of these apart"),
          row_of(rows, shows, "of these showing"),
          row_of(rows, [a and b for a, b in zip(apart, shows)], "of these apart and showing"), sep="\n", flush=True)
    for r in sorted(rows, key=lambda r: -r["p95"])[:o.worst]:
        print("  p95 ", {k: (round(float(v), 3) if isinstance(v, float) else v) for k, v in r.items()})
    for r in [r for r in rows if not is_right(r)][:o.worst]:
        print("  lines", {k: (round(float(v), 3) if isinstance(v, float) else v) for k, v in r.items()})


if __name__ == "__main__":
    main()
