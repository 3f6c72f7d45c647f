#!/usr/bin/python3
"""Reads DXF and SVG files with general-purpose libraries and prints what stands in them.

    demo/show_drawing.py FILE...

Needs python3-ezdxf and python3-svgelements. Ends with 1 when an outline is open.
"""
import logging
import re
import sys
import xml.etree.ElementTree as ET

import ezdxf
from ezdxf import bbox

logging.getLogger("fontTools").setLevel(logging.ERROR)
import svgelements  # noqa: E402  (imports fontTools)


def is_closed(entity):
    """A CIRCLE has no flag to say so."""
    return entity.dxftype() == "CIRCLE" or bool(getattr(entity, "closed", False) or getattr(entity, "is_closed", False))


def dxf_facts(file):
    drawing = ezdxf.readfile(file)
    entities = list(drawing.modelspace())
    box = bbox.extents(entities, fast=False)
    closed = sum(is_closed(e) for e in entities)
    return len(entities), closed, box.size.x, box.size.y


def svg_facts(file):
    root = ET.parse(file).getroot()
    view = [float(v) for v in root.attrib["viewBox"].split()]
    width = float(re.fullmatch(r"([-\d.]+)mm", root.attrib["width"]).group(1))
    paths = [sub for e in root.iter("{http://www.w3.org/2000/svg}path") for sub in svgelements.Path(e.attrib["d"]).as_subpaths()]
    closed = sum(isinstance(list(p)[-1], svgelements.Close) for p in paths)
    boxes = [svgelements.Path(p).bbox() for p in paths]
    k = width / view[2]
    across = (max(b[2] for b in boxes) - min(b[0] for b in boxes)) * k
    up = (max(b[3] for b in boxes) - min(b[1] for b in boxes)) * k
    return len(paths), closed, across, up


def main():
    all_closed = True
    for file in sys.argv[1:]:
        count, closed, width, height = (dxf_facts if file.endswith(".dxf") else svg_facts)(file)
        all_closed &= closed == count
        print(f"{file}: {count} outlines, {closed} closed, {count - closed} open, {width:.3f} x {height:.3f} mm")
    return 0 if all_closed else 1


if __name__ == "__main__":
    sys.exit(main())
