#!/usr/bin/python3
"""Draws the demo files of the Puddlewick Kite Loft, an invented workshop.

    demo/make_demo.py            writes all of them beside itself

Needs python3-cairo, python3-fonttools, python3-pil, python3-numpy and python3-opencv. The same run
gives the same pictures.
"""
import io
import math
import pathlib

import cairo
import cv2
import numpy as np
from fontTools.pens.recordingPen import RecordingPen
from fontTools.ttLib import TTFont
from PIL import Image

HERE = pathlib.Path(__file__).resolve().parent
FONT = TTFont(HERE.parent / "src/app/resources/fonts/Karla-Bold.otf")
GLYPHS = FONT.getGlyphSet()
CODES = FONT.getBestCmap()
UNITS = FONT["head"].unitsPerEm

# The badge's six inks.
PAPER = (1.0, 1.0, 1.0)
NAVY = (0.09, 0.16, 0.33)
CREAM = (0.98, 0.93, 0.80)
SKY = (0.55, 0.78, 0.90)
RED = (0.76, 0.14, 0.16)
YELLOW = (0.96, 0.73, 0.13)


def add_glyph(cr, char, size):
    """The letter's outline, its baseline starting at the origin; returns its advance."""
    name = CODES[ord(char)]
    pen = RecordingPen()
    GLYPHS[name].draw(pen)
    k = size / UNITS
    for step, points in pen.value:
        xy = [v for x, y in points for v in (x * k, -y * k)]
        if step == "moveTo":
            cr.move_to(*xy)
        elif step == "lineTo":
            cr.line_to(*xy)
        elif step == "curveTo":
            cr.curve_to(*xy)
        else:
            cr.close_path()
    return GLYPHS[name].width * k


def text_on_ring(cr, text, centre, radius, size, middle_degrees, spacing, inward=False):
    """Letters along a circle, the middle of the text at the angle, 0 pointing up."""
    advances = [GLYPHS[CODES[ord(c)]].width * size / UNITS + spacing for c in text]
    turn = -1 if inward else 1
    angle = math.radians(middle_degrees) - turn * sum(advances) / 2 / radius
    for char, advance in zip(text, advances):
        half = turn * advance / 2 / radius
        angle += half
        cr.save()
        cr.translate(centre[0] + radius * math.sin(angle), centre[1] - radius * math.cos(angle))
        cr.rotate(angle + (math.pi if inward else 0))
        cr.translate(-(advance - spacing) / 2, 0)
        add_glyph(cr, char, size)
        cr.fill()
        cr.restore()
        angle += half


def polygon(cr, points, colour):
    cr.move_to(*points[0])
    for p in points[1:]:
        cr.line_to(*p)
    cr.close_path()
    cr.set_source_rgb(*colour)
    cr.fill()


def disc(cr, x, y, radius, colour):
    cr.arc(x, y, radius, 0, 2 * math.pi)
    cr.set_source_rgb(*colour)
    cr.fill()


def draw_kite(cr):
    """The kite in four panels with its tail; 320 units wide artwork."""
    top, left, right, low, heart = (158, 84), (117, 134), (203, 122), (171, 214), (161, 129)
    polygon(cr, [top, left, heart], RED)
    polygon(cr, [top, heart, right], YELLOW)
    polygon(cr, [left, low, heart], YELLOW)
    polygon(cr, [right, heart, low], RED)
    cr.set_source_rgb(*NAVY)
    cr.set_line_width(4.5)
    cr.set_line_join(cairo.LINE_JOIN_MITER)
    for line in ([top, left, low, right, top], [left, heart, right], [top, heart, low]):
        cr.move_to(*line[0])
        for p in line[1:]:
            cr.line_to(*p)
        cr.stroke()
    cr.move_to(*low)
    cr.curve_to(176, 232, 150, 228, 146, 240)
    cr.set_line_width(4)
    cr.stroke()
    polygon(cr, [(134, 226), (147, 233), (138, 246)], NAVY)
    polygon(cr, [(162, 230), (147, 236), (158, 249)], NAVY)


def draw_badge(width):
    surface = cairo.ImageSurface(cairo.FORMAT_RGB24, width, width)
    cr = cairo.Context(surface)
    cr.set_antialias(cairo.ANTIALIAS_BEST)
    cr.scale(width / 320, width / 320)
    cr.set_source_rgb(*PAPER)
    cr.paint()
    disc(cr, 160, 160, 150, NAVY)
    disc(cr, 160, 160, 143, CREAM)
    disc(cr, 160, 160, 138, NAVY)
    disc(cr, 160, 160, 96, SKY)
    cr.set_source_rgb(*CREAM)
    text_on_ring(cr, "PUDDLEWICK", (160, 160), 106, 31, 0, 3)
    text_on_ring(cr, "KITE LOFT", (160, 160), 129, 31, 180, 3, inward=True)
    disc(cr, 43, 160, 6, RED)
    disc(cr, 277, 160, 6, RED)
    draw_kite(cr)
    return to_image(surface)


def draw_weather_vane(width):
    """A black silhouette: a fish of the wind over a pole with the quarters of the compass."""
    surface = cairo.ImageSurface(cairo.FORMAT_RGB24, width, width)
    cr = cairo.Context(surface)
    cr.set_antialias(cairo.ANTIALIAS_BEST)
    cr.set_tolerance(0.01)
    cr.scale(width / 240, width / 240)
    cr.set_source_rgb(*PAPER)
    cr.paint()
    cr.set_source_rgb(0, 0, 0)
    cr.set_fill_rule(cairo.FILL_RULE_EVEN_ODD)
    # the fish: body, tail, fins; eye and gill are holes
    cr.move_to(22, 78)
    cr.curve_to(40, 44, 92, 34, 132, 50)
    cr.line_to(140, 34)
    cr.curve_to(150, 44, 154, 52, 156, 60)
    cr.curve_to(172, 66, 184, 68, 192, 66)
    cr.curve_to(200, 58, 210, 46, 224, 42)
    cr.curve_to(214, 62, 214, 90, 226, 110)
    cr.curve_to(210, 106, 200, 96, 192, 86)
    cr.curve_to(178, 88, 160, 96, 148, 102)
    cr.line_to(150, 118)
    cr.line_to(132, 107)
    cr.curve_to(92, 118, 44, 110, 22, 78)
    cr.close_path()
    cr.new_sub_path()
    cr.arc(54, 72, 6, 0, 2 * math.pi)
    cr.move_to(78, 58)
    cr.curve_to(88, 70, 88, 86, 78, 96)
    cr.curve_to(83, 84, 83, 70, 78, 58)
    cr.close_path()
    for x in (104, 122, 140, 158):
        cr.move_to(x, 68)
        cr.curve_to(x + 9, 72, x + 9, 82, x, 86)
        cr.curve_to(x + 4, 80, x + 4, 74, x, 68)
        cr.close_path()
    cr.fill()
    # pole, ball and cross arms
    cr.rectangle(117, 104, 6, 122)
    cr.rectangle(64, 163, 112, 5)
    cr.set_fill_rule(cairo.FILL_RULE_WINDING)
    cr.arc(120, 134, 11, 0, 2 * math.pi)
    cr.fill()
    polygon(cr, [(92, 232), (100, 220), (140, 220), (148, 232)], (0, 0, 0))
    for char, x in (("W", 36), ("E", 182)):
        cr.save()
        cr.translate(x, 176)
        add_glyph(cr, char, 34)
        cr.set_fill_rule(cairo.FILL_RULE_EVEN_ODD)
        cr.fill()
        cr.restore()
    return to_image(surface)


def wobbly(rng, points, steps=14, wobble=0.8):
    """A line by hand through the points."""
    out = []
    for (x0, y0), (x1, y1) in zip(points, points[1:]):
        for k in range(steps):
            t = k / steps
            out.append((x0 + (x1 - x0) * t + rng.normal(0, wobble), y0 + (y1 - y0) * t + rng.normal(0, wobble)))
    return out + [points[-1]]


def stroke_by_hand(cr, rng, points, closed=False):
    line = wobbly(rng, points + points[:1] if closed else points)
    n = len(line)
    cr.move_to(*line[0])
    for i in range(1, n - 1):  # smooth through the middles
        cr.curve_to(*line[i], *line[i], (line[i][0] + line[i + 1][0]) / 2, (line[i][1] + line[i + 1][1]) / 2)
    if closed:
        cr.close_path()
    cr.stroke()


def draw_window_card(width):
    """A card for the workshop's window, drawn by hand with a thick pen; 4 by 3."""
    height = width * 3 // 4
    rng = np.random.default_rng(11)
    surface = cairo.ImageSurface(cairo.FORMAT_RGB24, width, height)
    cr = cairo.Context(surface)
    cr.set_antialias(cairo.ANTIALIAS_BEST)
    cr.scale(width / 800, width / 800)
    cr.set_source_rgb(1, 1, 1)
    cr.paint()
    cr.set_source_rgb(0.08, 0.08, 0.1)
    cr.set_line_width(9)
    cr.set_line_cap(cairo.LINE_CAP_ROUND)
    cr.set_line_join(cairo.LINE_JOIN_ROUND)
    stroke_by_hand(cr, rng, [(60, 60), (740, 60), (740, 540), (60, 540)], closed=True)
    stroke_by_hand(cr, rng, [(150, 120), (235, 200), (170, 330), (100, 210)], closed=True)
    stroke_by_hand(cr, rng, [(170, 360), (150, 400), (190, 440), (160, 490)])
    for x in (560, 640):
        stroke_by_hand(cr, rng, [(x, 430), (x + 25, 400), (x + 50, 430)])
    stroke_by_hand(cr, rng, [(630, 150), (670, 130), (700, 165), (680, 205), (640, 205), (620, 180)], closed=True)
    for text, x, y in (("KITES", 270, 250), ("MENDED HERE", 270, 350)):
        cr.save()
        cr.translate(x, y)
        for char in text:
            cr.save()
            cr.rotate(rng.normal(0, 0.03))
            advance = add_glyph(cr, char, 58)
            cr.fill()
            cr.restore()
            cr.translate(advance + 4, 0)
        cr.restore()
    return to_image(surface)


def photograph(card, width, height):
    """The card slanted on a dark table, the light falling off by half, a little soft and noisy."""
    rng = np.random.default_rng(5)
    table = np.full((height, width, 3), (58, 66, 78), np.uint8)
    sheet = np.asarray(card)[:, :, ::-1]
    h, w = sheet.shape[:2]
    # A pinhole camera of 1.2 picture widths focal length looks at a sheet 4 wide and 3 high.
    focal = 1.2 * width
    tilt, pan, roll = math.radians(28), math.radians(-17), math.radians(5)
    rx = np.array([[1, 0, 0], [0, math.cos(tilt), -math.sin(tilt)], [0, math.sin(tilt), math.cos(tilt)]])
    ry = np.array([[math.cos(pan), 0, math.sin(pan)], [0, 1, 0], [-math.sin(pan), 0, math.cos(pan)]])
    rz = np.array([[math.cos(roll), -math.sin(roll), 0], [math.sin(roll), math.cos(roll), 0], [0, 0, 1]])
    turn = rz @ ry @ rx
    corners = []
    for x, y in ((-2, -1.5), (2, -1.5), (2, 1.5), (-2, 1.5)):
        p = turn @ np.array([x, y, 0]) + np.array([0.05, -0.05, 6.2])
        corners.append((focal * p[0] / p[2] + width / 2, focal * p[1] / p[2] + height / 2))
    to = np.array(corners, np.float32) - 0.5
    src = np.array([(0, 0), (w, 0), (w, h), (0, h)], np.float32) - 0.5
    homography = cv2.getPerspectiveTransform(src, to)
    photo = cv2.warpPerspective(sheet, homography, (width, height), table, cv2.INTER_AREA, cv2.BORDER_TRANSPARENT)
    photo = cv2.GaussianBlur(photo, (0, 0), 0.8).astype(np.float32)
    yy, xx = np.mgrid[0:height, 0:width]
    photo *= (1.0 - 0.5 * (0.7 * xx / width + 0.3 * yy / height))[:, :, None] * np.array([0.9, 0.97, 1.0])
    photo += rng.normal(0, 3, photo.shape)
    return Image.fromarray(np.clip(photo, 0, 255).astype(np.uint8)[:, :, ::-1].copy())


def to_image(surface):
    stride, height = surface.get_stride(), surface.get_height()
    return Image.frombuffer("RGB", (surface.get_width(), height), bytes(surface.get_data()), "raw", "BGRX", stride, 1)


def main():
    badge = draw_badge(320)
    badge.save(HERE / "badge.png")
    # As a web page would have kept it: strongly pressed, colours at half the resolution.
    spoilt = io.BytesIO()
    badge.save(spoilt, "JPEG", quality=55, subsampling=2)
    (HERE / "badge.jpg").write_bytes(spoilt.getvalue())
    card = draw_window_card(1200)
    card.convert("L").save(HERE / "window-card.png", optimize=True)
    photograph(card, 1600, 1200).save(HERE / "window-card-photo.jpg", "JPEG", quality=88)
    draw_weather_vane(2400).convert("L").save(HERE / "weather-vane.png", optimize=True)


if __name__ == "__main__":
    main()
