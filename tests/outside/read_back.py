#!/usr/bin/python3
"""Reads a drawing with general-purpose libraries and prints what they find, as JSON.

    read_back.py FILE            the facts of one file
    read_back.py FILE FILE       the largest distance between the outlines of two files, in mm

DXF is read by ezdxf, SVG by svgelements; nearest places are found by scipy. Nothing of this
project's own code takes part.
"""
import json
import logging
import math
import re
import sys
import xml.etree.ElementTree as ET

import ezdxf
import numpy as np
from ezdxf.math import Vec2, bulge_center
from scipy.spatial import cKDTree

logging.getLogger("fontTools").setLevel(logging.ERROR)
import svgelements  # noqa: E402

CHORD_MM = 0.0002
SVG = "{http://www.w3.org/2000/svg}"


def vertices_of(polyline):
    if polyline.dxftype() == "LWPOLYLINE":
        return [(Vec2(x, y), bulge) for x, y, bulge in polyline.get_points("xyb")]
    return [(Vec2(v.dxf.location), v.dxf.get("bulge", 0.0)) for v in polyline.vertices]


def places_of(entity):
    """Places along an entity. Arcs are not taken through ezdxf's paths, which make them cubics."""
    if entity.dxftype() in ("SPLINE", "CIRCLE", "ELLIPSE"):
        return list(entity.flattening(CHORD_MM))
    places = []
    vertices = vertices_of(entity)
    for (start, bulge), (end, _) in zip(vertices, vertices[1:] + vertices[:1]):
        places.append(start)
        if bulge:
            centre = bulge_center(start, end, bulge)
            sweep = 4 * math.atan(bulge)
            places += [centre + (start - centre).rotate(sweep * t) for t in np.linspace(0, 1, 400, endpoint=False)]
    return places + places[:1]


def read_dxf(file):
    drawing = ezdxf.readfile(file)
    auditor = drawing.audit()
    entities = list(drawing.modelspace())
    polylines, closed = [], 0
    for entity in entities:
        polylines.append([(p.x, p.y) for p in places_of(entity)])
        closed += entity.dxftype() in ("CIRCLE", "ELLIPSE") or bool(getattr(entity, "closed", False) or getattr(entity, "is_closed", False))
    header = {name: drawing.header.get(name) for name in ("$INSUNITS", "$MEASUREMENT")}
    header |= {name: list(drawing.header.get(name))[:2] for name in ("$EXTMIN", "$EXTMAX")}
    return polylines, {
        "kinds": sorted({e.dxftype() for e in entities}),
        "closed": closed,
        "version": drawing.dxfversion,
        "errors": len(auditor.errors) + len(auditor.fixes),
        "header": header,
    }


def read_svg(file):
    root = ET.parse(file).getroot()
    size = [float(re.fullmatch(r"([-\d.]+)mm", root.attrib[a]).group(1)) for a in ("width", "height")]
    view = [float(v) for v in root.attrib["viewBox"].split()]
    scale = size[0] / view[2]
    polylines, closed = [], 0
    for element in root.iter(SVG + "path"):
        for sub in svgelements.Path(element.attrib["d"]).as_subpaths():
            segments = list(svgelements.Path(sub))
            closed += isinstance(segments[-1], svgelements.Close)
            points = []
            for s in segments:
                if isinstance(s, svgelements.Move):
                    continue
                if isinstance(s, (svgelements.Line, svgelements.Close)):
                    points += [s.start, s.end]
                else:
                    points += [svgelements.Point(*p) for p in s.npoint(np.linspace(0, 1, 401))]
            polylines.append([(p.x * scale, size[1] - p.y * scale) for p in points])
    return polylines, {
        "kinds": sorted({e.tag.replace(SVG, "") for e in root.iter()}),
        "closed": closed,
        "page": size,
        "viewBox": view,
    }


def steps_of(polylines, step=0.02):
    """The lines cut into steps of at most `step` mm: where each starts, and the way to its end."""
    starts, steps = [], []
    for line in polylines:
        points = np.array(line)
        sides = np.diff(points, axis=0)
        for start, side, length in zip(points, sides, np.hypot(*sides.T)):
            if length > 0:
                count = int(length / step) + 1
                starts.append(start + side * (np.arange(count)[:, None] / count))
                steps.append(np.repeat([side / count], count, axis=0))
    return np.vstack(starts), np.vstack(steps)


def largest_distance(a, b):
    """The farthest that a place on lines a lies from lines b."""
    of, _ = steps_of(a)
    starts, steps = steps_of(b)
    _, nearest = cKDTree(starts).query(of, k=4)
    least = np.full(len(of), np.inf)
    for column in nearest.T:
        off, step = of - starts[column], steps[column]
        t = np.clip((off * step).sum(axis=1) / (step * step).sum(axis=1), 0, 1)[:, None]
        least = np.minimum(least, np.hypot(*(off - step * t).T))
    return float(least.max())


def read(file):
    polylines, facts = (read_dxf if file.endswith(".dxf") else read_svg)(file)
    xs = [x for line in polylines for x, _ in line]
    ys = [y for line in polylines for _, y in line]
    facts["outlines"] = len(polylines)
    facts["box"] = [min(xs), min(ys), max(xs), max(ys)] if xs else []
    return polylines, facts


def main():
    drawings = [read(file) for file in sys.argv[1:]]
    if len(drawings) == 1:
        print(json.dumps(drawings[0][1]))
    else:
        a, b = (lines for lines, _ in drawings)
        print(json.dumps({"distance": max(largest_distance(a, b), largest_distance(b, a))}))


if __name__ == "__main__":
    main()
