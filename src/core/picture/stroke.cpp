#include "core/picture/stroke.h"

#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/tone.h"

namespace rim {
namespace {

constexpr double kWhite = 255;

/// How much of every pixel is ink, 0..1, CV_32FC1; empty when there is one tone only.
cv::Mat coverageOf(const cv::Mat& grey) {
  const auto threshold = otsuThreshold(histogramOf(grey));
  if (!threshold) return {};
  const cv::Mat ink = grey < *threshold;
  const double dark = cv::mean(grey, ink)[0];
  const double light = cv::mean(grey, ~ink)[0];
  cv::Mat coverage;
  grey.convertTo(coverage, CV_32FC1, -1 / (light - dark), light / (light - dark));
  return cv::min(cv::max(coverage, 0.0), 1.0);
}

/// The distance from every pixel that is not in `mask` to the nearest one that is, and that one's
/// coverage less a half.
struct Nearest {
  cv::Mat distance;
  cv::Mat offset;
};

Nearest nearestIn(const cv::Mat& mask, const cv::Mat& coverage) {
  Nearest nearest;
  cv::Mat labels;
  cv::distanceTransform(~mask, nearest.distance, labels, cv::DIST_L2, cv::DIST_MASK_5, cv::DIST_LABEL_PIXEL);
  double count = 0;
  cv::minMaxLoc(labels, nullptr, &count);
  std::vector<float> offsets(static_cast<std::size_t>(count) + 1, 0);
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x) {
      if (mask.at<std::uint8_t>(y, x) == 0) continue;
      offsets[static_cast<std::size_t>(labels.at<int>(y, x))] = coverage.at<float>(y, x) - 0.5F;
    }
  }
  nearest.offset.create(mask.size(), CV_32FC1);
  cv::parallel_for_(cv::Range(0, mask.rows), [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      const int* label = labels.ptr<int>(y);
      float* offset = nearest.offset.ptr<float>(y);
      for (int x = 0; x < mask.cols; ++x) offset[x] = offsets[static_cast<std::size_t>(label[x])];
    }
  });
  return nearest;
}

cv::Mat depthOrThrow(const Picture& picture) {
  cv::Mat depth = depthInInk(*picture.grey);
  if (depth.empty()) throw InputError("the picture has one tone only: there is no ink in it.");
  return depth;
}

/// The picture with all connected parts of `mask` below the area painted over with `colour`, the
/// edge pixels round them too.
Picture paintedOver(const Picture& picture, const cv::Mat& mask, int connectivity, double areaPx2,
                    const cv::Scalar& colour) {
  cv::Mat labels;
  cv::Mat facts;
  cv::Mat centres;
  const int count = cv::connectedComponentsWithStats(mask, labels, facts, centres, connectivity, CV_32S);
  cv::Mat small = cv::Mat::zeros(mask.size(), CV_8UC1);
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x) {
      const int label = labels.at<int>(y, x);
      if (label > 0 && label < count && facts.at<int>(label, cv::CC_STAT_AREA) < areaPx2)
        small.at<std::uint8_t>(y, x) = 255;
    }
  }
  cv::Mat grown;
  cv::dilate(small, grown, cv::getStructuringElement(cv::MORPH_RECT, {5, 5}));
  // Not what belongs to larger parts, nor the edge pixels of those.
  cv::Mat keep;
  cv::dilate(mask & ~small, keep, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  cv::Mat bgr = picture.bgr->clone();
  bgr.setTo(colour, grown & (~keep | small));
  return withPixels(picture, bgr);
}

/// The connected parts of a mask with a larger area. Closing also rounds inner corners out, by less
/// than the square of its radius; a bridged gap is larger.
cv::Mat partsLargerThan(const cv::Mat& mask, double areaPx2) {
  cv::Mat labels;
  cv::Mat facts;
  cv::Mat centres;
  cv::connectedComponentsWithStats(mask, labels, facts, centres, 8, CV_32S);
  cv::Mat large = cv::Mat::zeros(mask.size(), CV_8UC1);
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x) {
      const int label = labels.at<int>(y, x);
      if (label > 0 && facts.at<int>(label, cv::CC_STAT_AREA) > areaPx2) large.at<std::uint8_t>(y, x) = 255;
    }
  }
  return large;
}

}  // namespace

cv::Mat depthInInk(const cv::Mat& grey) {
  const cv::Mat coverage = coverageOf(grey);
  if (coverage.empty()) return {};
  const cv::Mat ink = coverage >= 0.5;
  const Nearest toInk = nearestIn(ink, coverage);
  const Nearest toPaper = nearestIn(~ink, coverage);
  cv::Mat depth(grey.size(), CV_32FC1);
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      const bool inside = ink.at<std::uint8_t>(y, x) != 0;
      const Nearest& other = inside ? toPaper : toInk;
      const float far = other.distance.at<float>(y, x);
      depth.at<float>(y, x) = (inside ? far : -far) + other.offset.at<float>(y, x);
    }
  }
  return depth;
}

cv::Mat inkAtDepth(const cv::Mat& depth, double px) {
  cv::Mat grey;
  // Half a pixel beyond the border on either side a pixel is all ink or all paper.
  depth.convertTo(grey, CV_8UC1, -kWhite, kWhite * (0.5 - px));
  return grey;
}

Picture thickened(const Picture& picture, double px) {
  return withPixels(picture, inkAtDepth(depthOrThrow(picture), px / 2));
}

Picture withGapsFilled(const Picture& picture, double px) {
  const cv::Mat grown = inkAtDepth(depthOrThrow(picture), px / 2);
  const cv::Mat grownDepth = depthInInk(grown);
  if (grownDepth.empty()) return picture;
  const cv::Mat closed = inkAtDepth(grownDepth, -px / 2);
  // Only what is paper now and ink after closing is taken over: true borders keep their places.
  const auto threshold = otsuThreshold(picture.histogram);
  const cv::Mat bridges = partsLargerThan((closed < kWhite / 2) & (*picture.grey >= *threshold), px * px / 4);
  cv::Mat around;
  cv::dilate(bridges, around, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  cv::Mat grey = picture.grey->clone();
  cv::Mat(cv::min(grey, closed)).copyTo(grey, around);
  return withPixels(picture, grey);
}

Picture withPinholesFilled(const Picture& picture, double areaPx2) {
  const cv::Mat depth = depthOrThrow(picture);
  const cv::Scalar ink = cv::mean(*picture.bgr, depth > 1);
  return paintedOver(picture, depth <= 0, 4, areaPx2, ink);
}

Picture withoutSpecks(const Picture& picture, double areaPx2) {
  const cv::Mat depth = depthOrThrow(picture);
  const cv::Scalar paper = cv::mean(*picture.bgr, depth < -1);
  return paintedOver(picture, depth > 0, 8, areaPx2, paper);
}

StrokeWidths strokeWidths(const cv::Mat& grey) {
  // Small pictures are enlarged: a middle line between two pixels would else be measured too thin.
  constexpr double kSmallPixels = 1.5e6;
  const double scale = static_cast<double>(grey.total()) < kSmallPixels ? 3 : 1;
  cv::Mat large = grey;
  if (scale > 1) cv::resize(grey, large, {}, scale, scale, cv::INTER_CUBIC);
  const cv::Mat depth = depthInInk(large);
  if (depth.empty()) return {};
  cv::Mat highest;
  cv::dilate(depth, highest, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  std::vector<float> widths;
  for (int y = 1; y + 1 < depth.rows; ++y) {
    for (int x = 1; x + 1 < depth.cols; ++x) {
      const float d = depth.at<float>(y, x);
      // A ridge: no neighbour is deeper. Shallow ridges are the corners of pixels.
      if (d > 0.4F * static_cast<float>(scale) && d >= highest.at<float>(y, x)) widths.push_back(2 * d);
    }
  }
  if (widths.empty()) return {};
  std::sort(widths.begin(), widths.end());
  const auto at = [&widths, scale](double share) {
    return widths[static_cast<std::size_t>(share * static_cast<double>(widths.size() - 1))] / scale;
  };
  return {at(0.5), at(0.05)};
}

}  // namespace rim
