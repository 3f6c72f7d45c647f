#include "core/picture/recipes.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <optional>

#include "core/error.h"
#include "core/picture/assess.h"
#include "core/picture/find_sheet.h"
#include "core/picture/light.h"
#include "core/picture/preview.h"
#include "core/picture/stroke.h"
#include "core/picture/tone.h"

namespace rim::picture {
namespace {

constexpr double kTriedSidePx = 800;

/// The range of levels within a few pixels, as a share of the brightest of them: what a border is worth in a shadow as
/// in the light. CV_32FC1.
cv::Mat localContrast(const cv::Mat& grey) {
  constexpr int kAcross = 7;
  constexpr double kDarkest = 12;
  const cv::Mat around = cv::getStructuringElement(cv::MORPH_RECT, {kAcross, kAcross});
  cv::Mat calm;
  cv::Mat low;
  cv::Mat high;
  cv::medianBlur(grey, calm, 3);
  cv::erode(calm, low, around);
  cv::dilate(calm, high, around);
  low.convertTo(low, CV_32F);
  high.convertTo(high, CV_32F);
  const cv::Mat range = high - low;
  return range / cv::max(high, kDarkest);
}

/// Judges two-tone pictures by the edges of the picture that they come from.
class Judge {
 public:
  explicit Judge(const cv::Mat& grey) : contrast_(localContrast(grey)) {}

  /// 0..1; nothing is worth nothing.
  double scoreOf(const cv::Mat& ink) const {
    const cv::Mat border = borderOf(ink);
    std::vector<float> contrasts = valuesAt(contrast_, border);
    if (contrasts.size() < kLeastBorder) return 0;
    std::sort(contrasts.begin(), contrasts.end());
    const auto at = [&contrasts](double share) {
      return contrasts[static_cast<std::size_t>(share * static_cast<double>(contrasts.size() - 1))];
    };
    constexpr double kFaintest = 0.08;
    constexpr double kTypical = 0.6;
    const double even = at(kFaintest) / std::max(at(kTypical), kLeastContrast);
    return std::min(1.0, even) * std::min(1.0, at(kTypical) / kGoodContrast) * seenOf(border, at(kTypical)) *
           calmOf(ink, contrasts.size());
  }

 private:
  static constexpr std::size_t kLeastBorder = 20;
  static constexpr float kLeastContrast = 0.02F;
  static constexpr double kGoodContrast = 0.3;

  static cv::Mat borderOf(const cv::Mat& ink) {
    cv::Mat shrunk;
    cv::erode(ink, shrunk, cv::getStructuringElement(cv::MORPH_CROSS, {3, 3}), {-1, -1}, 1, cv::BORDER_REPLICATE);
    return ink & ~shrunk;
  }

  static std::vector<float> valuesAt(const cv::Mat& values, const cv::Mat& mask) {
    std::vector<float> found;
    for (int y = 0; y < mask.rows; ++y) {
      for (int x = 0; x < mask.cols; ++x) {
        if (mask.at<std::uint8_t>(y, x) != 0) found.push_back(values.at<float>(y, x));
      }
    }
    return found;
  }

  /// How much of the picture's strong edges lies at the border.
  double seenOf(const cv::Mat& border, double typical) const {
    constexpr double kStrong = 0.75;
    constexpr int kNearPx = 9;
    const cv::Mat strong = contrast_ > kStrong * typical;
    cv::Mat near;
    cv::dilate(border, near, cv::getStructuringElement(cv::MORPH_RECT, {kNearPx, kNearPx}));
    const int all = cv::countNonZero(strong);
    return all == 0 ? 1 : static_cast<double>(cv::countNonZero(strong & near)) / all;
  }

  /// 1 without crumbs of ink or paper; less, the more there are for the length of the border.
  static double calmOf(const cv::Mat& ink, std::size_t borderPx) {
    constexpr int kCrumbPx2 = 12;
    constexpr double kBorderForOne = 15;
    int crumbs = 0;
    for (const cv::Mat& side : {ink, cv::Mat(~ink)}) {
      cv::Mat labels;
      cv::Mat stats;
      cv::Mat middles;
      const int parts = cv::connectedComponentsWithStats(side, labels, stats, middles, 8);
      for (int i = 1; i < parts; ++i) crumbs += stats.at<int>(i, cv::CC_STAT_AREA) < kCrumbPx2 ? 1 : 0;
    }
    return 1 / (1 + kBorderForOne * crumbs / static_cast<double>(borderPx));
  }

  cv::Mat contrast_;
};

Picture smaller(const Picture& picture, double scale) {
  if (scale >= 1) return picture;
  cv::Mat small;
  cv::resize(*picture.bgr, small, {}, scale, scale, cv::INTER_AREA);
  return withPixels(picture, small);
}

/// How light a picture is made even; what is simpler first, with what its simplicity is worth.
struct Lighting {
  std::optional<Preparation> what;
  double simple = 0;
};

std::vector<Lighting> lightings(const Picture& picture) {
  constexpr double kReaches[] = {0.3, 0.15, 0.07, 0.035};
  const double side = std::max(picture.width(), picture.height());
  std::vector<Lighting> ways{{std::nullopt, 0.05}};
  ways.push_back({EvenLight{}, evenness(picture) < kUnevenShare ? 0.06 : 0.02});
  for (const double reach : kReaches) ways.push_back({LiftShadows{std::clamp(reach * side, 3.0, 9999.0)}, 0});
  ways.push_back({LocalThreshold{}, -0.05});
  return ways;
}

/// The best first; of those that come to the same ink only the better one.
std::vector<PictureRecipe> fewUnlike(std::vector<PictureRecipe> recipes) {
  constexpr std::size_t kMost = 4;
  constexpr double kAlike = 0.9;
  std::stable_sort(recipes.begin(), recipes.end(),
                   [](const PictureRecipe& a, const PictureRecipe& b) { return a.score > b.score; });
  std::vector<PictureRecipe> few;
  for (PictureRecipe& recipe : recipes) {
    if (few.size() == kMost) break;
    const bool known = std::any_of(few.begin(), few.end(), [&recipe](const PictureRecipe& other) {
      const int both = cv::countNonZero(recipe.ink & other.ink);
      const int either = cv::countNonZero(recipe.ink | other.ink);
      return both >= kAlike * either;
    });
    if (known) continue;
    few.push_back(std::move(recipe));
  }
  return few;
}

}  // namespace

std::vector<PictureRecipe> recipesFor(const Picture& picture, const std::stop_token& stop) {
  const auto ask = [&stop] {
    if (stop.stop_requested()) throw Cancelled();
  };
  std::vector<PreparationStep> first;
  Picture flat = picture;
  if (const auto sheet = findSheet(picture, stop); sheet && sheet->sure) {
    first.push_back({Straighten{sheet->corners, 0}});
    flat = prepared(flat, first.front().what);
  }
  ask();
  const double scale = std::min(1.0, kTriedSidePx / std::max(flat.width(), flat.height()));
  const Picture small = smaller(flat, scale);
  const Judge judge(*small.grey);
  std::vector<PictureRecipe> recipes;
  for (const Lighting& way : lightings(flat)) {
    ask();
    PictureRecipe recipe{first, 0, small, {}};
    if (way.what) {
      recipe.steps.push_back({*way.what});
      recipe.small = prepared(small, scaledStep(*way.what, scale));
    }
    const auto threshold = otsuThreshold(recipe.small.histogram);
    if (!threshold) continue;
    recipe.ink = *recipe.small.grey < *threshold;
    recipe.score = judge.scoreOf(recipe.ink) + way.simple;
    recipes.push_back(std::move(recipe));
  }
  recipes = fewUnlike(std::move(recipes));
  const double noise = noiseLevel(*flat.grey);
  for (PictureRecipe& recipe : recipes) {
    if (noise > kNoisyLevels) recipe.steps.push_back({Denoise{}});
    // Measured where shadows are lifted already: the edge of one is no thin stroke.
    const double thinnest = strokeWidths(*recipe.small.grey).thinnest / scale;
    if (thinnest > 0 && thinnest < kThinPx) recipe.steps.push_back({Enlarge{2}});
  }
  return recipes;
}

std::vector<PreparationStep> stepsToMakeTraceable(const Picture& picture, const std::stop_token& stop) {
  const std::vector<PictureRecipe> recipes = recipesFor(picture, stop);
  return recipes.empty() ? std::vector<PreparationStep>() : recipes.front().steps;
}

}  // namespace rim::picture
