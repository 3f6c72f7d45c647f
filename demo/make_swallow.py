#!/usr/bin/python3
"""Draws the scanned ink drawing of a swallow of the Puddlewick Kite Loft, an invented workshop.

    demo/make_swallow.py         writes swallow.jpg beside itself

The pen draws CLOSED lines that close and OPEN ones that do not; its ink fails in places (BREAKS). Needs python3-cairo,
python3-numpy and python3-opencv. The same run gives the same picture.
"""
import math
import pathlib

import cairo
import cv2
import numpy as np

HERE = pathlib.Path(__file__).resolve().parent
WIDTH, HEIGHT, PEN = 1500, 1100, 9.5

# Each line: where it starts, then curves (handle, handle, end), y down.
CLOSED = {
    "body": [(470, 470), [(540, 380), (690, 370), (790, 470)], [(880, 560), (960, 640), (1010, 720)],
             [(880, 700), (720, 690), (610, 640)], [(520, 600), (430, 540), (470, 470)]],
    "eye": [(563, 478), [(563, 490), (553, 500), (541, 500)], [(529, 500), (519, 490), (519, 478)],
            [(519, 466), (529, 456), (541, 456)], [(553, 456), (563, 466), (563, 478)]],
}
OPEN = {
    "beak": [(474, 452), [(440, 455), (410, 470), (385, 492)], [(412, 498), (440, 506), (462, 518)]],
    "upper wing": [(690, 400), [(720, 290), (800, 190), (960, 120)], [(930, 230), (905, 330), (850, 520)]],
    "lower wing": [(650, 655), [(610, 750), (570, 820), (470, 900)], [(580, 890), (700, 840), (790, 690)]],
    "upper streamer": [(948, 629), [(1060, 650), (1180, 650), (1290, 600)]],
    "lower streamer": [(905, 697), [(1000, 780), (1090, 860), (1140, 985)]],
    "throat": [(520, 560), [(560, 545), (600, 560), (625, 590)]],
    "first feather": [(775, 330), [(800, 290), (835, 250), (880, 215)]],
    "second feather": [(800, 400), [(825, 360), (850, 325), (885, 290)]],
    "third feather": [(585, 830), [(620, 805), (650, 775), (672, 735)]],
    "first wave": [(130, 1000), [(200, 950), (250, 950), (300, 1000)], [(350, 1040), (400, 1040), (450, 1005)]],
    "second wave": [(900, 1020), [(970, 970), (1020, 970), (1070, 1020)], [(1110, 1055), (1150, 1055), (1190, 1030)]],
}
RING = (750, 560, 510)
# Where the ink fails: middle and radius.
BREAKS = [(1260, 560, 11), (389.4, 920.6, 11), (865, 548, 9), (735, 788, 9), (1150, 641, 9), (215, 964, 7)]


def draw(cr, line):
    cr.move_to(*line[0])
    for a, b, c in line[1:]:
        cr.curve_to(*a, *b, *c)
    cr.stroke()


def main():
    surface = cairo.ImageSurface(cairo.FORMAT_A8, WIDTH, HEIGHT)
    cr = cairo.Context(surface)
    cr.set_line_width(PEN)
    cr.set_line_cap(cairo.LINE_CAP_ROUND)
    cr.set_line_join(cairo.LINE_JOIN_ROUND)
    cr.arc(*RING, 0, 2 * math.pi)
    cr.stroke()
    for line in [*CLOSED.values(), *OPEN.values()]:
        draw(cr, line)
    cr.set_operator(cairo.OPERATOR_CLEAR)
    for place in BREAKS:
        cr.arc(*place, 0, 2 * math.pi)
        cr.fill()
    surface.flush()
    ink = np.ndarray((HEIGHT, surface.get_stride()), np.uint8, surface.get_data())[:, :WIDTH] / 255.0
    random = np.random.default_rng(23)
    # Ink runs a little into the paper, unevenly, and is not equally black.
    wander = cv2.GaussianBlur(random.normal(0, 1, ink.shape), (0, 0), 4)
    wander *= 0.2 / wander.std()
    rows, columns = np.mgrid[0:HEIGHT, 0:WIDTH].astype(np.float32)
    aside = np.roll(wander, 97, 0)
    ink = cv2.remap(ink.astype(np.float32), columns + wander.astype(np.float32), rows + aside.astype(np.float32),
                    cv2.INTER_LINEAR)
    dark = 34 + 14 * cv2.GaussianBlur(random.normal(0, 1, ink.shape), (0, 0), 9) * 9
    paper = 243 + 3 * cv2.GaussianBlur(random.normal(0, 1, ink.shape), (0, 0), 25) * 25
    grey = paper + (dark - paper) * cv2.GaussianBlur(ink, (0, 0), 0.7)
    grey += random.normal(0, 3, ink.shape)
    cv2.imwrite(str(HERE / "swallow.jpg"), np.clip(grey, 0, 255).astype(np.uint8), [cv2.IMWRITE_JPEG_QUALITY, 82])


if __name__ == "__main__":
    main()
