#!/usr/bin/python3
"""Draws the spool plate of the Puddlewick Kite Loft, an invented workshop, as somebody's broken DXF.

    demo/make_spool_plate.py     writes spool-plate.dxf beside itself

A plate for a kite line's spool: a round plate with a hub, three slots, a kite-shaped window and screw holes. As it
comes from other hands: taken apart into single lines and arcs, with ends that do not meet or run too far, lines lying
twice on each other, a loop, a spike, specks, a leftover far away and a frame. The same run gives the same file.
"""
import math
import pathlib
import random

HERE = pathlib.Path(__file__).resolve().parent
RNG = random.Random(11)


def on_circle(centre, radius, degrees):
    a = math.radians(degrees)
    return (centre[0] + radius * math.cos(a), centre[1] + radius * math.sin(a))


def line(p, q):
    return ("LINE", p, q)


def arc(centre, radius, start, end):
    return ("ARC", centre, radius, start, end)


def polygon(points):
    return [line(p, q) for p, q in zip(points, points[1:] + points[:1])]


def slot(centre, inner, outer, start, end):
    """A slot that follows a circle: two arcs and two round ends."""
    middle, half = (inner + outer) / 2, (outer - inner) / 2
    return [
        arc(centre, outer, start, end),
        arc(on_circle(centre, middle, end), half, end, end + 180),
        arc(centre, inner, start, end),
        arc(on_circle(centre, middle, start), half, start + 180, start + 360),
    ]


def shortened(entity, mm):
    """The entity ends `mm` early."""
    if entity[0] == "LINE":
        (x0, y0), (x1, y1) = entity[1:]
        t = 1 - mm / math.dist((x0, y0), (x1, y1))
        return line((x0, y0), (x0 + (x1 - x0) * t, y0 + (y1 - y0) * t))
    _, centre, radius, start, end = entity
    return arc(centre, radius, start, end - math.degrees(mm / radius))


def spoilt():
    c = (60, 60)
    plate = [arc(c, 55, k * 90, k * 90 + 90) for k in range(4)]
    hub = [arc(c, 9, 0, 180), arc(c, 9, 180, 360)]
    slots = [e for k in range(3) for e in slot(c, 22, 30, k * 120 + 20, k * 120 + 80)]
    kite = polygon([(60, 107), (68, 97), (60, 94), (52, 97)])
    square = polygon([(86, 84), (94, 84), (94, 92), (86, 92)])
    screws = [[arc(on_circle(c, 44, a), 2.2, 0, 180), arc(on_circle(c, 44, a), 2.2, 180, 360)] for a in (0, 180, 270)]

    entities = []
    entities += [shortened(plate[0], 0.32)] + plate[1:]
    entities += hub + [hub[0]]  # half of the hub lies there twice
    entities += [shortened(slots[0], 0.4)] + slots[1:] + [shortened(slots[8], 18)]
    entities += [shortened(kite[0], 0.25), kite[1], shortened(kite[2], -0.35), kite[3]]
    entities += square[:3] + [line((86, 92), (86, 87)), line((86, 88.5), (86, 84))]
    entities += [e for screw in screws for e in screw]
    entities += polygon([(-6, -6), (126, -6), (126, 126), (-6, 126)])  # a frame
    # dirt: dots, scraps, specks, and a leftover half a metre away
    entities += [line((30, 60), (30, 60)), line((33, 84), (33.12, 84.05)), arc((90, 45), 0.08, 0, 180), arc((90, 45), 0.08, 180, 360)]
    entities += [line((560, 310), (560.4, 310))]
    RNG.shuffle(entities)
    return entities


# A weight whose outline runs into a little loop, and runs out to a spike and back.
WEIGHT = [(20, 48), (28, 48), (28, 52.2), (28.3, 52.2), (28.3, 51.9), (27.9, 51.9), (28, 56), (20, 56), (20, 52),
          (19.6, 52), (20, 52)]


def pair(code, value):
    return f"{code}\n{value}\n"


def dxf(entities):
    text = pair(0, "SECTION") + pair(2, "HEADER") + pair(9, "$INSUNITS") + pair(70, 4) + pair(0, "ENDSEC")
    text += pair(0, "SECTION") + pair(2, "ENTITIES")
    for e in entities:
        text += pair(0, e[0]) + pair(8, "plate")
        if e[0] == "LINE":
            (x0, y0), (x1, y1) = e[1:] if RNG.random() < 0.5 else (e[2], e[1])
            text += pair(10, f"{x0:.6f}") + pair(20, f"{y0:.6f}") + pair(11, f"{x1:.6f}") + pair(21, f"{y1:.6f}")
        else:
            _, (x, y), radius, start, end = e
            text += pair(10, f"{x:.6f}") + pair(20, f"{y:.6f}") + pair(40, f"{radius:.6f}")
            text += pair(50, f"{start:.6f}") + pair(51, f"{end:.6f}")
    text += pair(0, "POLYLINE") + pair(8, "plate") + pair(66, 1) + pair(70, 1)
    for x, y in WEIGHT:
        text += pair(0, "VERTEX") + pair(8, "plate") + pair(10, f"{x:.6f}") + pair(20, f"{y:.6f}")
    text += pair(0, "SEQEND")
    return text + pair(0, "ENDSEC") + pair(0, "EOF")


if __name__ == "__main__":
    (HERE / "spool-plate.dxf").write_text(dxf(spoilt()))
