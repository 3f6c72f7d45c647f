#!/usr/bin/python3
"""What general-purpose libraries say of drawings: ezdxf reads and audits them, Shapely (GEOS) makes polygons of them.

    mend_outside.py MENDED.dxf [SOUP.dxf]     prints one JSON object

Of the mended drawing: how many errors ezdxf's audit finds, how many of its outlines are valid polygons, and their area.
Of the soup of loose lines: how many polygons GEOS's polygonize makes of it, and their area.
"""
import json
import sys

import ezdxf
from ezdxf import path as paths
from shapely.geometry import LineString, Polygon
from shapely.ops import polygonize, unary_union

CHORD_MM = 0.002


def flattened(entity):
    # Rounded, so that ends which meet in the drawing meet here, too.
    return [(round(v.x, 5), round(v.y, 5)) for v in paths.make_path(entity).flattening(CHORD_MM)]


def mended(name):
    doc = ezdxf.readfile(name)
    polygons = [Polygon(flattened(e)) for e in doc.modelspace()]
    return {
        "auditErrors": len(doc.audit().errors),
        "outlines": len(polygons),
        "valid": sum(p.is_valid for p in polygons),
        "areas": sorted(p.area for p in polygons),
    }


def soup(name):
    lines = [LineString(flattened(e)) for e in ezdxf.readfile(name).modelspace()]
    # Nested rings come back as faces: an outline's area is that of its face and of all that lies in it.
    outer = [Polygon(p.exterior) for p in polygonize(unary_union(lines))]
    return {"polygons": len(outer), "polygonAreas": sorted(p.area for p in outer)}


result = mended(sys.argv[1])
if len(sys.argv) > 2:
    result.update(soup(sys.argv[2]))
print(json.dumps(result))
