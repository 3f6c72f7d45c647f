#include "core/colour/reduce.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/colour/calm.h"
#include "core/colour/connected_components.h"
#include "core/colour/mixture.h"
#include "core/colour/palette.h"
#include "core/colour/strips.h"
#include "core/error.h"
#include "core/median.h"

namespace rim::colour {
namespace {

/// Neighbouring pixels of an even area differ by no more than this in L*a*b*, and noise comes on top.
constexpr double kEvenStep = 6;
constexpr double kNoisySteps = 2;
/// Steps that are mostly above this are noise, which is calmed first.
constexpr double kCalmStep = 5;
constexpr double kSpeckPx2 = 4;
/// A colour that no mixture of the palette comes as near to, in RGB, is one more ink.
constexpr double kUnexplained = 48;
constexpr int kLeastUnexplained = 12;
/// And it differs from all inks by this (CIEDE2000): thin lines come out darker or paler in a JPEG.
constexpr double kThinApart = 20;

/// How far the colours of each pixel's neighbourhood reach.
cv::Mat stepsOf(const cv::Mat& lab) {
  cv::Mat steps(lab.size(), CV_32F);
  forStrips(lab.rows, [&](const cv::Range& rows) {
    cv::Mat gradient;
    std::vector<cv::Mat> channels;
    cv::morphologyEx(lab.rowRange(rows), gradient, cv::MORPH_GRADIENT, cv::Mat::ones(3, 3, CV_8U));
    cv::split(gradient, channels);
    cv::Mat own = steps.rowRange(rows);
    cv::max(channels[0], channels[1], own);
    cv::max(own, channels[2], own);
  });
  return steps;
}

/// Some of the values, evenly spread: enough of any picture for a median.
std::vector<float> someOf(const cv::Mat& values) {
  std::vector<float> some;
  const int stride = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(values.total()) / 250'000)));
  for (int y = 0; y < values.rows; y += stride) {
    for (int x = 0; x < values.cols; x += stride) some.push_back(values.at<float>(y, x));
  }
  return some;
}

/// The usual step of pixels that waver at all: much of a JPEG is pure paper, and says nothing of its noise elsewhere.
double waverOf(const cv::Mat& steps) {
  constexpr float kMostWaver = 16;
  constexpr double kMostStep = 4;
  std::vector<float> some = someOf(steps);
  std::erase_if(some, [](float step) { return step <= 0 || step >= kMostWaver; });
  return some.empty() ? 0 : std::min(kMostStep, static_cast<double>(medianOf(std::move(some))));
}

/// Flat artwork: its even pixels are just like their neighbours, so that a small area is as sure as a large one.
bool isFlat(const cv::Mat& steps, const cv::Mat& even) {
  constexpr double kMostlyFlat = 0.95;
  return cv::countNonZero(steps == 0) >= kMostlyFlat * cv::countNonZero(even);
}

/// Pixels of squares of 2 x 2 with just one colour: in flat artwork these are no mixtures, as level edges smear over
/// one row, and strips hardly wider than that have them.
cv::Mat likeOneBeside(const cv::Mat& lab) {
  cv::Mat marked(lab.size(), CV_8U, cv::Scalar(0));
  for (int y = 0; y + 1 < lab.rows; ++y) {
    const auto* row = lab.ptr<cv::Vec3f>(y);
    const auto* next = lab.ptr<cv::Vec3f>(y + 1);
    for (int x = 0; x + 1 < lab.cols; ++x) {
      if (row[x] != row[x + 1] || row[x] != next[x] || row[x] != next[x + 1]) continue;
      for (const int down : {0, 1}) {
        auto* own = marked.ptr<std::uint8_t>(y + down) + x;
        own[0] = own[1] = 255;
      }
    }
  }
  return marked;
}

/// Noise smoothed out, edges kept.
cv::Mat calmed(const cv::Mat& bgr, double step) {
  cv::Mat calm = bgr;
  // A neighbourhood of nine reaches about three deviations of L*a*b*, each 2.5 of RGB.
  const double deviation = step / 3 * 2.5;
  for (int round = 0; round < 2; ++round) {
    cv::Mat next;
    cv::bilateralFilter(calm, next, 7, 3 * deviation, 2);
    calm = next;
  }
  return calm;
}

/// Pixels that are none of the colours and no mixture of two of them.
cv::Mat unexplained(const cv::Mat& bgr, const std::vector<Rgb>& inks) {
  const Mixtures mixtures(inks);
  cv::Mat marked(bgr.size(), CV_8U, cv::Scalar(0));
  cv::parallel_for_({0, bgr.rows}, [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      cv::Vec3b last;
      bool lastOff = false;
      for (int x = 0; x < bgr.cols; ++x) {
        const cv::Vec3b pixel = bgr.at<cv::Vec3b>(y, x);
        if (x == 0 || pixel != last) lastOff = !mixtures.explain(pixel, kUnexplained) && !mixtures.mayHaveBled(pixel);
        last = pixel;
        if (lastOff) marked.at<std::uint8_t>(y, x) = 255;
      }
    }
  });
  return marked;
}

std::vector<Rgb> rgbOf(const std::vector<Lab>& colours) {
  std::vector<Rgb> inks;
  for (const Lab colour : colours) inks.push_back(rgbFrom(colour));
  return inks;
}

/// Whether at least `enough` of the marked pixels differ from a colour by less than `within` (CIEDE2000).
bool hasNear(const cv::Mat& lab, const cv::Mat& marked, Lab colour, double within, int enough) {
  int count = 0;
  for (int y = 0; y < lab.rows; ++y) {
    const auto* colours = lab.ptr<cv::Vec3f>(y);
    const auto* counted = marked.ptr<std::uint8_t>(y);
    for (int x = 0; x < lab.cols; ++x) {
      if (counted[x] == 0 || differenceOf(labOf(colours[x]), colour) >= within) continue;
      if (++count >= enough) return true;
    }
  }
  return false;
}

/// The commonest colour of the marked pixels that is like none of the palette's; nothing when it has too few of them.
/// What a JPEG bleeds comes in many colours, which differ from the inks' by little but their chroma: there the
/// commonest of all counts, and what is much lighter or darker than all inks.
std::optional<Lab> newColour(const cv::Mat& lab, const cv::Mat& marked, const std::vector<Lab>& palette, bool flat) {
  constexpr double kOneColour = 12;
  constexpr int kLeastInJpeg = 40;
  constexpr double kNotBled = 15;
  const std::vector<Lab> found = paletteOf(lab, marked, std::nullopt);
  for (const Lab colour : found) {
    const auto like = [colour](Lab ink) { return differenceOf(colour, ink) < kThinApart; };
    const auto asLight = [colour](Lab ink) { return std::abs(colour.l - ink.l) < kNotBled; };
    if (std::any_of(palette.begin(), palette.end(), like)) continue;
    if (!flat && colour == found.front()) return colour;
    if (!flat && std::any_of(palette.begin(), palette.end(), asLight)) continue;
    if (hasNear(lab, marked, colour, kOneColour, flat ? kLeastUnexplained : kLeastInJpeg)) return colour;
  }
  return std::nullopt;
}

/// Strokes too thin for an even pixel have colours that no mixture explains.
void addThinInks(std::vector<Lab>& palette, const cv::Mat& bgr, const cv::Mat& lab, std::optional<int> count,
                 bool flat) {
  constexpr std::size_t kMostAdded = 6;
  for (std::size_t added = 0; added < kMostAdded; ++added) {
    if (palette.size() >= static_cast<std::size_t>(count.value_or(kMostInks))) return;
    const cv::Mat marked = unexplained(bgr, rgbOf(palette));
    if (cv::countNonZero(marked) < kLeastUnexplained) return;
    const auto colour = newColour(lab, marked, palette, flat);
    if (!colour) return;
    palette.push_back(*colour);
  }
}

/// The inks of even pixels; kUnsure elsewhere.
cv::Mat sureLabels(const cv::Mat& lab, const cv::Mat& even, const std::vector<Lab>& palette) {
  cv::Mat labels(lab.size(), CV_8U, cv::Scalar(kUnsure));
  const auto nearestTo = [&palette](Lab colour) {
    const auto nearest = std::min_element(palette.begin(), palette.end(), [colour](Lab one, Lab other) {
      return squareBetween(colour, one) < squareBetween(colour, other);
    });
    return static_cast<std::uint8_t>(nearest - palette.begin());
  };
  cv::parallel_for_({0, lab.rows}, [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      const auto* colours = lab.ptr<cv::Vec3f>(y);
      const auto* isEven = even.ptr<std::uint8_t>(y);
      auto* row = labels.ptr<std::uint8_t>(y);
      for (int x = 0; x < lab.cols; ++x) {
        if (isEven[x] == 0) continue;
        // Neighbours often have the very same colour.
        const bool same = x > 0 && isEven[x - 1] != 0 && colours[x] == colours[x - 1];
        row[x] = same ? row[x - 1] : nearestTo(labOf(colours[x]));
      }
    }
  });
  return labels;
}

/// The label of the pixel nearest to a marked one that is not marked, if there is one not much more than 2 px away.
std::optional<std::uint8_t> nearestLabel(const cv::Mat& labels, const cv::Mat& marked, cv::Point at) {
  constexpr std::array<std::pair<int, int>, 20> kNearestFirst{
      {{0, -1}, {-1, 0}, {1, 0},   {0, 1},  {-1, -1}, {1, -1}, {-1, 1}, {1, 1}, {0, -2}, {-2, 0},
       {2, 0},  {0, 2},  {-1, -2}, {1, -2}, {-2, -1}, {2, -1}, {-2, 1}, {2, 1}, {-1, 2}, {1, 2}}};
  const cv::Rect picture({}, labels.size());
  for (const auto& [right, down] : kNearestFirst) {
    const cv::Point pixel(at.x + right, at.y + down);
    if (picture.contains(pixel) && marked.at<std::uint8_t>(pixel) == 0) return labels.at<std::uint8_t>(pixel);
  }
  return std::nullopt;
}

/// Gives the `far` ones of the marked pixels the labels of the nearest that are not marked.
void fillFromAfar(const cv::Mat& labels, const cv::Mat& marked, const cv::Mat& far, cv::Mat& filled) {
  cv::Mat distances;
  cv::Mat nearest;
  cv::distanceTransform(marked, distances, nearest, cv::DIST_L2, cv::DIST_MASK_5, cv::DIST_LABEL_PIXEL);
  std::vector<std::uint8_t> labelOf(labels.total() + 1);
  for (int y = 0; y < labels.rows; ++y) {
    for (int x = 0; x < labels.cols; ++x) {
      if (marked.at<std::uint8_t>(y, x) == 0)
        labelOf[static_cast<std::size_t>(nearest.at<int>(y, x))] = labels.at<std::uint8_t>(y, x);
    }
  }
  for (int y = 0; y < labels.rows; ++y) {
    for (int x = 0; x < labels.cols; ++x) {
      if (far.at<std::uint8_t>(y, x) != 0)
        filled.at<std::uint8_t>(y, x) = labelOf[static_cast<std::size_t>(nearest.at<int>(y, x))];
    }
  }
}

/// Parts of a few pixels that touch two other inks are crumbs of the border between these, as a JPEG makes them at
/// corners: what is drawn so small lies within one.
cv::Mat withoutCrumbs(const cv::Mat& labels, const std::stop_token& stop) {
  constexpr std::size_t kMostPx = 12;
  cv::Mat crumbs(labels.size(), CV_8U, cv::Scalar(0));
  for (const std::vector<LabelRun>& runs : runsOfSmallComponents(connectedComponents(labels, stop), kMostPx)) {
    const auto sides = commonSides(runs, labels);
    if (std::count_if(sides.begin(), sides.end(), [](double count) { return count > 0; }) < 2) continue;
    for (const LabelRun& run : runs) paint(run, 255, crumbs);
  }
  return filledFromAround(labels, crumbs);
}

}  // namespace

cv::Mat filledFromAround(const cv::Mat& labels, const cv::Mat& marked) {
  const int count = cv::countNonZero(marked);
  if (count == 0 || count == static_cast<int>(labels.total())) return labels;
  cv::Mat filled = labels.clone();
  cv::Mat far(labels.size(), CV_8U, cv::Scalar(0));
  bool anyFar = false;
  for (int y = 0; y < labels.rows; ++y) {
    for (int x = 0; x < labels.cols; ++x) {
      if (marked.at<std::uint8_t>(y, x) == 0) continue;
      const auto near = nearestLabel(labels, marked, {x, y});
      if (near) filled.at<std::uint8_t>(y, x) = *near;
      far.at<std::uint8_t>(y, x) = near ? 0 : 255;
      anyFar = anyFar || !near;
    }
  }
  if (anyFar) fillFromAfar(labels, marked, far, filled);
  return filled;
}

cv::Mat withoutSpecks(const cv::Mat& labels, double areaPx2, const std::stop_token& stop) {
  const ConnectedComponents all = connectedComponents(labels, stop);
  cv::Mat specks(labels.size(), CV_8U, cv::Scalar(0));
  for (const LabelRun& run : all.runs) {
    if (static_cast<double>(all.parts[run.part].pixels) < areaPx2) paint(run, 255, specks);
  }
  return filledFromAround(labels, specks);
}

bool wantsSeveralInks(const picture::Picture& picture) {
  constexpr double kMostPixels = 400'000;
  constexpr double kMostlyEven = 0.5;
  constexpr double kNearlyEvenStep = 9;  // blocks of a JPEG waver
  constexpr double kLeastShareOfRest = 0.01;
  constexpr double kColourful = 20;
  cv::Mat bgr = *picture.bgr;
  const double scale = std::sqrt(kMostPixels / static_cast<double>(bgr.total()));
  if (scale < 1) cv::resize(bgr, bgr, {}, scale, scale, cv::INTER_NEAREST);
  const cv::Mat lab = labPicture(bgr);
  const cv::Mat even = stepsOf(lab) <= kNearlyEvenStep;
  double evenPixels = 0;
  double colourful = 0;
  for (int y = 0; y < lab.rows; ++y) {
    for (int x = 0; x < lab.cols; ++x) {
      if (even.at<std::uint8_t>(y, x) == 0) continue;
      const cv::Vec3f c = lab.at<cv::Vec3f>(y, x);
      evenPixels += 1;
      colourful += std::hypot(c[1], c[2]) > kColourful ? 1 : 0;
    }
  }
  const auto all = static_cast<double>(lab.total());
  return evenPixels > kMostlyEven * all && colourful > kLeastShareOfRest * all;
}

InkMap reduced(const picture::Picture& picture, std::optional<int> count, const std::stop_token& stop) {
  const auto goOn = [&stop] {
    if (stop.stop_requested()) throw Cancelled();
  };
  cv::Mat bgr = *picture.bgr;
  cv::Mat lab = labPicture(bgr);
  cv::Mat steps = stepsOf(lab);
  double step = medianOf(someOf(steps));
  const bool noisy = step > kCalmStep;
  if (noisy) {
    bgr = calmed(bgr, step);
    lab = labPicture(bgr);
    steps = stepsOf(lab);
    step = medianOf(someOf(steps));
  }
  goOn();
  const cv::Mat even = steps <= kEvenStep + kNoisySteps * step;
  const bool flat = isFlat(steps, even);
  // Pixels near edges, too, hold what the colours are; but which of them an edge's pixel has is told by mixtures.
  const cv::Mat coloured =
      flat ? even | likeOneBeside(lab) : steps <= kEvenStep + kNoisySteps * std::max(step, waverOf(steps));
  InkDifference difference;
  if (flat) difference.small = difference.least;
  std::vector<Lab> palette = paletteOf(lab, coloured, count, difference);
  addThinInks(palette, bgr, lab, count, flat);
  goOn();
  cv::Mat labels = sureLabels(lab, even, palette);
  const std::vector<Rgb> colours = rgbOf(palette);
  decideMixtures(bgr, Mixtures(colours), labels, stop);
  labels = calmedParts(labels, lab, palette, stop);
  labels = withoutCrumbs(labels, stop);
  labels = withoutSpecks(labels, noisy ? 4 * kSpeckPx2 : kSpeckPx2, stop);
  InkMap map;
  for (const Rgb colour : colours) map.inks.push_back({colour, {}, InkRole::Keep});
  map.inks[surroundingInk(labels)].role = InkRole::Background;
  map.labels = std::make_shared<const cv::Mat>(labels);
  return map;
}

}  // namespace rim::colour
