#!/usr/bin/python3
"""Makes the small pictures, good and bad, that the tests open. Needs python3-pil and python3-numpy."""
import pathlib
import struct
import zlib

import numpy as np
from PIL import Image, ImageDraw

HERE = pathlib.Path(__file__).resolve().parent / "pictures"


def mark(mode="RGB", size=(40, 24)):
    """Black in the upper left quarter, else white: its turning shows."""
    image = Image.new("RGB", size, "white")
    ImageDraw.Draw(image).rectangle((0, 0, size[0] // 2 - 1, size[1] // 2 - 1), fill="black")
    return image.convert(mode)


def png_header_only(width, height):
    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
    header = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", header) + chunk(b"IDAT", zlib.compress(b"\0" * 100)) + chunk(b"IEND", b"")


def main():
    HERE.mkdir(exist_ok=True)
    plain = mark()
    plain.save(HERE / "plain.png", dpi=(300, 300))
    plain.save(HERE / "plain.jpg", quality=95)
    plain.save(HERE / "resolution-72.jpg", quality=95, dpi=(72, 72))
    plain.save(HERE / "plain.bmp")
    plain.save(HERE / "plain.gif")
    plain.save(HERE / "plain.webp", lossless=True)
    plain.save(HERE / "resolution-150.tif", dpi=(150, 150))
    mark("1").save(HERE / "one-bit.png")
    levels = np.full((24, 40), 65535, np.uint16)
    levels[:12, :20] = 0
    levels[12:, 20:] = 128 * 257
    Image.fromarray(levels).save(HERE / "sixteen-bit.png")
    mark("CMYK").save(HERE / "cmyk.jpg", quality=95)
    exif = Image.Exif()
    exif[0x0112] = 6  # the camera was turned: row 0 is the right side
    plain.save(HERE / "turned-by-exif.jpg", quality=95, exif=exif)
    clear = Image.new("RGBA", (40, 24), (0, 0, 0, 0))
    ImageDraw.Draw(clear).rectangle((0, 0, 19, 11), fill=(0, 0, 0, 255))
    clear.save(HERE / "transparent.png")
    clear.quantize(4).save(HERE / "palette-with-alpha.png")
    Image.new("RGBA", (9, 7), (0, 0, 0, 0)).save(HERE / "fully-transparent.png")
    frames = [mark("L"), Image.new("L", (40, 24), 0)]
    frames[0].save(HERE / "two-frames.gif", save_all=True, append_images=frames[1:])
    Image.new("RGB", (1, 1), "black").save(HERE / "one-pixel.png")
    Image.new("RGB", (30, 20), "white").save(HERE / "all-white.png")
    plain.resize((400, 240), Image.NEAREST).save(HERE / "page.pdf", resolution=100)
    second = Image.new("RGB", (200, 100), "white")
    ImageDraw.Draw(second).rectangle((50, 25, 149, 74), fill="black")
    first = plain.resize((400, 240), Image.NEAREST)
    for name in ("two-pages.pdf", "two-pages.tif"):
        first.save(HERE / name, save_all=True, append_images=[second], resolution=100)
    (HERE / "truncated.png").write_bytes((HERE / "plain.png").read_bytes()[:-40])
    noise = Image.fromarray(np.random.default_rng(1).integers(0, 255, (64, 64, 3), np.uint8))
    noise.save(HERE / "truncated.jpg", quality=90)
    data = (HERE / "truncated.jpg").read_bytes()
    (HERE / "truncated.jpg").write_bytes(data[: len(data) // 2])
    (HERE / "no-bytes.png").write_bytes(b"")
    (HERE / "not-a-picture.png").write_bytes(b"This is a letter and no picture.\n")
    (HERE / "claims-60000.png").write_bytes(png_header_only(60000, 60000))


if __name__ == "__main__":
    main()
