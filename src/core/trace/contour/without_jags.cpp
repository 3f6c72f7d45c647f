#include "core/trace/contour/without_jags.h"

#include <algorithm>
#include <cmath>

namespace rim::trace::contour {
namespace {

/// Sides one after the other that run the same way.
struct Run {
  std::size_t first = 0;  ///< index of its first side
  std::size_t count = 0;
  Point way;  ///< unit vector; none on the picture's rim
};

bool isOnRim(Point side) { return isSampleMiddle(side.x) == isSampleMiddle(side.y); }

/// The middle of the side on which a border point lies.
Point middleOfSide(Point p) {
  if (isOnRim(p)) return p;
  return isSampleMiddle(p.y) ? Point{std::round(p.x), p.y} : Point{p.x, std::round(p.y)};
}

bool runsUpright(Point side) { return isSampleMiddle(side.y); }

/// A way along the sides of pixels in runs, between which lie steps and corners.
class Steps {
 public:
  Steps(std::vector<Point> sides, bool closed) : sides_(std::move(sides)), closed_(closed) {
    if (closed_) turnToRunStart();
    for (std::size_t i = 0; i < sides_.size(); ++i) {
      const Point way = wayOf(i);
      if (runs_.empty() || way != runs_.back().way || way == Point{}) runs_.push_back({i, 0, way});
      ++runs_.back().count;
    }
  }

  std::vector<Point> smooth() const {
    std::vector<Point> kept;
    for (std::size_t r = 0; r < runs_.size(); ++r) keep(r, kept);
    if (kept.size() < 3) return sides_;
    std::vector<Point> filled;
    for (std::size_t i = 0; i + 1 < kept.size(); ++i) fill(kept[i], kept[i + 1], filled);
    if (closed_)
      fill(kept.back(), kept.front(), filled);
    else
      filled.push_back(kept.back());
    return filled;
  }

 private:
  Point side(std::ptrdiff_t i) const {
    const auto n = static_cast<std::ptrdiff_t>(sides_.size());
    return sides_[static_cast<std::size_t>(closed_ ? (i + n) % n : std::clamp<std::ptrdiff_t>(i, 0, n - 1))];
  }

  Point wayOf(std::size_t i) const {
    if (isOnRim(sides_[i])) return {};
    const auto at = static_cast<std::ptrdiff_t>(i);
    const Point along = side(at + 1) - side(at - 1);
    return runsUpright(sides_[i]) ? Point{0, std::copysign(1.0, along.y)} : Point{std::copysign(1.0, along.x), 0};
  }

  /// So that no run is cut in two by where the border happens to begin.
  void turnToRunStart() {
    std::size_t start = 0;
    while (start + 1 < sides_.size() && wayOf(start) == wayOf((start + sides_.size() - 1) % sides_.size())) ++start;
    std::rotate(sides_.begin(), sides_.begin() + static_cast<std::ptrdiff_t>(start), sides_.end());
  }

  /// The run `off` runs on; one of no sides beyond the ends.
  Run around(std::size_t r, int off) const {
    const auto n = static_cast<std::ptrdiff_t>(runs_.size());
    const std::ptrdiff_t at = static_cast<std::ptrdiff_t>(r) + off;
    if (!closed_ && (at < 0 || at >= n)) return {};
    return runs_[static_cast<std::size_t>((at + 2 * n) % n)];
  }

  /// How long the run on the other side of the step at an end (-1: the start, 1: the end) of run r is; 0 when there is
  /// no step but a corner.
  std::size_t beyondStep(std::size_t r, int end) const {
    const Run beyond = around(r, 2 * end);
    return around(r, end).count == 1 && beyond.way == runs_[r].way ? beyond.count : 0;
  }

  void keep(std::size_t r, std::vector<Point>& kept) const {
    const Run& run = runs_[r];
    const std::size_t before = beyondStep(r, -1);
    const std::size_t after = beyondStep(r, 1);
    const bool climbs = before > 0 && after > 0 && around(r, -1).way == around(r, 1).way;
    if (run.count > 1 && climbs) return;
    // Near a step it tells more; as far as half of the shorter run, lest one that a corner cuts short be lost.
    const std::size_t from = run.count > 1 ? std::min(run.count, before) / 2 : 0;
    const std::size_t to = run.count > 1 ? run.count - std::min(run.count, after) / 2 : 1;
    for (std::size_t k = from; k < to; ++k) kept.push_back(sides_[run.first + k]);
  }

  static void fill(Point a, Point b, std::vector<Point>& filled) {
    const double parts = std::max(1.0, std::round(distance(a, b)));
    for (double k = 0; k < parts; ++k) filled.push_back(lerp(a, b, k / parts));
  }

  std::vector<Point> sides_;
  bool closed_;
  std::vector<Run> runs_;
};

}  // namespace

Border withoutJags(const Border& border) {
  std::vector<Point> sides;
  sides.reserve(border.size());
  for (const Point p : border) sides.push_back(middleOfSide(p));
  return Steps(std::move(sides), true).smooth();
}

std::vector<Point> withoutJagsOpen(const std::vector<Point>& sides) { return Steps(sides, false).smooth(); }

}  // namespace rim::trace::contour
