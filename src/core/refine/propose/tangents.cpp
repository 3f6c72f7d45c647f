#include "core/refine/propose/tangents.h"

#include <cmath>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/segment.h"

namespace rim::refine {
namespace {

constexpr double kDegree = std::numbers::pi / 180;
constexpr double kMostTurn = 5 * kDegree;  // what turns more is a corner that is meant
constexpr double kLeastTurn = 1e-7;        // what turns less touches already

/// A segment with both neighbours.
struct Between {
  std::size_t before;
  std::size_t own;
  std::size_t behind;
};

/// The angle by which the path turns from one segment into the next.
double turnInto(const Path& path, std::size_t from, std::size_t to) {
  return std::abs(angleBetween(tangentAt(pieceOf(path, from), 1), tangentAt(pieceOf(path, to), 0)));
}

void setStart(Path& path, std::size_t segment, Point place) {
  const std::size_t n = path.segments.size();
  if (segment == 0) path.start = place;
  if (segment > 0 || path.closed) path.segments[(segment + n - 1) % n].end = place;
}

/// Where two lines meet that run on; none when they are parallel.
std::optional<Point> meeting(Point a, Point wayA, Point b, Point wayB) {
  const double turn = cross(wayA, wayB);
  if (std::abs(turn) < 1e-9) return {};
  return a + wayA * (cross(b - a, wayB) / turn);
}

/// The arc as the fillet of the lines before and behind it.
bool asFillet(Path& path, const Between& b) {
  const Piece first = pieceOf(path, b.before);
  const Piece arc = pieceOf(path, b.own);
  const Piece last = pieceOf(path, b.behind);
  const Point in = unit(first.segment.end - first.start);
  const Point out = unit(last.segment.end - last.start);
  const auto corner = meeting(first.start, in, last.start, out);
  const double turn = angleBetween(in, out);
  if (!corner || turn * arc.segment.bulge <= 0) return false;
  const double radius = arcFromBulge(arc.start, arc.segment.end, arc.segment.bulge).radius;
  const double reach = radius * std::tan(std::abs(turn) / 2);
  setStart(path, b.own, *corner - in * reach);
  path.segments[b.own] = Segment::arc(*corner + out * reach, std::tan(turn / 4));
  setStart(path, b.behind, *corner + out * reach);
  return true;
}

/// The arc with its start slid along the line before it until it touches; its radius and its end stay.
bool slid(Path& path, std::size_t line, std::size_t own) {
  const Piece before = pieceOf(path, line);
  const Piece arc = pieceOf(path, own);
  const Arc circle = arcFromBulge(arc.start, arc.segment.end, arc.segment.bulge);
  const Point way = unit(before.segment.end - before.start);
  const Point side = leftNormal(way) * (arc.segment.bulge > 0 ? circle.radius : -circle.radius);
  // The centre lies beside the line, and as far from the arc's end as from the line.
  const Point w = arc.start + side - arc.segment.end;
  const double half = dot(way, w);
  const double rest = half * half - (dot(w, w) - circle.radius * circle.radius);
  if (rest < 0) return false;
  const double root = std::sqrt(rest);
  const double shift = std::abs(-half + root) < std::abs(-half - root) ? -half + root : -half - root;
  const Point start = arc.start + way * shift;
  const Point centre = start + side;
  double sweep = angleBetween(start - centre, arc.segment.end - centre);
  if (sweep * arc.segment.bulge < 0) sweep += arc.segment.bulge > 0 ? 2 * std::numbers::pi : -2 * std::numbers::pi;
  setStart(path, own, start);
  path.segments[own] = Segment::arc(arc.segment.end, bulgeFromSweep(sweep));
  return true;
}

bool isLineAt(const Path& path, std::size_t i) { return path.segments[i].kind == SegmentKind::Line; }

/// Makes the arc touch the lines beside it, as far as it nearly does. False: nothing was done.
bool touchBeside(Path& path, std::size_t i) {
  const std::size_t n = path.segments.size();
  const Between b{(i + n - 1) % n, i, (i + 1) % n};
  const auto turnOf = [&path](std::size_t from, std::size_t to, bool there) {
    return there ? turnInto(path, from, to) : kMostTurn;
  };
  const double in = turnOf(b.before, i, (i > 0 || path.closed) && isLineAt(path, b.before));
  const double out = turnOf(i, b.behind, (i + 1 < n || path.closed) && isLineAt(path, b.behind));
  const bool nearIn = in < kMostTurn;
  const bool nearOut = out < kMostTurn;
  const bool exact = (!nearIn || in < kLeastTurn) && (!nearOut || out < kLeastTurn);
  if (exact) return false;
  if (nearIn && nearOut) return asFillet(path, b);
  if (nearIn) return slid(path, b.before, i);
  // The other way round it is the same.
  path = reversed(path);
  const bool done = slid(path, n - 1 - b.behind, n - 1 - i);
  path = reversed(path);
  return done;
}

}  // namespace

std::optional<ExactShape> madeTangent(const Path& path, double withinMm) {
  if (path.segments.size() < 2) return {};
  Path out = path;
  bool any = false;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    if (!isArc(out.segments[i])) continue;
    Path next = out;
    if (!touchBeside(next, i) || apartBy(out, next).mm > withinMm) continue;
    out = std::move(next);
    any = true;
  }
  if (!any) return {};
  const Apart apart = apartBy(path, out);
  if (apart.mm > withinMm) return {};
  return ExactShape{TrueUpKind::Tangent, std::move(out), apart.mm, apart.at};
}

}  // namespace rim::refine
