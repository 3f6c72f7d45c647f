#include "core/trace/contour/tones.h"

#include "core/for_all.h"
#include "core/picture/light.h"
#include "core/picture/tone.h"
#include "core/trace/contour/blur.h"
#include "core/trace/contour/deblur.h"
#include "core/trace/contour/fine_borders.h"
#include "core/trace/contour/without_jags.h"

namespace rim::trace::contour {
namespace {

/// The share of pixels beside the other side of the threshold whose grey lies well between both levels.
double shareOfGreys(const Tones& tones) {
  constexpr double kBetween = 0.1;
  double least = 0;
  double most = 255;
  cv::minMaxLoc(tones.grey, &least, &most);
  const double margin = kBetween * (most - least);
  int edge = 0;
  int between = 0;
  const auto isDark = [&](int y, int x) { return tones.grey.at<std::uint8_t>(y, x) < tones.tone.threshold; };
  for (int y = 1; y + 1 < tones.grey.rows; ++y) {
    for (int x = 1; x + 1 < tones.grey.cols; ++x) {
      const bool dark = isDark(y, x);
      if (isDark(y - 1, x) == dark && isDark(y + 1, x) == dark && isDark(y, x - 1) == dark && isDark(y, x + 1) == dark)
        continue;
      ++edge;
      const double level = tones.grey.at<std::uint8_t>(y, x);
      if (level > least + margin && level < most - margin) ++between;
    }
  }
  return edge == 0 ? 0 : static_cast<double>(between) / edge;
}

/// Whether a picture has clean greys at its edges: small print without noise, whose borders turn so often that they
/// pass for rough.
bool hasCleanGreys(const Tones& tones, const WantedCoverage& wanted) {
  constexpr double kClean = 0.005;
  constexpr double kLeastGreys = 0.25;
  return wanted.noise < kClean && shareOfGreys(tones) > kLeastGreys;
}

/// The most that borders may turn once a blur is gone, as a share of what they turned under it: where they turn more it
/// was no blur, as an enlarged picture shows its steps and a JPEG its ripples. Of a corner that a strong blur rounds
/// off turningOf() sees less.
double mostTurning(double blurPx) { return 1.4 + 0.2 * std::max(0.0, blurPx - 2); }

/// The tones, without a blur that rounds corners off. Small parts say nothing of it.
Tones withoutBlur(Tones tones, const std::stop_token& stop) {
  constexpr double kLeastPx2 = 16;
  if (static_cast<double>(tones.grey.total()) > kMostDeblurredPixels) return tones;
  const std::vector<Border> borders = followBorders(tones.grey, tones.tone, kLeastPx2, stop);
  const double blur = blurOf(tones.grey, tones.tone, borders);
  if (blur < kBlurredPx) return tones;
  auto sharp = deblurred(tones.grey, tones.tone, blur, stop);
  if (!sharp) return tones;
  const double turning = turningOf(followBorders(*sharp, tones.tone, kLeastPx2, stop));
  if (turning <= mostTurning(blur) * turningOf(borders)) tones.grey = std::move(*sharp);
  return tones;
}

/// By how much levels differ across the border between what is darker than the threshold and the rest: the mean over
/// all places where a row or a column crosses it, of samples that a rise of two pixels lies between. 0 without a
/// border.
double contrastAcross(const cv::Mat& grey, int threshold) {
  double sum = 0;
  std::size_t crossings = 0;
  const auto add = [&](const std::uint8_t* at, std::ptrdiff_t step) {
    if ((at[0] < threshold) == (at[step] < threshold)) return;
    sum += std::abs(at[2 * step] - at[-step]);
    ++crossings;
  };
  for (int y = 1; y + 2 < grey.rows; ++y) {
    const auto* row = grey.ptr<std::uint8_t>(y);
    for (int x = 1; x + 2 < grey.cols; ++x) {
      add(row + x, 1);
      add(row + x, static_cast<std::ptrdiff_t>(grey.step));
    }
  }
  return crossings == 0 ? 0 : sum / static_cast<double>(crossings);
}

/// Whether the borders that show once the light is divided away are borders of ink: not where a picture without paper
/// was taken for uneven light, and what is left of it is noise.
bool showsInk(const Tones& even, const Tones& asItIs) {
  constexpr double kLeastShare = 0.5;
  return contrastAcross(even.grey, even.tone.threshold) >=
         kLeastShare * contrastAcross(asItIs.grey, asItIs.tone.threshold);
}

}  // namespace

Tones tonesFor(const picture::Picture& picture, const TraceSettings& settings, const std::stop_token& stop) {
  constexpr double kUneven = 0.85;
  Tones tones{*picture.grey, {thresholdFor(picture, settings), settings.lightIsInk}};
  // Who sets a threshold wants the outline to follow it; the automatic one wants the true edge.
  if (settings.threshold) tones.level = EdgeLevel::Threshold;
  if (settings.threshold) return tones;
  if (settings.lightIsInk || picture::evenness(picture) >= kUneven) return withoutBlur(std::move(tones), stop);
  // Where it is dark, one threshold for all lies so near the paper that noise moves the border.
  const cv::Mat even = picture::evenGrey(picture);
  const auto threshold = picture::otsuThreshold(picture::histogramOf(even));
  if (!threshold) return tones;
  Tones evened{even, {*threshold, false}};
  return withoutBlur(showsInk(evened, tones) ? std::move(evened) : std::move(tones), stop);
}

void judgeNoise(Tones& tones, double mostNoisePx, const std::vector<Border>& borders) {
  tones.mostNoisePx = mostNoisePx;
  std::vector<Stretch> stretches = stretchesOf(borders);
  forAll(stretches.size(), {}, [&](std::size_t i) {
    stretches[i].points = sharpenBorder(tones.grey, tones.tone, tones.level, stretches[i].points);
  });
  tones.rough = roughnessOf(stretches, borders.size(), mostNoisePx);
}

std::vector<Border> finer(Tones& tones, std::vector<Border> borders, double minAreaPx2, std::stop_token stop) {
  const int fineness = finenessFor(tones.grey.size());
  if (fineness == 1 || borders.empty()) return borders;
  const auto isJagged = [](const Roughness& rough) { return rough.jagged; };
  auto wanted = wantedCoverage(tones.grey, tones.tone);
  // Where edges are smeared over several pixels these hold no more than the picture as it is.
  constexpr double kLeastSteepness = 0.49;
  if (!wanted || wanted->steepness < kLeastSteepness) return borders;
  if (std::any_of(tones.rough.begin(), tones.rough.end(), isJagged)) {
    if (!hasCleanGreys(tones, *wanted)) return borders;
    tones.rough.assign(tones.rough.size(), {});
  }
  const double noise = wanted->noise;
  tones.greys = std::move(wanted);
  // Between noisy samples there is nothing to be followed: that would be taken for more facts than there are.
  constexpr double kNoisy = 0.008;
  if (noise > kNoisy) return borders;
  // Corners of a small thing that are rounded off by pixels are missing from its border, not from its outline.
  constexpr double kRoundedShare = 0.6;
  double px = 0;
  for (const Roughness& rough : tones.rough) px = std::max(px, rough.px);
  tones.fineness = fineness;
  borders = followFineBorders(tones.grey, tones.tone, kRoundedShare * minAreaPx2, fineness, std::move(stop));
  tones.rough.assign(borders.size(), {px, false});
  return borders;
}

SharpBorder measuredBorder(const Tones& tones, std::size_t i, const Border& border, std::span<const Point> keep,
                           double keepPx) {
  if (tones.rough[i].jagged && keep.empty()) {
    Border smooth = withoutJags(border);
    std::vector<bool> measured(smooth.size(), true);
    return {std::move(smooth), std::move(measured)};
  }
  return sharpFineBorder(tones.grey, tones.tone, tones.level, border, tones.fineness, keep, keepPx);
}

}  // namespace rim::trace::contour
