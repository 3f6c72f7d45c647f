#pragma once

#include <cstddef>
#include <filesystem>
#include <span>
#include <stop_token>
#include <string>

#include "core/picture/picture.h"

namespace rim::picture {

/// The most pixels that are opened. A larger picture is refused by its header, before memory is
/// spent: at this limit pixels and grey levels together hold about 480 MB.
inline constexpr std::size_t kMostPixels = 120'000'000;

/// The largest picture file that is read, in bytes.
inline constexpr std::size_t kMostFileBytes = 1'000'000'000;

/// Opens PNG, JPEG, BMP, GIF (first frame), WebP, or a page (from 1) of a TIFF or of a PDF, that at 300 dpi.
/// The picture is turned upright as its EXIF orientation says, CMYK and 16-bit colours are
/// brought to 8-bit sRGB, and transparency is laid on white.
/// Throws InputError with one sentence when the file cannot be read, is no picture of these
/// kinds, is cut short, has no such page, or has more than kMostPixels pixels; Cancelled when a stop is requested.
Picture loadPicture(const std::filesystem::path& file, int page = 1, const std::stop_token& stop = {});

/// The same from the bytes of such a file; `name` is what the picture is called.
Picture loadPicture(std::span<const std::byte> bytes, const std::string& name, int page = 1,
                    const std::stop_token& stop = {});

/// Another page of the document that a picture was opened from. Throws as loadPicture() does.
Picture loadPage(const Picture& picture, int page, const std::stop_token& stop = {});

}  // namespace rim::picture
