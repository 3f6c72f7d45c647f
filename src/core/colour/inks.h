#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <opencv2/core.hpp>
#include <optional>
#include <string>
#include <vector>

#include "core/colour/lab.h"

namespace rim::colour {

/// What becomes of an ink.
enum class InkRole {
  Keep,        ///< material: it is traced
  Background,  ///< see through
  Dissolve,    ///< its area goes to the inks around it
};

struct Ink {
  Rgb colour;
  std::string name;  ///< in the user's words (UTF-8); empty: named by its colour
  InkRole role = InkRole::Keep;

  friend bool operator==(const Ink&, const Ink&) = default;
};

/// "#b3202a": as CSS writes a colour.
std::string hexOf(Rgb colour);

/// A colour from "#b3202a", "b3202a" or "#b22". Throws InputError.
Rgb colourFromHex(const std::string& text);

/// The ink's name, or its colour when it has none.
std::string nameOf(const Ink& ink);

/// The most inks that a picture may have.
inline constexpr int kMostInks = 64;

/// A label map: which ink each pixel has. Copying is cheap; the labels are shared and never changed.
struct InkMap {
  std::vector<Ink> inks;                  ///< by number; one that was merged away has no pixels
  std::shared_ptr<const cv::Mat> labels;  ///< CV_8UC1, the ink's number
};

/// What an ink is on the picture.
struct InkShare {
  std::size_t pixels = 0;
  double share = 0;       ///< of the picture's area, 0..1
  std::size_t parts = 0;  ///< areas that hang together
};

/// Of every ink, by number. Parts that touch only across a corner are two.
std::vector<InkShare> sharesOf(const InkMap& map);

/// Two inks that look nearly alike.
struct LikeInks {
  std::size_t one = 0;
  std::size_t other = 0;  ///< the smaller one
  double difference = 0;  ///< CIEDE2000
};

/// Pairs of inks with pixels that differ by less than `difference`, the likest first. `shares` are the inks'.
std::vector<LikeInks> likeInks(const std::vector<Ink>& inks, const std::vector<InkShare>& shares,
                               double difference = 12);

/// The ink that surrounds the picture: the one with most pixels on its edge.
std::size_t surroundingInk(const cv::Mat& labels);

}  // namespace rim::colour
