#include "core/colour/mixture.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

#include "core/error.h"

namespace rim::colour {
namespace {

/// A mixture so near to the colour, in RGB, is believed at once.
constexpr double kNear = 22;
/// So much nearer an ink that is not beside the pixel must come.
constexpr double kFromAfar = 30;
constexpr int kFarthestPx = 3;

/// How far a colour is from the mixtures of two inks: `from` the one, whose other is `way` farther.
double offFromMixture(const cv::Vec3d& from, const cv::Vec3d& way) {
  const double square = way.dot(way);
  const double covered = square > 0 ? std::clamp(from.dot(way) / square, 0.0, 1.0) : 0;
  return cv::norm(from - covered * way);
}

/// How far a colour is from the mixtures of three inks, and what each covers: `from` the one, whose others are `a` and
/// `b` farther. Infinitely far where the nearest is none.
std::pair<double, std::array<double, 3>> ofThree(const cv::Vec3d& from, const cv::Vec3d& a, const cv::Vec3d& b) {
  const double aa = a.dot(a);
  const double ab = a.dot(b);
  const double bb = b.dot(b);
  const double det = aa * bb - ab * ab;
  constexpr double kOnOneLine = 0.02;
  if (det < kOnOneLine * aa * bb) return {std::numeric_limits<double>::infinity(), {}};
  const double s = (from.dot(a) * bb - from.dot(b) * ab) / det;
  const double t = (from.dot(b) * aa - from.dot(a) * ab) / det;
  if (s < 0 || t < 0 || s + t > 1) return {std::numeric_limits<double>::infinity(), {}};
  return {cv::norm(from - s * a - t * b), {1 - s - t, s, t}};
}

/// The inks of the sure pixels in a row, every `step` columns from `left` to `right`.
std::uint64_t inksIn(const cv::Mat& sure, int row, int left, int right, int step) {
  if (row < 0 || row >= sure.rows) return 0;
  std::uint64_t inks = 0;
  const auto* labels = sure.ptr<std::uint8_t>(row);
  for (int x = left; x <= right; x += step) {
    if (x >= 0 && x < sure.cols && labels[x] != kUnsure) inks |= std::uint64_t{1} << labels[x];
  }
  return inks;
}

/// The inks of the sure pixels on the square round a pixel that is `reach` px away.
std::uint64_t inksRound(const cv::Mat& sure, int x, int y, int reach) {
  std::uint64_t inks =
      inksIn(sure, y - reach, x - reach, x + reach, 1) | inksIn(sure, y + reach, x - reach, x + reach, 1);
  for (int row = y - reach + 1; row < y + reach; ++row) inks |= inksIn(sure, row, x - reach, x + reach, 2 * reach);
  return inks;
}

/// The ink of a pixel that is not sure, from the sure ones beside it, looking farther each time.
std::uint8_t decided(const cv::Vec3b& pixel, const Mixtures& mixtures, const cv::Mat& sure, int x, int y) {
  std::uint64_t near = 0;
  for (int reach = 1; reach < kFarthestPx; ++reach) {
    near |= inksRound(sure, x, y, reach);
    if (near == 0) continue;
    const Mixture mixture = mixtures.best(pixel, near, 0);
    if (mixture.off <= kNear) return static_cast<std::uint8_t>(mixture.ink);
  }
  near |= inksRound(sure, x, y, kFarthestPx);
  return static_cast<std::uint8_t>(mixtures.best(pixel, near == 0 ? mixtures.all() : near, mixtures.all()).ink);
}

}  // namespace

bool Mixtures::mayHaveBled(const cv::Vec3b& pixel) const {
  constexpr double kLumaOff = 16;
  constexpr double kChromaOff = 22;
  const cv::Vec3d own =
      lumaChromaOf({static_cast<double>(pixel[0]), static_cast<double>(pixel[1]), static_cast<double>(pixel[2])});
  for (std::size_t one = 0; one < lumaChroma_.size(); ++one) {
    for (std::size_t other = one + 1; other < lumaChroma_.size(); ++other) {
      const cv::Vec3d& a = lumaChroma_[one];
      const cv::Vec3d& b = lumaChroma_[other];
      if (own[0] < std::min(a[0], b[0]) - kLumaOff || own[0] > std::max(a[0], b[0]) + kLumaOff) continue;
      const cv::Vec2d way(b[1] - a[1], b[2] - a[2]);
      const cv::Vec2d off(own[1] - a[1], own[2] - a[2]);
      const double square = way.dot(way);
      const double t = square > 0 ? std::clamp(off.dot(way) / square, 0.0, 1.0) : 0;
      if (cv::norm(off - t * way) <= kChromaOff) return true;
    }
  }
  return false;
}

Mixtures::Mixtures(const std::vector<Rgb>& inks) {
  for (const Rgb ink : inks) {
    all_ |= std::uint64_t{1} << inks_.size();
    inks_.emplace_back(ink.b, ink.g, ink.r);
    lumaChroma_.push_back(lumaChromaOf(inks_.back()));
    mostlyLuma_.push_back(mostlyLuma(inks_.back()));
  }
}

double Mixtures::coverage(const cv::Vec3d& colour, std::size_t one, std::size_t other) const {
  const cv::Vec3d from = mostlyLuma_[one];
  const cv::Vec3d way = mostlyLuma_[other] - from;
  const double square = way.dot(way);
  return square > 0 ? (mostlyLuma(colour) - from).dot(way) / square : 0;
}

Mixture Mixtures::best(const cv::Vec3b& pixel, std::uint64_t beside, std::uint64_t others) const {
  const cv::Vec3d colour(pixel[0], pixel[1], pixel[2]);
  std::size_t bestOne = 0;
  std::size_t bestOther = 0;
  double least = std::numeric_limits<double>::infinity();
  for (std::uint64_t left = beside; left != 0; left &= left - 1) {
    const auto one = static_cast<std::size_t>(std::countr_zero(left));
    const cv::Vec3d from = colour - inks_[one];
    // A mixture of two inks beside the pixel is the same either way round.
    for (std::uint64_t more = left | (others & ~beside); more != 0; more &= more - 1) {
      const auto other = static_cast<std::size_t>(std::countr_zero(more));
      const bool afar = ((beside >> other) & 1U) == 0;
      const double off = offFromMixture(from, inks_[other] - inks_[one]) + (afar ? kFromAfar : 0);
      if (off >= least) continue;
      least = off;
      bestOne = one;
      bestOther = other;
    }
  }
  return {coverage(colour, bestOne, bestOther) > 0.5 ? bestOther : bestOne, least};
}

Blend Mixtures::blendOf(const cv::Vec3b& pixel, std::size_t own, std::uint64_t beside) const {
  /// What a mixture of two inks leaves over, in RGB, without being one of three.
  constexpr double kOfTwo = 8;
  const cv::Vec3d colour(pixel[0], pixel[1], pixel[2]);
  const cv::Vec3d from = colour - inks_[own];
  Blend blend{{own, own, own}, {1, 0, 0}};
  double least = std::numeric_limits<double>::infinity();
  const std::uint64_t others = beside & ~(std::uint64_t{1} << own);
  for (std::uint64_t left = others; left != 0; left &= left - 1) {
    const auto other = static_cast<std::size_t>(std::countr_zero(left));
    const double off = offFromMixture(from, inks_[other] - inks_[own]);
    if (off >= least) continue;
    least = off;
    blend.inks[1] = other;
  }
  if (others == 0) return blend;
  blend.covered[1] = coverage(colour, own, blend.inks[1]);
  blend.covered[0] = 1 - blend.covered[1];
  if (least <= kOfTwo) return blend;
  for (std::uint64_t one = others; one != 0; one &= one - 1) {
    for (std::uint64_t two = one & (one - 1); two != 0; two &= two - 1) {
      const std::array<std::size_t, 3> three{own, static_cast<std::size_t>(std::countr_zero(one)),
                                             static_cast<std::size_t>(std::countr_zero(two))};
      const auto [off, covered] = ofThree(from, inks_[three[1]] - inks_[own], inks_[three[2]] - inks_[own]);
      if (off >= least) continue;
      least = off;
      blend = {three, covered};
    }
  }
  return blend;
}

bool Mixtures::explain(const cv::Vec3b& pixel, double off) const {
  const cv::Vec3d colour(pixel[0], pixel[1], pixel[2]);
  for (std::size_t one = 0; one < inks_.size(); ++one) {
    const cv::Vec3d from = colour - inks_[one];
    for (std::size_t other = one; other < inks_.size(); ++other) {
      if (offFromMixture(from, inks_[other] - inks_[one]) <= off) return true;
    }
  }
  return false;
}

void decideMixtures(const cv::Mat& bgr, const Mixtures& mixtures, cv::Mat& labels, const std::stop_token& stop) {
  const cv::Mat sure = labels.clone();
  cv::parallel_for_({0, labels.rows}, [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end && !stop.stop_requested(); ++y) {
      for (int x = 0; x < labels.cols; ++x) {
        auto& label = labels.at<std::uint8_t>(y, x);
        if (label == kUnsure) label = decided(bgr.at<cv::Vec3b>(y, x), mixtures, sure, x, y);
      }
    }
  });
  if (stop.stop_requested()) throw Cancelled();
}

}  // namespace rim::colour
