"""Figures whose outlines are known, and pictures of them.

A figure is a list of closed contours, a contour a list of segments: ("L", a, b), ("A", a, b, centre, sweep) or
("C", a, handle, handle, b). Places are complex numbers in picture pixels, y down; pixel (0, 0) covers the square from
0 to 1 + 1j. `sweep` is the turned angle in radians, positive from the x axis to the y axis.
"""
import cmath
import math
import pathlib
import random

import cairo
import cv2
import numpy as np
from fontTools.pens.recordingPen import DecomposingRecordingPen
from fontTools.ttLib import TTFont

FONTS = pathlib.Path(__file__).resolve().parents[2] / "src/app/resources/fonts"


def polygon(corners):
    return [("L", a, b) for a, b in zip(corners, corners[1:] + corners[:1])]


def turned(points, about, radians):
    return [about + (p - about) * cmath.exp(1j * radians) for p in points]


def arc(a, centre, sweep):
    return ("A", a, centre + (a - centre) * cmath.exp(1j * sweep), centre, sweep)


def circle(centre, radius):
    quarters = []
    a = centre + radius
    for _ in range(4):
        quarters.append(arc(a, centre, math.pi / 2))
        a = quarters[-1][2]
    return quarters


def regular(n, centre, radius, radians=0.0):
    return polygon([centre + cmath.rect(radius, radians + 2 * math.pi * k / n) for k in range(n)])


def star(tips, centre, outer, inner, radians):
    return polygon([centre + cmath.rect(inner if k % 2 else outer, radians + math.pi * k / tips)
                    for k in range(2 * tips)])


def plate(centre, width, height, radius, radians=0.0):
    """A rectangle with round corners."""
    contour = []
    for k, (sx, sy) in enumerate(((1, -1), (1, 1), (-1, 1), (-1, -1))):
        middle = complex(sx * (width / 2 - radius), sy * (height / 2 - radius))
        contour.append(arc(middle + cmath.rect(radius, (k - 1) * math.pi / 2), middle, math.pi / 2))
    joined = []
    for a, b in zip(contour, contour[1:] + contour[:1]):
        joined += [a, ("L", a[2], b[1])]
    return moved(joined, centre, radians)


def moved(contour, by, radians=0.0):
    turn = cmath.exp(1j * radians)
    return [tuple([s[0]] + [by + p * turn if isinstance(p, complex) else p for p in s[1:]]) for s in contour]


def ellipse(centre, a, b, radians):
    k = 4 / 3 * (math.sqrt(2) - 1)
    quarter = [(a + 0j, complex(a, b * k), complex(a * k, b), b * 1j)]
    for _ in range(3):
        p = quarter[-1]
        quarter.append(tuple(complex(-q.imag * a / b, q.real * b / a) for q in p))
    return moved([("C", *q) for q in quarter], centre, radians)


def reuleaux(centre, width, radians):
    """Three arcs, each about the opposite corner (F. Reuleaux 1875)."""
    corners = [centre + cmath.rect(width / math.sqrt(3), radians + 2 * math.pi * k / 3) for k in range(3)]
    return [arc(corners[k], corners[(k + 2) % 3], math.pi / 3) for k in range(3)]


def lens(centre, chord, radius, radians):
    half = math.asin(chord / 2 / radius)
    a, b = -chord / 2 + 0j, chord / 2 + 0j
    up = complex(0, radius * math.cos(half))
    return moved([arc(a, up, 2 * half), arc(b, -up, 2 * half)], centre, radians)


def moon(centre, radius, radians):
    a = cmath.rect(radius, 0.7)
    sweep = 2 * math.pi - 1.4
    inner = complex(radius * 0.8, 0)
    back = cmath.phase((a - inner) / (a.conjugate() - inner)) % (2 * math.pi)
    return moved([arc(a, 0j, sweep), arc(a.conjugate(), inner, back - 2 * math.pi)], centre, radians)


def gear(centre, teeth, module, radians):
    """Involute flanks, pressure angle 20 degrees, straight to the root; every flank one cubic through the involute."""
    pitch = module * teeth / 2
    base = pitch * math.cos(math.radians(20))
    tip, root = pitch + module, pitch - 1.25 * module
    start = max(base, root)
    roll = lambda r: math.sqrt(max(0.0, (r / base) ** 2 - 1))
    inv = lambda r: roll(r) - math.atan(roll(r))
    half = math.pi / 2 / teeth + inv(pitch)
    contour = []
    for k in range(teeth):
        middle = radians + 2 * math.pi * k / teeth

        def flank(r, side):
            return cmath.rect(r, middle + side * (half - inv(r)))

        def handle(r, side, length):
            # An involute's tangent points along the base circle's radius through its rolling contact.
            along = cmath.exp(1j * (middle + side * (half - inv(r)) - side * math.atan(roll(r)) * -1))
            return along * length
        low, high = start * 1.0005, tip
        third = (roll(high) ** 2 - roll(low) ** 2) * base / 2 / 3
        for side in (-1, 1):
            a, b = flank(low, side), flank(high, side)
            ta = (flank(low * 1.0001, side) - a)
            tb = (b - flank(high * 0.9999, side))
            cubic = ("C", a, a + ta / abs(ta) * third, b - tb / abs(tb) * third, b)
            if side < 0:
                contour += [("L", cmath.rect(root, cmath.phase(a)), a), cubic]
                contour.append(arc(b, 0j, (cmath.phase(flank(tip, 1) / b))))
            else:
                contour += [("C", b, cubic[3], cubic[2], a), ("L", a, cmath.rect(root, cmath.phase(a)))]
        gap = cmath.rect(root, cmath.phase(flank(low, 1)))
        following = cmath.rect(root, cmath.phase(flank(low, -1)) + 2 * math.pi / teeth)
        contour.append(arc(gap, 0j, cmath.phase(following / gap)))
    return moved(contour, centre)


def blob(random_source, centre, radius, lobes):
    """A smooth closed curve: Catmull-Rom through places round the centre."""
    places = [centre + cmath.rect(radius * random_source.uniform(0.65, 1.2), 2 * math.pi * k / lobes)
              for k in range(lobes)]
    contour = []
    for k in range(lobes):
        before, a, b, after = (places[(k + d) % lobes] for d in (-1, 0, 1, 2))
        contour.append(("C", a, a + (b - before) / 6, b - (after - a) / 6, b))
    return contour


def wedge(centre, size, degrees, radians):
    """A triangle with one corner of so many degrees."""
    half = math.radians(degrees) / 2
    return polygon(turned([centre - size / 2, centre - size / 2 + cmath.rect(size, half),
                           centre - size / 2 + cmath.rect(size, -half)], centre, radians))


def letter(font, char, size, origin):
    """A letter's own outline from a font file, its baseline starting at `origin`."""
    face = TTFont(FONTS / font)
    glyphs = face.getGlyphSet()
    pen = DecomposingRecordingPen(glyphs)
    glyphs[face.getBestCmap()[ord(char)]].draw(pen)
    scale = size / face["head"].unitsPerEm

    def at(p):
        return origin + complex(p[0], -p[1]) * scale
    contours, contour, here, first = [], [], None, None
    for what, args in pen.value:
        if what == "moveTo":
            here = first = at(args[0])
            contour = []
        elif what == "lineTo":
            if abs(at(args[0]) - here) > 1e-9:
                contour.append(("L", here, at(args[0])))
            here = at(args[0])
        elif what == "curveTo":
            contour.append(("C", here, *map(at, args)))
            here = at(args[2])
        else:
            if abs(here - first) > 1e-9:
                contour.append(("L", here, first))
            contours.append(contour)
    return contours


def placed_letter(font, char, height):
    """The letter, so large that it is `height` px high, with 20 px of paper round it."""
    box = sample(letter(font, char, 1000, 0j), 5)
    size = 1000 * height / (box.imag.max() - box.imag.min())
    corner = complex(box.real.min(), box.imag.min()) * size / 1000
    return letter(font, char, size, 20.37 + 20.71j - corner)


def along(segment, t):
    """Places of a segment at t from 0 to 1."""
    if segment[0] == "L":
        return segment[1] + (segment[2] - segment[1]) * t
    if segment[0] == "A":
        return segment[3] + (segment[1] - segment[3]) * np.exp(1j * segment[4] * t)
    a, p, q, b = segment[1:]
    return (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * p + 3 * (1 - t) * t ** 2 * q + t ** 3 * b


def sample(contours, step):
    out = []
    for segment in (s for contour in contours for s in contour):
        rough = along(segment, np.linspace(0, 1, 17))
        count = max(4, math.ceil(np.abs(np.diff(rough)).sum() / step))
        out.append(along(segment, np.arange(count) / count))
    return np.concatenate(out)


def corners(contours, least_degrees=25.0):
    """Where the outline turns by more than this."""
    found = []
    for contour in contours:
        for before, after in zip(contour[-1:] + contour[:-1], contour):
            incoming = np.diff(along(before, np.array([1 - 1e-3, 1.0])))[0]
            outgoing = np.diff(along(after, np.array([0.0, 1e-3])))[0]
            if abs(incoming * outgoing) > 0 and abs(math.degrees(cmath.phase(outgoing / incoming))) > least_degrees:
                found.append(after[1])
    return np.array(found, complex)


def picture(contours, width, height):
    """Grey levels, ink 0 on paper 255, each pixel as dark as much of it is covered (cairo's best anti-aliasing)."""
    surface = cairo.ImageSurface(cairo.FORMAT_A8, width, height)
    context = cairo.Context(surface)
    context.set_antialias(cairo.ANTIALIAS_BEST)
    context.set_tolerance(0.01)
    context.set_fill_rule(cairo.FILL_RULE_EVEN_ODD)
    for contour in contours:
        context.move_to(contour[0][1].real, contour[0][1].imag)
        for s in contour:
            if s[0] == "L":
                context.line_to(s[2].real, s[2].imag)
            elif s[0] == "A":
                begin = cmath.phase(s[1] - s[3])
                draw = context.arc if s[4] > 0 else context.arc_negative
                draw(s[3].real, s[3].imag, abs(s[1] - s[3]), begin, begin + s[4])
            else:
                context.curve_to(*[v for p in s[2:] for v in (p.real, p.imag)])
        context.close_path()
    context.fill()
    ink = np.frombuffer(surface.get_data(), np.uint8).reshape(height, surface.get_stride())[:, :width]
    return 255 - ink


def spoiled(grey, hard=False, blur=0.0, noise=0.0, jpeg=0, light=0.0, seed=1):
    """Black and white without greys, blur (sigma in px), light that falls off to the lower right, noise (grey levels), JPEG
    of a quality."""
    values = np.where(grey >= 128, 255, 0).astype(np.float32) if hard else grey.astype(np.float32)
    if blur:
        values = cv2.GaussianBlur(values, (0, 0), blur)
    if light:
        y, x = np.mgrid[0:grey.shape[0], 0:grey.shape[1]]
        values *= 1 - light * (0.6 * x / grey.shape[1] + 0.4 * y / grey.shape[0])
    values = np.repeat(values[:, :, None], 3, axis=2)
    if noise:
        values += np.random.default_rng(seed).normal(0, noise, values.shape)
    pixels = np.clip(values, 0, 255).astype(np.uint8)
    if jpeg:
        pixels = cv2.imdecode(cv2.imencode(".jpg", pixels, [cv2.IMWRITE_JPEG_QUALITY, jpeg])[1], cv2.IMREAD_COLOR)
    return pixels


def on_paper(contours, margin=20.37 + 20.71j):
    """Moved so that the upper left of its box lies at the margin."""
    box = sample(contours, 2)
    return [moved(contour, margin - complex(box.real.min(), box.imag.min())) for contour in contours]


def figures():
    for name, contours in raw_figures():
        yield name, on_paper(contours)


def raw_figures():
    """Name, contours: geometric figures first, then letters, 80 to 1200 px high, the same every time."""
    rnd = random.Random(20)
    c = 150.3 + 149.6j
    yield "square, turned", [regular(4, c, 125.4, 0.31)]
    yield "square, level", [polygon([50.4 + 60.7j, 240.4 + 60.7j, 240.4 + 230.2j, 50.4 + 230.2j])]
    yield "pentagon", [regular(5, c, 120, 0.2)]
    yield "16-gon", [regular(16, c, 120, 0.1)]
    yield "star of 7", [star(7, c, 120, 55, 0.1)]
    yield "star of 5, small", [star(5, 50.2 + 50.9j, 42, 16, 0.4)]
    yield "ring", [circle(c, 110), circle(c, 70)]
    yield "dots", [circle(complex(40 + 60 * k, 60 + 7 * k), 6 + 4 * k) for k in range(4)]
    yield "plate", [plate(c, 220, 160, 30)]
    yield "plate, turned, with slots", [plate(c, 230, 150, 24, 0.4), plate(c, 90, 16, 8, 0.4)]
    yield "ellipse", [ellipse(c, 120, 70, 0.5)]
    yield "Reuleaux triangle", [reuleaux(c, 200, 0.3)]
    yield "lens", [lens(c, 220, 150, 0.25)]
    yield "moon", [moon(c, 110, 0.9)]
    yield "gear", [gear(c, 17, 13, 0.05), circle(c, 30)]
    for degrees in (15, 40, 100, 165):
        yield f"wedge of {degrees} degrees", [wedge(150.6 + 150.3j, 180, degrees, 0.3 + degrees)]
    for k in range(3):
        yield f"blob {k + 1}", [blob(rnd, 120.5 + 120.5j + 40 * k, 80 + 30 * k, 6 + k)]
    for k in range(24):
        font = rnd.choice(["Karla-Regular.otf", "Karla-Medium.otf", "Karla-Bold.otf"])
        char = rnd.choice("ABCDEFGHJKLMNOPQRSTUVWXYZabcdefghkmnopqrstuvwxyz23456789&")
        height = round(80 * 15 ** rnd.random())
        yield f"{char}, {font[6:-4]}, {height} px", placed_letter(font, char, height)
