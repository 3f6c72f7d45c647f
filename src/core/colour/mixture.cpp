#include "core/colour/mixture.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

#include "core/error.h"

namespace rim {
namespace {

/// A mixture so near to the colour, in RGB, is believed at once.
constexpr double kNear = 22;
/// So much nearer an ink that is not beside the pixel must come.
constexpr double kFromAfar = 30;
constexpr int kFarthestPx = 3;

/// Sets of inks at every pixel, spread over squares ever larger.
class Beside {
 public:
  explicit Beside(const cv::Mat& labels) : columns_(labels.cols), rows_(labels.rows), sets_(labels.total(), 0) {
    for (int y = 0; y < rows_; ++y) {
      const auto* row = labels.ptr<std::uint8_t>(y);
      for (int x = 0; x < columns_; ++x) {
        if (row[x] != kUnsure) at(x, y) = std::uint64_t{1} << row[x];
      }
    }
  }

  std::uint64_t& at(int x, int y) {
    return sets_[static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(x)];
  }

  /// Every pixel gets the sets of its eight neighbours as well.
  void grow() {
    std::vector<std::uint64_t> line(static_cast<std::size_t>(std::max(columns_, rows_)));
    const auto spread = [&line](int count, auto&& set) {
      for (int i = 0; i < count; ++i) {
        const std::uint64_t before = i > 0 ? set(i - 1) : 0;
        const std::uint64_t after = i + 1 < count ? set(i + 1) : 0;
        line[static_cast<std::size_t>(i)] = before | set(i) | after;
      }
      for (int i = 0; i < count; ++i) set(i) = line[static_cast<std::size_t>(i)];
    };
    for (int y = 0; y < rows_; ++y) spread(columns_, [&](int x) -> std::uint64_t& { return at(x, y); });
    for (int x = 0; x < columns_; ++x) spread(rows_, [&](int y) -> std::uint64_t& { return at(x, y); });
  }

 private:
  int columns_;
  int rows_;
  std::vector<std::uint64_t> sets_;
};

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
  }
}

double Mixtures::coverage(const cv::Vec3b& pixel, std::size_t one, std::size_t other) const {
  const cv::Vec3d from = mostlyLuma(inks_[one]);
  const cv::Vec3d way = mostlyLuma(inks_[other]) - from;
  const double square = way.dot(way);
  const cv::Vec3d colour =
      mostlyLuma({static_cast<double>(pixel[0]), static_cast<double>(pixel[1]), static_cast<double>(pixel[2])});
  return square > 0 ? (colour - from).dot(way) / square : 0;
}

Mixture Mixtures::best(const cv::Vec3b& pixel, std::uint64_t beside, std::uint64_t others) const {
  const cv::Vec3d colour(pixel[0], pixel[1], pixel[2]);
  Mixture best{0, std::numeric_limits<double>::infinity()};
  for (std::uint64_t left = beside; left != 0; left &= left - 1) {
    const auto one = static_cast<std::size_t>(std::countr_zero(left));
    for (std::uint64_t more = beside | others; more != 0; more &= more - 1) {
      const auto other = static_cast<std::size_t>(std::countr_zero(more));
      const cv::Vec3d way = inks_[other] - inks_[one];
      const double square = way.dot(way);
      const double covered = square > 0 ? std::clamp((colour - inks_[one]).dot(way) / square, 0.0, 1.0) : 0;
      const bool afar = ((beside >> other) & 1U) == 0;
      const double off = cv::norm(colour - inks_[one] - covered * way) + (afar ? kFromAfar : 0);
      if (off >= best.off) continue;
      best = {coverage(pixel, one, other) > 0.5 ? other : one, off};
    }
  }
  return best;
}

void decideMixtures(const cv::Mat& bgr, const Mixtures& mixtures, cv::Mat& labels, const std::stop_token& stop) {
  Beside beside(labels);
  for (int reach = 1; reach <= kFarthestPx; ++reach) {
    beside.grow();
    const bool last = reach == kFarthestPx;
    for (int y = 0; y < labels.rows; ++y) {
      if (y % 256 == 0 && stop.stop_requested()) throw Cancelled();
      for (int x = 0; x < labels.cols; ++x) {
        auto& label = labels.at<std::uint8_t>(y, x);
        if (label != kUnsure) continue;
        const std::uint64_t near = beside.at(x, y);
        if (near == 0 && !last) continue;
        const Mixture mixture =
            mixtures.best(bgr.at<cv::Vec3b>(y, x), near == 0 ? mixtures.all() : near, last ? mixtures.all() : 0);
        if (mixture.off <= kNear || last) label = static_cast<std::uint8_t>(mixture.ink);
      }
    }
  }
}

}  // namespace rim
