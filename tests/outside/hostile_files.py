#!/usr/bin/python3
"""Feeds the command line tool files and arguments that nobody should write, and holds it to its promises.

    tests/outside/hostile_files.py build/release/bin/snugrim-cli [--count N] [--seed S] [--seconds T]

Of every file: no crash, an exit code of 0, 1 or 2, at most 10 s and 1 GB; with 2 a sentence on standard error that names the
file; a file that stood at the output's place before is still whole when nothing new was written. XML, DXF (text and binary),
pictures, job files and arguments in turn; the same for the same seed. Prints one line a broken promise and the slowest and
largest at the end; exits with 1 when a promise was broken.
"""
import argparse
import io
import json
import os
import pathlib
import random
import resource
import struct
import subprocess
import sys
import tempfile
import time
import zipfile
import zlib

MOST_SECONDS, MOST_MEGABYTES = 10, 1000
SVG_HEAD = '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">'


def number(r):
    return r.choice([f"{r.uniform(-100, 100):.3f}", "0", "-0", "1e300", "-1e300", "1e-300", "nan", "inf", "9" * 400, ".", "-", "",
                     f"{r.uniform(-1e7, 1e7)}", "1e7", "0x10", "1,5"])


def path_data(r, most):
    letters = "MmLlHhVvCcSsQqTtAaZz"
    parts = [r.choice(letters) + " ".join(number(r) if r.random() < 0.2 else f"{r.uniform(0, 100):.2f}" for _ in range(r.randint(0, 8)))
             for _ in range(r.randint(0, most))]
    return "M0,0" + " ".join(parts)


def svg_soup(r):
    elements = []
    for k in range(r.randint(1, 30)):
        kind = r.choice(["path", "rect", "circle", "ellipse", "line", "polygon", "use", "g", "symbol", "svg", "a", "text", "image", "style"])
        attributes = "".join(f' {name}="{number(r)}"' for name in r.sample(["x", "y", "width", "height", "r", "rx", "ry", "cx", "cy", "x1", "y2"], 4))
        transform = r.choice(["", ' transform="scale(%s)"' % number(r), ' transform="rotate(%s %s %s)"' % (number(r), number(r), number(r)),
                              ' transform="matrix(1 0 0"', ' transform="skewX(89.9999999)"'])
        body = {"path": f' d="{path_data(r, 40)}"', "polygon": f' points="{" ".join(number(r) for _ in range(9))}"',
                "use": f' href="#i{r.randint(0, 9)}"'}.get(kind, "")
        elements.append(f'<{kind} id="i{k % 10}"{attributes}{transform}{body}/>')
    return SVG_HEAD + "".join(elements) + "</svg>"


def svg_many(r):
    n = r.choice([2000, 20000])
    kind = r.randrange(6)
    if kind == 0:
        return SVG_HEAD + "<path " + " ".join(f'a{i}="{i}"' for i in range(n * 2)) + ' d="M0,0L9,0L9,9Z"/></svg>'
    if kind == 1:
        return SVG_HEAD + '<path fill="none" d="M0,0' + "L10,0L0,0" * n + '"/></svg>'
    if kind == 2:
        return SVG_HEAD + '<path d="M' + " ".join(f"{r.uniform(0, 100):.3f},{r.uniform(0, 100):.3f}" for _ in range(n)) + 'Z"/></svg>'
    if kind == 3:
        return SVG_HEAD + "<g>" * n + '<path d="M0,0L9,0L9,9Z"/>' + "</g>" * n + "</svg>"
    if kind == 4:
        return (f'<!DOCTYPE svg [<!ENTITY e "{"M0,0L1,1" * r.choice([10, 3000])}">]>' + SVG_HEAD + '<path d="&e;"/>' * n + "</svg>")
    levels = "".join(f'<!ENTITY e{i} "{("&e%d;" % (i - 1)) * 12}">' for i in range(1, 10))
    return f'<!DOCTYPE svg [<!ENTITY e0 "M0,0L1,1">{levels}]>' + SVG_HEAD + '<path d="&e9;"/></svg>'


def svg_uses(r):
    n = r.choice([5, 12, 30])
    chain = "".join(f'<g id="u{i}">' + f'<use href="#u{i + 1}"/>' * r.randint(1, 8) + "</g>" for i in range(n))
    return SVG_HEAD + f"<defs>{chain}<path id='u{n}' d='M0,0L9,0L9,9Z'/></defs><use href='#u0'/></svg>"


def spoiled(r, data):
    data = bytearray(data)
    for _ in range(r.randint(1, 12)):
        if not data:
            break
        at = r.randrange(len(data))
        what = r.randrange(4)
        if what == 0:
            data[at] = r.randrange(256)
        elif what == 1:
            del data[at:at + r.randint(1, 200)]
        elif what == 2:
            data[at:at] = data[at:at + r.randint(1, 200)]
        else:
            data[at:at] = r.choice([b"\n", b"\0", b"1e300", b"nan", b"\xff\xfe", b"<", b"0\nEOF\n"])
    return bytes(data)


def dxf(r):
    def group(code, value):
        return f"{code}\n{value}\n"

    def entity():
        kind = r.choice(["LINE", "ARC", "CIRCLE", "ELLIPSE", "LWPOLYLINE", "SPLINE", "INSERT", "POLYLINE", "VERTEX", "SEQEND", "TEXT", "HATCH"])
        out = group(0, kind) + group(8, r.choice(["0", "cut", "CUT", "\xc4", "a" * 300]))
        for code in r.choices([10, 20, 11, 21, 30, 40, 41, 42, 43, 44, 45, 50, 51, 60, 62, 70, 71, 72, 73, 74, 90, 210, 230, 2], k=r.randint(2, 24)):
            out += group(code, "B%d" % r.randint(0, 5) if code == 2 else number(r) if r.random() < 0.3 else f"{r.uniform(-50, 50):.3f}"
                         if code < 60 or code >= 140 else r.randint(-3, 70))
        return out

    blocks = "".join(group(0, "BLOCK") + group(2, f"B{i}") + group(10, 0) + group(20, 0) + "".join(entity() for _ in range(3)) + group(0, "ENDBLK")
                     for i in range(r.randint(0, 6)))
    if r.random() < 0.2:
        n = r.choice([300, 8000])
        blocks = "".join(group(0, "BLOCK") + group(2, f"B{i}") + group(10, 0) + group(20, 0) + group(0, "INSERT") + group(2, f"B{i + 1}") +
                         group(41, r.choice([1, 1000, 1e-9])) + group(10, 0) + group(20, 0) + group(0, "ENDBLK") for i in range(n))
    head = group(0, "SECTION") + group(2, "HEADER") + group(9, "$INSUNITS") + group(70, r.choice([0, 4, 1, 99, -1])) + group(0, "ENDSEC")
    return (head + group(0, "SECTION") + group(2, "BLOCKS") + blocks + group(0, "ENDSEC") + group(0, "SECTION") + group(2, "ENTITIES") +
            "".join(entity() for _ in range(r.randint(1, 40))) + group(0, "ENDSEC") + group(0, "EOF")).encode("latin-1", "replace")


def binary_dxf(r):
    out = b"AutoCAD Binary DXF\r\n\x1a\0"
    for code, value in [(0, b"SECTION\0"), (2, b"ENTITIES\0")] + [(0, b"LINE\0"), (8, b"0\0"), (10, struct.pack("<d", r.uniform(-1e9, 1e9))),
                                                                  (20, struct.pack("<d", float("nan") if r.random() < .2 else 1)), (11, struct.pack("<d", 5)),
                                                                  (21, struct.pack("<d", 7))] * r.randint(1, 50) + [(0, b"ENDSEC\0"), (0, b"EOF\0")]:
        out += struct.pack("<h", code) + value
    return spoiled(r, out) if r.random() < 0.7 else out


def png(width, height, rows, bits=8):
    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
    return (b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", struct.pack(">IIBBBBB", width, height, bits, 0, 0, 0, 0)) +
            chunk(b"IDAT", zlib.compress(rows)) + chunk(b"IEND", b""))


def picture(r):
    kind = r.randrange(5)
    if kind == 0:
        return png(r.choice([60000, 2 ** 31 - 1, 12000]), r.choice([60000, 2 ** 31 - 1]), b"")
    side = r.choice([1, 2, 3, 40, 400])
    rows = b"".join(b"\0" + bytes(r.choice([0, 255]) if kind == 1 else r.randrange(256) for _ in range(side)) for _ in range(side))
    whole = png(side, side, rows)
    if kind in (1, 2):
        return whole
    return spoiled(r, whole) if kind == 3 else whole[:r.randrange(len(whole))]


def job(r):
    memory = io.BytesIO()
    drawing = {"page": [10, 10], "layers": [], "paths": [{"closed": True, "d": "0 0 L 9 0 L 9 9 L 0 0"}]}
    settings = {"snugrim-job": r.choice([1, 2, 3, 10 ** 9, "two", -1]), "picture": {"name": "a", "dots-per-inch": r.choice([0, 96, 1e300, "x"])},
                "origin": "", "preparation": r.choice([[], [{"do": "thicken", "px": 1e9}], 7, [None]]),
                "trace": {"light-is-ink": False, "tolerance-px": r.choice([0.35, -1, 1e308]), "min-area-px2": 4, "corners": 50},
                "size": {"of": r.choice(["resolution", "volume"]), "value": r.choice([0, 1e300, -5])}, "mend": r.choice([{}, [], {"gap-mm": "x"}])}
    with zipfile.ZipFile(memory, "w", zipfile.ZIP_DEFLATED) as z:
        z.writestr("job.json", r.choice([json.dumps(settings), "{" * 100000, "[]", "", json.dumps(settings)[:80]]))
        z.writestr(r.choice(["drawing.json", "../../drawing.json", "/etc/drawing.json"]),
                   r.choice([json.dumps(drawing), "{}", "0" * 30_000_000, json.dumps({**drawing, "paths": [{"closed": True, "d": "L" * 1000}]})]))
    data = memory.getvalue()
    return spoiled(r, data) if r.random() < 0.5 else data


ARGUMENTS = [["trace"], ["trace", "none.png", "-o", "a.svg"], ["check", "/dev/null"], ["check", "/"], ["convert", "x.svg", "-o", "/no/such/a.dxf"],
             ["mend", "--gap", "nan", "x.svg", "-o", "a.svg"], ["trace", "x.png", "-o", "a.xyz"], ["--version", "--", "x"], ["frobnicate"],
             ["trace", "x.png", "-o", "a.svg", "--width-mm", "1e999"], ["check", "x" * 5000 + ".svg"], ["trace", "x.png", "-o", "a.svg", "--crop", "1,2,3"],
             ["mend", "x.svg", "-o", "x.svg/a.svg"], ["check", "--speck", "-1", "x.svg"], ["trace", "x.png", "--colours", "1", "-o", "a.svg"]]


def case(r, k, folder):
    """The arguments of one run, and the file that it is about."""
    if k % 6 == 5:
        arguments = list(r.choice(ARGUMENTS))
        return arguments, None
    name, data = r.choice([("soup.svg", svg_soup), ("many.svg", svg_many), ("uses.svg", svg_uses)]) if k % 6 == 0 else \
        [None, ("a.dxf", dxf), ("b.dxf", binary_dxf), ("p.png", picture), ("j.snugrim", job)][k % 6]
    data = data(r)
    data = data.encode() if isinstance(data, str) else data
    if k % 6 == 0 and r.random() < 0.3:
        data = spoiled(r, data)
    file = folder / f"{k}-{name}"
    file.write_bytes(data)
    out = str(folder / r.choice(["out.svg", "out.dxf"]))
    if k % 6 == 3:
        return ["trace", str(file), "-o", out] + r.choice([[], ["--colours", "auto"], ["--enlarge", "8"], ["--straighten", "--even-light"]]), file
    command = r.choice(["check", "mend", "convert"])
    return [command, str(file)] + ([] if command == "check" else ["-o", out]), file


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("cli")
    parser.add_argument("--count", type=int, default=600)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--seconds", type=float, default=MOST_SECONDS, help="more on a busy machine")
    parser.add_argument("--keep", help="a folder for the files, which stay there")
    options = parser.parse_args()
    cli = os.path.abspath(options.cli)
    broken, slowest, largest = [], (0, ""), (0, "")
    with tempfile.TemporaryDirectory() as own:
        folder = pathlib.Path(options.keep or own)
        folder.mkdir(exist_ok=True)
        for k in range(options.count):
            r = random.Random(options.seed * 1_000_003 + k)
            arguments, file = case(r, k, folder)
            before = {}
            for name in ("out.svg", "out.dxf"):
                (folder / name).write_text("old " * 100)
                before[name] = (folder / name).read_bytes()
            begin = time.monotonic()
            run = subprocess.Popen([cli, *arguments], stdout=subprocess.PIPE, stderr=subprocess.PIPE, cwd=folder)
            try:
                output, errors = run.communicate(timeout=3 * options.seconds)
            except subprocess.TimeoutExpired:
                run.kill()
                run.communicate()
                broken.append(f"{k}: {arguments[:2]} hangs")
                continue
            seconds = time.monotonic() - begin
            megabytes = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1000
            slowest = max(slowest, (seconds, f"{k}: {arguments[:2]}"))
            if megabytes > largest[0]:  # it is the most of all that ran so far
                largest = (megabytes, f"{k}: {arguments[:2]}")
            say = errors.decode("utf-8", "replace").strip()
            if run.returncode not in (0, 1, 2):
                broken.append(f"{k}: {arguments[:2]} ends with {run.returncode}: {say[-200:]}")
            if seconds > options.seconds:
                broken.append(f"{k}: {arguments[:2]} takes {seconds:.1f} s")
            if run.returncode == 2 and len(say) < 15:
                broken.append(f"{k}: {arguments[:2]} says only {say!r}")
            if run.returncode == 2 and file is not None and file.name not in say:
                broken.append(f"{k}: {arguments[:2]} does not name its file: {say[:200]}")
            for name, old in before.items():
                if run.returncode == 2 and (folder / name).read_bytes() != old:
                    broken.append(f"{k}: {arguments[:2]} damaged {name}")
        if largest[0] > MOST_MEGABYTES:
            broken.append(f"{largest[1]} takes {largest[0]:.0f} MB")
    print("\n".join(broken))
    print(f"{options.count} files, {len(broken)} promises broken; slowest {slowest[0]:.1f} s ({slowest[1]}), largest {largest[0]:.0f} MB ({largest[1]})")
    return 1 if broken else 0


if __name__ == "__main__":
    sys.exit(main())
