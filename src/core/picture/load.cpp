#include "core/picture/load.h"

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fstream>
#include <opencv2/imgproc.hpp>
#include <string_view>
#include <vector>
#include <vips/vips8>

#include "core/error.h"
#include "core/geometry/units.h"
#include "core/picture/vips_library.h"

namespace rim::picture {
namespace {

constexpr double kPdfDotsPerInch = 300;

bool startsWith(std::span<const std::byte> bytes, std::string_view magic, std::size_t at = 0) {
  return bytes.size() >= at + magic.size() && std::memcmp(bytes.data() + at, magic.data(), magic.size()) == 0;
}

bool isPdf(std::span<const std::byte> bytes) { return startsWith(bytes, "%PDF-"); }
bool isBmp(std::span<const std::byte> bytes) { return startsWith(bytes, "BM"); }

bool isTiff(std::span<const std::byte> bytes) {
  using namespace std::string_view_literals;
  return startsWith(bytes, "II*\0"sv) || startsWith(bytes, "MM\0*"sv) || startsWith(bytes, "II+\0"sv) ||
         startsWith(bytes, "MM\0+"sv);
}

/// A GIF's frames are no pages.
bool hasPages(std::span<const std::byte> bytes) { return isPdf(bytes) || isTiff(bytes); }

/// Only the kinds that the contract names; and PDF; the library alone would also take video and more.
bool isKnownKind(std::span<const std::byte> bytes) {
  using namespace std::string_view_literals;
  return startsWith(bytes, "\x89PNG"sv) || startsWith(bytes, "\xFF\xD8\xFF"sv) || isBmp(bytes) ||
         startsWith(bytes, "GIF8"sv) || isTiff(bytes) ||
         (startsWith(bytes, "RIFF"sv) && startsWith(bytes, "WEBP"sv, 8)) || isPdf(bytes);
}

std::string firstLine(const char* text) {
  const std::string_view all(text);
  return std::string(all.substr(0, all.find('\n')));
}

/// Throws InputError unless the document has this page.
void expectPage(int page, int pages) {
  if (page >= 1 && page <= pages) return;
  throw InputError("there is no page " + std::to_string(page) + ": the file has " +
                   (pages == 1 ? "one page." : std::to_string(pages) + " pages."));
}

int pagesOf(std::span<const std::byte> bytes) {
  if (!hasPages(bytes)) return 1;
  const auto first = vips::VImage::new_from_buffer(bytes.data(), bytes.size(), "");
  return first.get_typeof("n-pages") != 0 ? std::max(1, first.get_int("n-pages")) : 1;
}

vips::VImage openHeader(std::span<const std::byte> bytes, int page) {
  vips::VOption* options =
      vips::VImage::option()->set("fail_on", VIPS_FAIL_ON_TRUNCATED)->set("access", VIPS_ACCESS_SEQUENTIAL);
  // A page has no pixels of its own; this is what a good scanner gives.
  if (isPdf(bytes)) options->set("dpi", kPdfDotsPerInch);
  if (hasPages(bytes)) options->set("page", page - 1);
  const auto image = vips::VImage::new_from_buffer(bytes.data(), bytes.size(), "", options);
  const auto pixels = static_cast<std::size_t>(image.width()) * static_cast<std::size_t>(image.height());
  if (pixels > kMostPixels) {
    throw InputError("the picture has " + std::to_string(image.width()) + " x " + std::to_string(image.height()) +
                     " pixels, more than the " + std::to_string(kMostPixels / 1'000'000) +
                     " megapixels that can be opened. Make it smaller first.");
  }
  return image;
}

/// Whether EXIF says that the picture does not stand upright.
bool isTurned(const vips::VImage& image) {
  return image.get_typeof(VIPS_META_ORIENTATION) != 0 && image.get_int(VIPS_META_ORIENTATION) != 1;
}

/// One band of grey or three of colour, 8 bits each. 16-bit grey and 16-bit colour keep their range; anything else goes
/// through the colour tables.
vips::VImage to8Bits(vips::VImage image) {
  // Rows come one after the other, as files hold them: a picture that is to be turned must be there as a whole.
  if (isTurned(image)) image = image.copy_memory().autorot();
  if (image.bands() == 1 && image.format() == VIPS_FORMAT_UCHAR && image.interpretation() == VIPS_INTERPRETATION_B_W)
    return image;
  if (image.has_alpha()) {
    const double white = image.format() == VIPS_FORMAT_USHORT ? 65535.0 : 255.0;
    const auto bands = static_cast<std::size_t>(image.bands() - 1);
    image = image.flatten(vips::VImage::option()->set("background", std::vector<double>(bands, white)));
  }
  return image.colourspace(VIPS_INTERPRETATION_sRGB).cast(VIPS_FORMAT_UCHAR);
}

/// Lets the stop end what the library works out, as it tells how far it is.
void stoppedBy(const vips::VImage& image, const std::stop_token& stop) {
  if (!stop.stop_possible()) return;
  const auto told = +[](VipsImage* itself, VipsProgress*, const std::stop_token* wanted) {
    if (wanted->stop_requested()) vips_image_set_kill(itself, TRUE);
  };
  vips_image_set_progress(image.get_image(), TRUE);
  g_signal_connect(image.get_image(), "eval", G_CALLBACK(told), const_cast<std::stop_token*>(&stop));
}

/// CV_8UC3 in OpenCV's channel order, or CV_8UC1.
cv::Mat toMat(const vips::VImage& image, const std::stop_token& stop) {
  stoppedBy(image, stop);
  const bool colour = image.bands() == 3;
  cv::Mat pixels(image.height(), image.width(), colour ? CV_8UC3 : CV_8UC1);
  image.write(vips::VImage::new_from_memory(pixels.data, pixels.total() * pixels.elemSize(), image.width(),
                                            image.height(), image.bands(), VIPS_FORMAT_UCHAR));
  if (!colour) return pixels;
  cv::Mat bgr;
  cv::cvtColor(pixels, bgr, cv::COLOR_RGB2BGR);
  return bgr;
}

/// Whether the file itself names a resolution. The library fills in one of its own when it does not.
bool namesResolution(const vips::VImage& image, std::span<const std::byte> bytes) {
  using namespace std::string_view_literals;
  if (startsWith(bytes, "\xFF\xD8"sv)) {
    // JFIF (ITU-T T.871, 10.1): a unit of 0 says that the densities only give the pixels' shape.
    constexpr std::size_t kJfif = 6;
    constexpr std::size_t kUnit = 13;
    if (startsWith(bytes, "JFIF\0"sv, kJfif) && bytes.size() > kUnit) return bytes[kUnit] != std::byte{0};
    constexpr double kFilledInDpi = 72;
    return std::abs(image.xres() * kMmPerInch - kFilledInDpi) > 0.01;
  }
  constexpr double kFilledIn[] = {1.0, 2.834};  // px per mm
  return std::find(std::begin(kFilledIn), std::end(kFilledIn), image.xres()) == std::end(kFilledIn) ||
         image.get_typeof("resolution-unit") != 0;
}

/// Resolution along a row, where the file names one that makes sense.
double dotsPerInchOf(const vips::VImage& image, std::span<const std::byte> bytes) {
  if (!namesResolution(image, bytes)) return 0;
  const double dpi = image.xres() * kMmPerInch;
  return dpi >= 1 && dpi <= 100'000 ? dpi : 0;
}

std::vector<std::byte> readFile(const std::filesystem::path& file) {
  std::error_code failed;
  const auto status = std::filesystem::status(file, failed);
  if (status.type() == std::filesystem::file_type::not_found) throw InputError("there is no such file.");
  if (std::filesystem::is_directory(status)) throw InputError("this is a folder, not a picture.");
  if (!failed && !std::filesystem::is_regular_file(status)) throw InputError("this is not a regular file.");
  std::ifstream in(file, std::ios::binary | std::ios::ate);
  if (!in) {
    throw InputError(errno == EACCES ? "you have no permission to read this file."
                                     : std::string("the file cannot be opened: ") + std::strerror(errno) + ".");
  }
  const auto size = static_cast<std::size_t>(in.tellg());
  if (size == 0) throw InputError("the file is empty (0 bytes).");
  if (size > kMostFileBytes) {
    throw InputError("the file is larger than " + std::to_string(kMostFileBytes / 1'000'000) +
                     " MB, the most that is read.");
  }
  std::vector<std::byte> bytes(size);
  in.seekg(0);
  in.read(reinterpret_cast<char*>(bytes.data()), static_cast<std::streamsize>(size));
  if (!in) throw InputError("the file could not be read to its end.");
  return bytes;
}

}  // namespace

Picture loadPicture(std::span<const std::byte> bytes, const std::string& name, int page, const std::stop_token& stop) {
  startVips();
  if (!isKnownKind(bytes)) {
    throw InputError("this is not a picture that can be read. Use PNG, JPEG, BMP, GIF, TIFF, WebP or PDF.");
  }
  if (isPdf(bytes) || isBmp(bytes)) loadVipsModules();
  try {
    const int pages = pagesOf(bytes);
    expectPage(page, pages);
    const vips::VImage header = openHeader(bytes, page);
    Picture picture = makePicture(toMat(to8Bits(header), stop), dotsPerInchOf(header, bytes), name);
    picture.page = page;
    if (pages > 1) picture.document = std::make_shared<Document>(Document{{bytes.begin(), bytes.end()}, pages});
    return picture;
  } catch (const vips::VError& error) {
    const std::string reason = firstLine(error.what());
    vips_error_clear();
    if (stop.stop_requested()) throw Cancelled();
    throw InputError("the picture is damaged or cut short (" + reason + "). Open another copy of it.");
  }
}

Picture loadPicture(const std::filesystem::path& file, int page, const std::stop_token& stop) {
  const std::vector<std::byte> bytes = readFile(file);
  if (stop.stop_requested()) throw Cancelled();
  return loadPicture(bytes, file.filename().string(), page, stop);
}

Picture loadPage(const Picture& picture, int page, const std::stop_token& stop) {
  if (!picture.document) {
    expectPage(page, 1);
    return picture;
  }
  Picture other = loadPicture(picture.document->bytes, picture.name, page, stop);
  other.document = picture.document;
  return other;
}

}  // namespace rim::picture
