#include "core/trace/lines/stroke_limit.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace rim::trace::lines {
namespace {

/// Widths are counted in steps of about 2 %.
constexpr double kPerNeper = 50;

}  // namespace

std::vector<WidthShare> widthSharesOf(const std::vector<StrokeNet>& nets) {
  std::map<int, double> lengths;
  const auto add = [&](double width, double length) {
    if (width > 0) lengths[static_cast<int>(std::lround(std::log(width) * kPerNeper))] += length;
  };
  for (const StrokeNet& net : nets) {
    if (net.dot) add(net.dot->widths.front(), net.dot->widths.front());
    for (const StrokeChain& chain : net.graph.chains) {
      for (std::size_t i = 1; i < chain.points.size(); ++i)
        add(2 * chain.points[i].halfWidth, distance(chain.points[i - 1].place, chain.points[i].place));
    }
  }
  std::vector<WidthShare> shares;
  for (const auto& [bin, length] : lengths) shares.push_back({std::exp(bin / kPerNeper), length});
  return shares;
}

double strokeLimitOf(const std::vector<WidthShare>& shares) {
  constexpr double kApart = 2.5;  // the groups' means, one over the other
  double whole = 0;
  double sum = 0;
  for (const WidthShare& s : shares) {
    whole += s.length;
    sum += s.length * std::log(s.width);
  }
  double best = 0;
  double limit = std::numeric_limits<double>::infinity();
  double below = 0;
  double sumBelow = 0;
  for (std::size_t i = 0; i + 1 < shares.size(); ++i) {
    below += shares[i].length;
    sumBelow += shares[i].length * std::log(shares[i].width);
    const double narrow = sumBelow / below;
    const double wide = (sum - sumBelow) / (whole - below);
    const double variance = below * (whole - below) * (wide - narrow) * (wide - narrow);
    if (variance <= best) continue;
    best = variance;
    limit = wide - narrow < std::log(kApart) ? std::numeric_limits<double>::infinity() : std::exp((narrow + wide) / 2);
  }
  return limit;
}

}  // namespace rim::trace::lines
