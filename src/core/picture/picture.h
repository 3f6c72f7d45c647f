#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <mutex>
#include <opencv2/core.hpp>
#include <string>
#include <vector>

#include "core/packed_bytes.h"

namespace rim::picture {

/// How many pixels have each of the 256 grey levels.
using Histogram = std::array<std::uint64_t, 256>;

/// A file of several pages, kept so that another of them can be opened.
struct Document {
  std::vector<std::byte> bytes;
  int pages = 1;
};

/// Colours of pixels, CV_8UC3 in OpenCV's channel order. Those of grey levels are made when they are asked for first,
/// by whichever thread. Copying is cheap; the pixels are shared and never changed.
class Colours {
 public:
  Colours() = default;
  /// From colours (CV_8UC3) or grey levels (CV_8UC1).
  explicit Colours(cv::Mat pixels);
  /// CV_8UC3; not of an empty picture.
  const cv::Mat& operator*() const;
  const cv::Mat* operator->() const { return &**this; }
  /// Whether they were made from grey levels.
  bool areGreys() const { return held_ && held_->greys; }

 private:
  struct Held {
    cv::Mat pixels;
    bool greys = false;
    std::once_flag asked;
  };
  std::shared_ptr<Held> held_;
};

/// Tells pictures apart: two of one id have the same pixels. Minted by makePicture().
enum class PictureId : std::uint64_t { None = 0 };

/// A picture as it was opened: upright, 8 bits a channel, transparency laid on white.
/// Copying is cheap; the pixels are shared and never changed. Make one with makePicture().
struct Picture {
  PictureId id = PictureId::None;       ///< None: no picture
  std::shared_ptr<const cv::Mat> grey;  ///< its grey levels, CV_8UC1; null: no picture
  Colours bgr;                          ///< its colours
  Histogram histogram{};                ///< of the grey levels
  double dotsPerInch = 0;               ///< the file's own resolution along a row; 0: it names none
  std::string name;                     ///< the file's name without folders, or "clipboard"

  PackedBytes packed;  ///< the colours as a PNG, for job files

  std::shared_ptr<const Document> document;  ///< null unless the file has several pages
  int page = 1;                              ///< of the document, from 1

  bool empty() const { return !grey; }
  /// Whether both are the same pixels: an id is given to no others.
  friend bool operator==(const Picture& a, const Picture& b) { return a.id == b.id; }
  int width() const { return grey ? grey->cols : 0; }
  int height() const { return grey ? grey->rows : 0; }
};

/// A picture from its pixels, colours (CV_8UC3) or grey levels (CV_8UC1), not empty; the rest is worked out.
Picture makePicture(cv::Mat pixels, double dotsPerInch, std::string name);

/// The same picture, name and resolution with other pixels: colours (CV_8UC3) or grey levels (CV_8UC1).
Picture withPixels(const Picture& picture, const cv::Mat& pixels);

/// The resolution taken for pictures that name none: one CSS pixel is 1/96 inch
/// (W3C CSS Values and Units Level 3, section 6.2).
inline constexpr double kDefaultDotsPerInch = 96;

}  // namespace rim::picture
