#include "core/trace/lines/heal.h"

#include <algorithm>
#include <numbers>

#include "core/disjoint_sets.h"
#include "core/geometry/box_index.h"

namespace rim::trace::lines {
namespace {

struct Candidate {
  std::size_t a = 0, b = 0;  ///< ends: 2 x line + end
  double gapPx = 0;
};

const std::optional<FreeEnd>& endOf(const std::vector<StrokeLine>& lines, std::size_t number) {
  return lines[number / 2].freeEnds[number % 2];
}

std::optional<double> gapBetween(const FreeEnd& a, const FreeEnd& b, double mostPx) {
  const double gap = distance(a.inkTip, b.inkTip);
  // Ends whose ink overlaps (where a speck of white parts a stroke at a slant) are as near as can be.
  if (gap > mostPx || !pointAtEachOther(a.on.tip, a.on.direction, b.on.tip, b.on.direction)) return std::nullopt;
  return gap;
}

std::vector<Candidate> candidatesIn(const std::vector<StrokeLine>& lines, double mostPx) {
  std::vector<std::size_t> numbers;
  std::vector<Box> boxes;
  for (std::size_t n = 0; n < 2 * lines.size(); ++n) {
    if (!endOf(lines, n) || endOf(lines, n)->atArea) continue;
    numbers.push_back(n);
    const Point tip = endOf(lines, n)->inkTip;
    boxes.push_back({tip, tip});
  }
  const BoxIndex index(boxes);
  std::vector<Candidate> found;
  for (std::size_t i = 0; i < numbers.size(); ++i) {
    index.near(boxes[i], mostPx, [&](std::size_t k) {
      if (k <= i) return;
      if (const auto gap = gapBetween(*endOf(lines, numbers[i]), *endOf(lines, numbers[k]), mostPx))
        found.push_back({numbers[i], numbers[k], *gap});
    });
  }
  std::sort(found.begin(), found.end(), [](const Candidate& p, const Candidate& q) { return p.gapPx < q.gapPx; });
  return found;
}

void turnRound(StrokeLine& line) {
  std::reverse(line.points.begin(), line.points.end());
  std::reverse(line.widths.begin(), line.widths.end());
  std::swap(line.freeEnds[0], line.freeEnds[1]);
}

/// Puts `next` behind the end of `line`.
void join(StrokeLine& line, StrokeLine next) {
  const std::vector<Point> between = bridge(line.freeEnds[1]->on, next.freeEnds[0]->on);
  line.points.insert(line.points.end(), between.begin(), between.end());
  line.points.insert(line.points.end(), next.points.begin(), next.points.end());
  line.widths.insert(line.widths.end(), next.widths.begin(), next.widths.end());
  line.freeEnds[1] = next.freeEnds[1];
}

void close(StrokeLine& line) {
  const std::vector<Point> between = bridge(line.freeEnds[1]->on, line.freeEnds[0]->on);
  line.points.insert(line.points.end(), between.begin(), between.end());
  line.closed = true;
  line.freeEnds = {};
}

}  // namespace

bool pointAtEachOther(Point a, Point beyondA, Point b, Point beyondB) {
  constexpr double kMostAside = 35 * std::numbers::pi / 180;  // both together turn by twice as much
  constexpr double kOnePlace = 1e-9;
  const Point way = b - a;
  return length(way) >= kOnePlace && std::abs(angleBetween(beyondA, way)) <= kMostAside &&
         std::abs(angleBetween(beyondB, -way)) <= kMostAside;
}

std::vector<StrokeLine> healed(std::vector<StrokeLine> lines, double mostPx) {
  if (mostPx <= 0) return lines;
  std::vector<std::optional<std::size_t>> partner(2 * lines.size());
  for (const Candidate& c : candidatesIn(lines, mostPx)) {
    if (partner[c.a] || partner[c.b]) continue;
    partner[c.a] = c.b;
    partner[c.b] = c.a;
  }
  std::vector<StrokeLine> all;
  std::vector<bool> done(lines.size());
  const auto follow = [&](std::size_t first) {
    done[first / 2] = true;
    StrokeLine line = lines[first / 2];
    if (first % 2 == 1) turnRound(line);
    std::size_t left = first ^ 1U;
    while (partner[left] && !done[*partner[left] / 2]) {
      const std::size_t entered = *partner[left];
      done[entered / 2] = true;
      StrokeLine next = lines[entered / 2];
      if (entered % 2 == 1) turnRound(next);
      join(line, std::move(next));
      left = entered ^ 1U;
    }
    if (partner[left]) close(line);
    all.push_back(std::move(line));
  };
  for (std::size_t end = 0; end < partner.size(); ++end) {
    if (!done[end / 2] && !partner[end]) follow(end);
  }
  for (std::size_t i = 0; i < lines.size(); ++i) {
    if (!done[i]) follow(2 * i);
  }
  return all;
}

}  // namespace rim::trace::lines
