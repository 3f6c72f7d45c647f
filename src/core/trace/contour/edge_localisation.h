#pragma once

#include <cmath>
#include <optional>

namespace rim::trace::contour {

/// Sub-pixel edge localisation along rows and columns. Places measured along a straight border in rows or columns are
/// nearer to each other than this, whatever its direction: what is wider lies round a corner.
inline constexpr double kHolePx = 1.6;

/// The samples of a row or column from where ink levels out to where paper does.
struct Rise {
  int low = 0;   ///< index of the first sample of it
  int high = 0;  ///< index of the last one
};

/// The rise through the edge between samples i and i + 1. `samples` has count() and gives levels by index, 0..255 or
/// so. Nothing when one side turns back before it levels out, or when both differ too little.
template <typename Samples>
std::optional<Rise> riseAt(const Samples& samples, int i) {
  constexpr int kLongestRise = 4;         // samples on either side of the edge
  constexpr double kPlateauShare = 0.04;  // a step below this share of the contrast ends the rise
  constexpr double kLeastEdge = 12;
  const double up = samples[i + 1] > samples[i] ? 1 : -1;
  const double contrast = std::abs(samples[i + 1] - samples[i]);
  const auto plateau = [&](int from, int step, double sign) -> std::optional<int> {
    for (int k = 0; k < kLongestRise; ++k) {
      const int next = from + step;
      if (next < 0 || next >= samples.count()) return from;
      const double change = sign * (samples[next] - samples[from]);
      if (change < -kPlateauShare * contrast) return std::nullopt;
      if (change < kPlateauShare * contrast) return change > 0 ? next : from;
      from = next;
    }
    return from;
  };
  const auto low = plateau(i, -1, -up);
  const auto high = plateau(i + 1, 1, up);
  if (!low || !high || std::abs(samples[*high] - samples[*low]) < kLeastEdge) return std::nullopt;
  return Rise{*low, *high};
}

/// Where the edge lies that covers as much of the rise's samples as they say, as a coordinate: sample i is the
/// interval from i to i + 1 (see sharpenBorder()).
template <typename Samples>
double coveredPlace(const Samples& samples, Rise rise) {
  const double first = samples[rise.low];
  const double last = samples[rise.high];
  double covered = 0;
  for (int k = rise.low; k <= rise.high; ++k) covered += last - samples[k];
  return rise.low + covered / (last - first);
}

}  // namespace rim::trace::contour
