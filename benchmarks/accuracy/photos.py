"""How well sheets that were photographed on a table come out.

    photos.py CLI [--count N] [--seed S] [--each] [--keep FOLDER]

A white card with a drawing on it (ring, star, bars, words) lies on wood, planks, cloth, checked cloth, stone, gravel,
brick or among things, is photographed from a slant in uneven light, under a soft or a hard shadow or none, some cards in
part outside the picture, with noise and as JPEG 85. Tables are made by the program and from the photographs that
Debian's package python3-skimage ships (brick, gravel, grass), where it is installed. A card is right when the tool
straightens it and traces as many outlines as were drawn, and the inked area overlaps the drawn one by 0.93 (of cards in
part outside: what is seen of it). Even seeds were used while the tool was made, odd ones were not.
"""
import argparse
import json
import os
import subprocess
import tempfile

import cairo
import cv2
import numpy as np

WIDTH, HEIGHT = 1600, 1200
CARD = (900, 640)
SKIMAGE = "/usr/lib/python3/dist-packages/skimage/data"


def drawing(random):
    """The card, grey, and how many outlines its drawing has."""
    surface = cairo.ImageSurface(cairo.FORMAT_A8, *CARD)
    c = cairo.Context(surface)
    outlines = 0
    w, h = CARD
    c.arc(w * 0.25, h * 0.35, 120, 0, 2 * np.pi)
    c.arc_negative(w * 0.25, h * 0.35, random.uniform(60, 95), 2 * np.pi, 0)
    c.fill()
    outlines += 2
    n = random.integers(4, 9)
    for k in range(2 * n):
        r, way = (130 if k % 2 == 0 else 60), np.pi * k / n
        (c.line_to if k else c.move_to)(w * 0.68 + r * np.cos(way), h * 0.36 + r * np.sin(way))
    c.fill()
    outlines += 1
    for k in range(random.integers(2, 5)):
        c.rectangle(w * 0.12 + 90 * k, h * 0.72, random.uniform(12, 50), 110)
        c.fill()
        outlines += 1
    c.select_font_face("DejaVu Sans", cairo.FONT_SLANT_NORMAL, cairo.FONT_WEIGHT_BOLD)
    c.set_font_size(90)
    c.move_to(w * 0.6, h * 0.86)
    word = random.choice(["KITE", "LOFT", "WIND", "TUNE"])
    c.show_text(word)
    surface.flush()
    ink = np.ndarray((h, surface.get_stride()), np.uint8, surface.get_data())[:, :w]
    holes = sum(letter in "OD" for letter in word)
    return ink.copy(), outlines + len(word) + holes


def noise_field(random, size, sigma):
    field = cv2.GaussianBlur(random.normal(0, 1, size).astype(np.float32), (0, 0), *sigma)
    return field / field.std()


def wood(random, base):
    grain = noise_field(random, (HEIGHT, WIDTH), (60, 1.5)) * 9 + noise_field(random, (HEIGHT, WIDTH), (150, 14)) * 12
    rings = 10 * np.sin(noise_field(random, (HEIGHT, WIDTH), (200, 30)) * 9)
    return np.float32(base)[None, None] + (grain + rings)[..., None] * np.float32([0.7, 0.85, 1.0])


def planks(random, base):
    table = wood(random, base)
    for y in range(random.integers(60, 160), HEIGHT, random.integers(150, 260)):
        table[y : y + 5] *= 0.4
        table[y:] += random.normal(0, 10)
    return table


def cloth(random, base, checked):
    weave = 6 * np.sin(np.arange(WIDTH) * 2.1)[None] * np.sin(np.arange(HEIGHT) * 1.9)[:, None]
    folds = noise_field(random, (HEIGHT, WIDTH), (120, 60)) * 12
    table = np.float32(base)[None, None] + (weave + folds)[..., None]
    if checked:
        step = int(random.integers(60, 140))
        x = (np.arange(WIDTH) // step % 2)[None] ^ (np.arange(HEIGHT) // step % 2)[:, None]
        table = np.where(x[..., None] > 0, table, table * 0.25 + np.float32([180, 175, 170]))
    return table


def stone(random, base):
    field = sum(noise_field(random, (HEIGHT, WIDTH), (s, s)) * k for s, k in ((2, 8), (8, 10), (30, 10)))
    return np.float32(base)[None, None] + field[..., None]


def shipped(random, name):
    picture = cv2.imread(f"{SKIMAGE}/{name}.png")
    if picture is None:
        return stone(random, (120, 125, 130))
    return cv2.resize(picture, (WIDTH, HEIGHT), interpolation=cv2.INTER_CUBIC).astype(np.float32)


def cluttered(random):
    table = wood(random, (90, 130, 175))
    for _ in range(14):
        colour = [int(v) for v in random.integers(20, 240, 3)]
        a = (int(random.integers(0, WIDTH)), int(random.integers(0, HEIGHT)))
        kind = random.integers(3)
        if kind == 0:
            cv2.circle(table, a, int(random.integers(40, 120)), colour, -1, cv2.LINE_AA)
        elif kind == 1:
            b = (a[0] + int(random.integers(-400, 400)), a[1] + int(random.integers(-400, 400)))
            cv2.line(table, a, b, colour, int(random.integers(8, 30)), cv2.LINE_AA)
        else:
            box = cv2.boxPoints((a, (random.uniform(100, 300), random.uniform(60, 200)), random.uniform(0, 180)))
            cv2.fillConvexPoly(table, np.int32(box), colour, cv2.LINE_AA)
    return table


TABLES = {
    "light wood": lambda r: wood(r, (130, 175, 215)),
    "brown wood": lambda r: wood(r, (70, 110, 160)),
    "dark wood": lambda r: wood(r, (35, 50, 75)),
    "planks": lambda r: planks(r, (90, 135, 180)),
    "grey cloth": lambda r: cloth(r, (140, 140, 135), False),
    "checked cloth": lambda r: cloth(r, (60, 60, 190), True),
    "stone": lambda r: stone(r, (150, 155, 160)),
    "brick": lambda r: shipped(r, "brick"),
    "gravel": lambda r: shipped(r, "gravel"),
    "grass": lambda r: shipped(r, "grass"),
    "clutter": cluttered,
}


def corners_of(random, outside):
    tilt, pan, roll = random.uniform(-28, 28), random.uniform(-28, 28), random.uniform(-25, 25)
    a, b, g = np.radians([tilt, pan, roll])
    x = np.array([[1, 0, 0], [0, np.cos(a), -np.sin(a)], [0, np.sin(a), np.cos(a)]])
    y = np.array([[np.cos(b), 0, np.sin(b)], [0, 1, 0], [-np.sin(b), 0, np.cos(b)]])
    z = np.array([[np.cos(g), -np.sin(g), 0], [np.sin(g), np.cos(g), 0], [0, 0, 1]])
    w, h = CARD[0] / CARD[1], 1
    points = (z @ y @ x @ np.array([[-w, -h, 0], [w, -h, 0], [w, h, 0], [-w, h, 0]]).T).T / 2
    far = random.uniform(2.2, 3.2)
    focal = 1.2 * WIDTH
    points[:, :2] += np.array([random.uniform(-90, 90), random.uniform(-60, 60)]) * far / focal

    def seen():
        return points[:, :2] / (points[:, 2:] + far) * focal + [WIDTH / 2, HEIGHT / 2]

    if outside:
        beyond = random.uniform(30, 90)
        for _ in range(20):
            points[:, 0] += (WIDTH + beyond - seen()[:, 0].max()) * far / focal
    return np.float32(seen())


def shadow(random, kind):
    if kind == "none":
        return np.ones((HEIGHT, WIDTH), np.float32)
    mask = np.zeros((HEIGHT, WIDTH), np.float32)
    at, way = np.array([random.uniform(0.2, 0.8) * WIDTH, random.uniform(0.2, 0.8) * HEIGHT]), random.uniform(0, 2 * np.pi)
    yy, xx = np.mgrid[:HEIGHT, :WIDTH]
    mask[(xx - at[0]) * np.cos(way) + (yy - at[1]) * np.sin(way) > 0] = 1
    sigma = 70 if kind == "soft" else 3
    return 1 - random.uniform(0.3, 0.5) * cv2.GaussianBlur(mask, (0, 0), sigma)


def photo(seed):
    random = np.random.default_rng(seed)
    table = list(TABLES)[(seed // 2) % len(TABLES)]
    kind = ["soft", "none", "hard"][(seed // 2) % 3]
    outside = (seed // 2) % 8 == 7
    ink, outlines = drawing(random)
    scene = TABLES[table](random)
    corners = corners_of(random, outside)
    w, h = CARD
    to_photo = cv2.getPerspectiveTransform(np.float32([[0, 0], [w, 0], [w, h], [0, h]]), corners)
    paper = np.float32(random.uniform(205, 240) * np.array([random.uniform(0.9, 1), random.uniform(0.96, 1), 1]))
    # The card's own soft shadow on the table.
    area = cv2.warpPerspective(np.ones((h, w), np.float32), to_photo, (WIDTH, HEIGHT), flags=cv2.INTER_AREA)
    fall = cv2.GaussianBlur(np.roll(area, (8, 10), (0, 1)), (0, 0), 7)
    scene = scene * (1 - 0.35 * fall[..., None])
    drawn = cv2.warpPerspective(ink.astype(np.float32) / 255, to_photo, (WIDTH, HEIGHT))
    card = paper * (1 - 0.85 * drawn[..., None])
    scene = scene * (1 - area[..., None]) + card * area[..., None]
    yy, xx = np.mgrid[:HEIGHT, :WIDTH].astype(np.float32)
    way = random.uniform(0, 2 * np.pi)
    light = 1 - random.uniform(0, 0.35) * (0.5 + (np.cos(way) * (xx / WIDTH - 0.5) + np.sin(way) * (yy / HEIGHT - 0.5)))
    scene = scene * (light * shadow(random, kind))[..., None]
    scene = cv2.GaussianBlur(scene, (0, 0), 0.8) + random.normal(0, 3, scene.shape)
    return {
        "name": f"{seed} {table}, shadow {kind}{', in part outside' if outside else ''}",
        "picture": np.clip(scene, 0, 255).astype(np.uint8),
        "ink": ink,
        "outlines": outlines,
        "outside": outside,
        "to_photo": to_photo,
    }


def judged(case, cli, folder):
    source, target = f"{folder}/photo.jpg", f"{folder}/out.svg"
    cv2.imwrite(source, case["picture"], [cv2.IMWRITE_JPEG_QUALITY, 85])
    run = subprocess.run(
        [cli, "trace", source, "-o", target, "--make-traceable", "--min-area", "40", "--quiet", "--report", "-"],
        capture_output=True, text=True,
    )
    if run.returncode != 0:
        return 0, 0, 0, run.stderr.strip()
    report = json.loads(run.stdout)
    w, h = CARD
    png = f"{folder}/out.png"
    subprocess.run(["rsvg-convert", "-w", str(w), "-h", str(h), "-b", "white", target, "-o", png], check=True)
    got = cv2.imread(png, cv2.IMREAD_GRAYSCALE) < 128
    ink = case["ink"] > 128
    # Cards in part outside: only what is seen counts, and the tool's sheet may end there.
    yy, xx = np.mgrid[:h, :w].astype(np.float32)
    seen = cv2.perspectiveTransform(np.dstack([xx, yy]).reshape(-1, 1, 2), case["to_photo"]).reshape(h, w, 2)
    inside = (seen[..., 0] < WIDTH) & (seen[..., 0] >= 0) & (seen[..., 1] < HEIGHT) & (seen[..., 1] >= 0)
    # A card may come out upside down: which way is up nobody can tell. Of one in part outside the tool knows the seen part
    # only, whose share of the width is tried.
    overlaps = []
    for share in np.linspace(0.7, 1, 61) if case["outside"] else [1]:
        wide = cv2.resize(got.astype(np.uint8), (int(share * w), h), interpolation=cv2.INTER_AREA)
        whole = np.zeros((h, w), bool)
        whole[:, : wide.shape[1]] = wide > 0
        for turned in (whole, whole[::-1, ::-1]):
            overlaps.append((turned & ink & inside).sum() / max(1, ((turned | ink) & inside).sum()))
    return max(overlaps), report["outlines"], report["nodes"], ""


def main():
    parser = argparse.ArgumentParser()
    parser.add_argument("cli")
    parser.add_argument("--count", type=int, default=24)
    parser.add_argument("--seed", type=int, default=1, help="the first one; every second one follows")
    parser.add_argument("--each", action="store_true")
    parser.add_argument("--keep")
    arguments = parser.parse_args()
    right, overlaps = 0, []
    for seed in range(arguments.seed, arguments.seed + 2 * arguments.count, 2):
        case = photo(seed)
        with tempfile.TemporaryDirectory() as folder:
            folder = arguments.keep or folder
            os.makedirs(folder, exist_ok=True)
            overlap, outlines, nodes, words = judged(case, arguments.cli, folder)
            if arguments.keep:
                for name in ("photo.jpg", "out.svg"):
                    if os.path.exists(f"{folder}/{name}"):
                        os.replace(f"{folder}/{name}", f"{folder}/{seed}-{name}")
        good = overlap >= 0.93 and outlines == case["outlines"]
        right += good
        overlaps.append(overlap)
        if arguments.each:
            print(f"  {'right' if good else 'WRONG'}  {case['name']:48} overlap {overlap:.3f}  "
                  f"outlines {outlines} of {case['outlines']}, {nodes} nodes  {words}", flush=True)
    print(f"| right | overlap, median / 10 of 100 |\n| --- | --- |\n"
          f"| {right} of {arguments.count} | {np.median(overlaps):.3f} / {np.percentile(overlaps, 10):.3f} |")


if __name__ == "__main__":
    main()
