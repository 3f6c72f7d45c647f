#pragma once

#include <array>
#include <cstdint>
#include <opencv2/core.hpp>
#include <stop_token>
#include <vector>

#include "core/colour/lab.h"

namespace rim::colour {

/// The label of a pixel whose ink is not decided.
inline constexpr std::uint8_t kUnsure = 255;

/// A pixel taken for a mixture of two inks, as pixels at a border are: each covers a part of it.
struct Mixture {
  std::size_t ink = 0;  ///< the one that covers more
  double off = 0;       ///< how far the pixel's colour is from the mixture, in RGB, 0..442
};

/// A pixel as a mixture of its own ink and up to two others, which may be the same as its own.
struct Blend {
  std::array<std::size_t, 3> inks{};
  /// What each covers; together 1. Of two inks one is beyond 0..1 where the pixel's colour is.
  std::array<double, 3> covered{1, 0, 0};
};

/// Mixtures of every two inks. Sets of inks are bits of a number, so there may be kMostInks of them.
class Mixtures {
 public:
  explicit Mixtures(const std::vector<Rgb>& inks);

  std::uint64_t all() const { return all_; }

  /// The mixture nearest to the pixel (OpenCV's channel order) of one of the inks `beside` it and one of `others`.
  /// Inks that are not beside it must come nearer to be believed.
  Mixture best(const cv::Vec3b& pixel, std::uint64_t beside, std::uint64_t others) const;

  /// The mixture nearest to the pixel of its own ink and one of those `beside` it, or two where one leaves more over
  /// than noise does. Where none but its own is the pixel is pure.
  Blend blendOf(const cv::Vec3b& pixel, std::size_t own, std::uint64_t beside) const;

  /// Whether some mixture of any two inks comes as near to the pixel as `off`.
  bool explain(const cv::Vec3b& pixel, double off) const;

  /// Whether the pixel may be a mixture whose colour has bled farther than its lightness, as in a JPEG with colours at
  /// half the resolution: its luma lies between two inks', and its chroma near a mixture of theirs (ITU-T T.871).
  bool mayHaveBled(const cv::Vec3b& pixel) const;

 private:
  /// How much of the pixel the other ink covers (mostlyLuma()).
  double coverage(const cv::Vec3d& colour, std::size_t one, std::size_t other) const;

  std::vector<cv::Vec3d> inks_;
  std::vector<cv::Vec3d> lumaChroma_;  ///< the inks as Y, Cb, Cr
  std::vector<cv::Vec3d> mostlyLuma_;  ///< and by mostlyLuma()
  std::uint64_t all_ = 0;
};

/// Decides the pixels of `labels` (CV_8UC1) that are kUnsure: as a mixture of inks that sure pixels beside them
/// have, looking a pixel farther each time until some mixture comes near. Throws Cancelled.
void decideMixtures(const cv::Mat& bgr, const Mixtures& mixtures, cv::Mat& labels, const std::stop_token& stop);

}  // namespace rim::colour
