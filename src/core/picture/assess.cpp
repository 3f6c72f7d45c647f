#include "core/picture/assess.h"

#include <cmath>
#include <cstdio>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "core/median.h"
#include "core/picture/find_sheet.h"
#include "core/picture/light.h"
#include "core/picture/tone.h"

namespace rim::picture {
namespace {

constexpr double kSmallLettersPx = 10;
constexpr double kGoodLettersPx = 16;
constexpr double kFaintLevels = 50;
constexpr double kSoftPx = 4;

std::string rounded(double value) {
  char text[32];
  std::snprintf(text, sizeof text, "%.1f", value);
  return text;
}

/// "A picture of 640 x 480 px": this one, `times` as large, in rounded numbers.
std::string sizeEnough(const Picture& picture, double times) {
  constexpr double kStepPx = 10;
  const auto enough = [times](int px) {
    return std::to_string(static_cast<long>(std::ceil(px * times / kStepPx) * kStepPx));
  };
  return "A picture of " + enough(picture.width()) + " x " + enough(picture.height()) + " px";
}

/// The median of contrast by steepest slope over the border pixels.
double edgeWidthOf(const cv::Mat& grey, int threshold, double contrast) {
  cv::Mat dx;
  cv::Mat dy;
  cv::Mat slope;
  constexpr double kSobelScale = 1.0 / 8;
  cv::Sobel(grey, dx, CV_32F, 1, 0, 3, kSobelScale);
  cv::Sobel(grey, dy, CV_32F, 0, 1, 3, kSobelScale);
  cv::magnitude(dx, dy, slope);
  cv::Mat ink = grey < threshold;
  cv::Mat grown;
  cv::dilate(ink, grown, cv::getStructuringElement(cv::MORPH_CROSS, {3, 3}));
  const cv::Mat rim = grown & ~ink;
  std::vector<float> slopes;
  for (int y = 0; y < rim.rows; ++y) {
    for (int x = 0; x < rim.cols; ++x) {
      if (rim.at<std::uint8_t>(y, x) != 0) slopes.push_back(slope.at<float>(y, x));
    }
  }
  if (slopes.empty()) return 0;
  const auto middle = medianOf(std::move(slopes));
  // The operator itself spreads a perfect edge over two pixels.
  return middle > 0 ? std::max(1.0, contrast / middle - 1) : 0;
}

/// Whether pixels that are clearly neither are a tenth as many, at least, as the steps from ink to paper along rows.
bool greysAtEdges(const Picture& picture, int threshold, double inkLevel, double paperLevel) {
  constexpr double kClear = 0.15;
  constexpr double kLeastShare = 0.1;
  const double clear = kClear * (paperLevel - inkLevel);
  double greys = 0;
  for (int level = 0; level < 256; ++level) {
    if (level > inkLevel + clear && level < paperLevel - clear)
      greys += static_cast<double>(picture.histogram[static_cast<std::size_t>(level)]);
  }
  const cv::Mat ink = *picture.grey < threshold;
  const cv::Rect left(0, 0, ink.cols - 1, ink.rows);
  const int steps = ink.cols > 1 ? cv::countNonZero(ink(left) != ink(left + cv::Point(1, 0))) : 0;
  return steps == 0 || greys > kLeastShare * steps;
}

double noiseOfTile(const cv::Mat& grey) {
  const cv::Mat mask = (cv::Mat_<float>(3, 3) << 1, -2, 1, -2, 4, -2, 1, -2, 1);
  cv::Mat left;
  cv::filter2D(grey, left, CV_32F, mask);
  cv::Mat dx;
  cv::Mat dy;
  cv::Sobel(grey, dx, CV_32F, 1, 0, 3, 0.125);
  cv::Sobel(grey, dy, CV_32F, 0, 1, 3, 0.125);
  cv::Mat slope = cv::abs(dx) + cv::abs(dy);
  // The steepest tenth of the picture is edges.
  std::vector<float> sorted(slope.begin<float>(), slope.end<float>());
  const auto at = sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() * 9 / 10);
  std::nth_element(sorted.begin(), at, sorted.end());
  // Clipped white or black shows no noise and must not count as calm.
  const cv::Mat counted = (slope <= *at) & (grey > 2) & (grey < 253);
  if (cv::countNonZero(counted) < 100) return 0;
  return std::sqrt(std::numbers::pi / 2) / 6 * cv::mean(cv::abs(left), counted)[0];
}

}  // namespace

double noiseLevel(const cv::Mat& grey) {
  if (grey.cols < 5 || grey.rows < 5) return 0;
  constexpr int kTile = 512;
  constexpr int kTiles = 3;
  if (grey.cols <= kTiles * kTile || grey.rows <= kTiles * kTile) return noiseOfTile(grey);
  // Of a large picture nine tiles say it as well; their median does not mind one full of texture.
  std::vector<double> levels;
  for (int i = 0; i < kTiles * kTiles; ++i) {
    const int x = (grey.cols - kTile) * (i % kTiles) / (kTiles - 1);
    const int y = (grey.rows - kTile) * (i / kTiles) / (kTiles - 1);
    levels.push_back(noiseOfTile(grey(cv::Rect(x, y, kTile, kTile))));
  }
  std::sort(levels.begin(), levels.end());
  return levels[levels.size() / 2];
}

Assessment assess(const Picture& picture) {
  Assessment a;
  constexpr double kMostPixelsMeasured = 4e6;
  const double pixels = picture.width() * static_cast<double>(picture.height());
  const double scale = std::max(1.0, std::sqrt(pixels / kMostPixelsMeasured));
  cv::Mat grey = *picture.grey;
  if (scale > 1) cv::resize(*picture.grey, grey, {}, 1 / scale, 1 / scale, cv::INTER_AREA);
  a.noise = noiseLevel(*picture.grey);
  const auto threshold = otsuThreshold(histogramOf(grey));
  if (!threshold) return a;
  a.hasInk = true;
  const cv::Mat ink = grey < *threshold;
  const double inkLevel = cv::mean(grey, ink)[0];
  const double paperLevel = cv::mean(grey, ~ink)[0];
  a.contrast = paperLevel - inkLevel;
  a.hasGreys = greysAtEdges(picture, *threshold, inkLevel, paperLevel);
  a.edgeWidth = edgeWidthOf(grey, *threshold, a.contrast) * scale;
  a.evenness = evenness(picture);
  if (scale <= 1) a.smallLetters = smallLettering(ink, kSmallLettersPx);
  const StrokeWidths widths = strokeWidths(grey);
  a.strokes = {widths.median * scale, widths.thinnest * scale};
  return a;
}

std::vector<Remark> remarksOn(const Picture& picture, const Assessment& a) {
  std::vector<Remark> remarks;
  if (!a.hasInk) return {{"The picture has one tone only: there is nothing to trace.", {}}};
  if (const auto sheet = findSheet(picture)) {
    if (sheet->sure) {
      remarks.push_back(
          {"The drawing lies on a sheet that does not fill the picture. Straighten brings the sheet to a rectangle.",
           {{Straighten{}}}});
    } else {
      remarks.push_back(
          {"There may be a sheet here, but its sides are faint. Straighten: drag the corners where they "
           "belong.",
           {}});
    }
  }
  if (a.evenness < kUnevenShare) {
    remarks.push_back({"The light falls off to " + std::to_string(std::lround(a.evenness * 100)) +
                           " % across the paper. Even out the light.",
                       {{EvenLight{}}}});
  }
  if (a.strokes.thinnest > 0 && a.strokes.thinnest < kThinPx) {
    remarks.push_back({"The thinnest strokes are " + rounded(a.strokes.thinnest) + " px wide and may break. " +
                           sizeEnough(picture, kThinPx / a.strokes.thinnest) +
                           " would be enough; or draw them darker, or use Thicken.",
                       {{Enlarge{2}}}});
  }
  if (a.smallLetters) {
    const double height = a.smallLetters->heightPx;
    remarks.push_back({"Letters " + std::to_string(std::lround(height)) +
                           " px high are too small to come out as letters. " +
                           sizeEnough(picture, kGoodLettersPx / height) +
                           " would be enough. Else leave the words out and set them again, in a " +
                           (a.smallLetters->bold ? "bold" : "plain") + " face.",
                       {}});
  }
  if (a.contrast < kFaintLevels) {
    remarks.push_back({"Ink and paper differ by only " + std::to_string(static_cast<int>(a.contrast)) +
                           " of 255 levels. Draw darker, or light the paper better.",
                       {}});
  }
  if (a.edgeWidth > kSoftPx) {
    remarks.push_back({"Edges are " + rounded(a.edgeWidth) +
                           " px wide: the picture is out of focus or was enlarged. Corners will be rounder than drawn.",
                       {}});
  }
  if (!a.hasGreys) {
    remarks.push_back(
        {"There are no greys at its edges: slanted and round ones are known to half a pixel only. Scan in "
         "grey if you can.",
         {}});
  }
  if (a.noise > kNoisyLevels) {
    remarks.push_back({"The picture is noisy (" + rounded(a.noise) + " levels). Denoise calms it.", {{Denoise{}}}});
  }
  return remarks;
}

}  // namespace rim::picture
