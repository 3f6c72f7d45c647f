#!/usr/bin/python3
"""Areas as Shapely (GEOS) works them out, beside ours.

    refine_outside.py FILE.json     prints one JSON list of differences

FILE.json is a list of {"rule", "a", "b", "mm", "ours"}: polygons as lists of rings of points (even-odd), what is done to them
("unite", "subtract", "intersect", "exclude", or "offset" of a by mm), and our polygons for the same. Each difference is the area of
what only one of both results covers, in shares of GEOS's area.
"""
import json
import sys

from shapely.geometry import Polygon

QUARTER = 512  # chords in a quarter turn


def region(rings):
    whole = Polygon()
    for ring in rings:
        whole = whole.symmetric_difference(Polygon(ring).buffer(0))
    return whole


def wanted(job):
    a = region(job["a"])
    if job["rule"] == "offset":
        return a.buffer(job["mm"], QUARTER)
    b = region(job["b"])
    return {"unite": a.union, "subtract": a.difference, "intersect": a.intersection, "exclude": a.symmetric_difference}[job["rule"]](b)


differences = []
for job in json.load(open(sys.argv[1])):
    theirs = wanted(job)
    differences.append(region(job["ours"]).symmetric_difference(theirs).area / max(theirs.area, 1e-9))
print(json.dumps(differences))
