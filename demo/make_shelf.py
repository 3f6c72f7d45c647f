#!/usr/bin/python3
"""Draws the pieces that lie on the shelf of the Puddlewick Kite Loft, an invented workshop, from the start.

    demo/make_shelf.py     writes shelf/*.svg beside itself

Plain SVG in mm: closed outlines, holes inside. The same run gives the same files.
"""
import math
import pathlib
import xml.sax.saxutils

SHELF = pathlib.Path(__file__).resolve().parent / "shelf"
SOURCE = "Drawn for the Puddlewick Kite Loft; free to use."


def number(value):
    return f"{value:.4f}".rstrip("0").rstrip(".")


def polygon(points):
    return "M" + " L".join(f"{number(x)} {number(y)}" for x, y in points) + " Z"


def circle(x, y, r):
    return (f"M{number(x - r)} {number(y)} A{number(r)} {number(r)} 0 0 1 {number(x + r)} {number(y)} "
            f"A{number(r)} {number(r)} 0 0 1 {number(x - r)} {number(y)} Z")


def star(tips, outer, inner):
    at = [(outer if k % 2 == 0 else inner, math.pi * k / tips) for k in range(2 * tips)]
    return polygon([(outer + r * math.sin(a), outer - r * math.cos(a)) for r, a in at])


PIECES = {
    "kite": ("Kite", ["kite", "sail", "sign"], 40, 74,
             [polygon([(20, 0), (40, 22), (22, 60), (28, 74), (20, 68), (12, 74), (18, 60), (0, 22)]),
              polygon([(18.5, 6), (18.5, 20.5), (5, 20.5)]), polygon([(21.5, 6), (35, 20.5), (21.5, 20.5)]),
              polygon([(18.5, 23.5), (18.5, 53), (4.5, 23.5)]), polygon([(21.5, 23.5), (35.5, 23.5), (21.5, 53)])]),
    "gull": ("Gull", ["bird", "sky"], 60, 20,
             ["M0 6 C10 -2 22 0 30 10 C38 0 50 -2 60 6 C50 4 40 8 30 20 C20 8 10 4 0 6 Z"]),
    "reel": ("Line reel", ["reel", "tool", "wheel"], 50, 50,
             [circle(25, 25, 25), circle(25, 25, 4)] +
             [circle(25 + 15 * math.cos(math.pi * k / 3), 25 + 15 * math.sin(math.pi * k / 3), 5) for k in range(6)]),
    "star": ("Star", ["star", "sky", "ornament"], 40, 40, [star(5, 20, 8)]),
    "tag": ("Price tag", ["tag", "shop", "sign"], 60, 30,
            ["M10 0 L56 0 A4 4 0 0 1 60 4 L60 26 A4 4 0 0 1 56 30 L10 30 L0 15 Z", circle(9, 15, 2.5)]),
    "cloud": ("Cloud", ["cloud", "sky"], 60, 36,
              ["M14 36 A12 12 0 0 1 10 12.6 A16 16 0 0 1 40 8 A14 14 0 0 1 48 36 Z"]),
}


def svg(name, tags, width, height, paths):
    items = "".join(f"<rdf:li>{tag}</rdf:li>" for tag in tags)
    escaped = xml.sax.saxutils.escape
    return f"""<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}">
 <title>{escaped(name)}</title>
 <desc>{escaped(SOURCE)}</desc>
 <metadata>
  <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns:dc="http://purl.org/dc/elements/1.1/">
   <rdf:Description rdf:about=""><dc:subject><rdf:Bag>{items}</rdf:Bag></dc:subject></rdf:Description>
  </rdf:RDF>
 </metadata>
 <path fill="#000000" fill-rule="evenodd" d="{" ".join(paths)}"/>
</svg>
"""


def main():
    SHELF.mkdir(exist_ok=True)
    for stem, (name, tags, width, height, paths) in PIECES.items():
        (SHELF / f"{stem}.svg").write_text(svg(name, tags, width, height, paths), encoding="utf-8")


if __name__ == "__main__":
    main()
