#include "core/refine/combine/monotone.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"

namespace rim::refine {
namespace {

constexpr double kNear = 1e-9;  // a cut nearer than this to an end is none

std::vector<double> cutsOfArc(const Piece& piece) {
  const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
  constexpr double kQuarter = std::numbers::pi / 2;
  const double last = arc.startAngle + arc.sweep;
  std::vector<double> cuts;
  const double low = std::min(arc.startAngle, last);
  const double high = std::max(arc.startAngle, last);
  for (double angle = std::ceil(low / kQuarter) * kQuarter; angle <= high; angle += kQuarter)
    cuts.push_back((angle - arc.startAngle) / arc.sweep);
  return cuts;
}

double across(Point p, bool upright) { return upright ? p.x : p.y; }
double along(Point p, bool upright) { return upright ? p.y : p.x; }

double onArc(const Piece& piece, double level, bool upright) {
  const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
  const double off = level - across(arc.centre, upright);
  const double half = std::sqrt(std::max(0.0, arc.radius * arc.radius - off * off));
  const double centre = along(arc.centre, upright);
  const double a = along(piece.start, upright);
  const double b = along(piece.segment.end, upright);
  // Of both places on the circle the one on the arc's side of the centre.
  const double beside = (a + b) / 2 >= centre ? centre + half : centre - half;
  return std::clamp(beside, std::min(a, b), std::max(a, b));
}

double onCubic(const Piece& piece, double level, bool upright) {
  const bool rises = across(piece.start, upright) < across(piece.segment.end, upright);
  double low = 0;
  double high = 1;
  constexpr int kHalvings = 52;
  for (int i = 0; i < kHalvings; ++i) {
    const double middle = (low + high) / 2;
    ((across(pointAt(piece, middle), upright) < level) == rises ? low : high) = middle;
  }
  return along(pointAt(piece, low), upright);
}

}  // namespace

std::vector<double> monotoneCuts(const Piece& piece) {
  std::vector<double> inner;
  if (piece.segment.kind == SegmentKind::Arc) inner = cutsOfArc(piece);
  if (piece.segment.kind == SegmentKind::Cubic) inner = extremes(cubicOf(piece.start, piece.segment));
  std::sort(inner.begin(), inner.end());
  std::vector<double> cuts{0};
  for (const double t : inner) {
    if (t > cuts.back() + kNear && t < 1 - kNear) cuts.push_back(t);
  }
  cuts.push_back(1);
  return cuts;
}

double crossingAt(const Piece& piece, double level, bool upright) {
  if (piece.segment.kind == SegmentKind::Arc) return onArc(piece, level, upright);
  if (piece.segment.kind == SegmentKind::Cubic) return onCubic(piece, level, upright);
  const double from = across(piece.start, upright);
  const double way = across(piece.segment.end, upright) - from;
  const double t = way == 0 ? 0 : std::clamp((level - from) / way, 0.0, 1.0);
  return along(lerp(piece.start, piece.segment.end, t), upright);
}

}  // namespace rim::refine
