#include "core/geometry/intersect.h"

#include <algorithm>
#include <numbers>
#include <optional>

#include "core/geometry/arc.h"

namespace rim {
namespace {

constexpr double kReach = 1e-9;  // how far from a segment's end a place may lie and still be that end

/// The parameter cut to 0..1 when it is no farther out than kReach of the segment's length.
std::optional<double> within(double t, double segmentLength) {
  const double slack = kReach / std::max(segmentLength, 1e-12) + 1e-12;
  if (!(t >= -slack && t <= 1 + slack)) return {};
  return std::clamp(t, 0.0, 1.0);
}

std::vector<Meeting> lineWithLine(const Piece& a, const Piece& b) {
  const Point u = a.segment.end - a.start;
  const Point v = b.segment.end - b.start;
  const double bend = cross(u, v);
  const Point w = b.start - a.start;
  if (std::abs(bend) <= 1e-14 * length(u) * length(v)) return {};
  const auto t = within(cross(w, v) / bend, length(u));
  const auto s = within(cross(w, u) / bend, length(v));
  if (!t || !s) return {};
  return {{*t, *s, a.start + u * *t}};
}

/// The share of the arc's sweep at which it passes p, a place on its circle; none outside the arc.
std::optional<double> shareAt(const Arc& arc, Point p) {
  const Point spoke{std::cos(arc.startAngle), std::sin(arc.startAngle)};
  const double turn = angleBetween(spoke, p - arc.centre);
  for (const double whole : {0.0, 2 * std::numbers::pi, -2 * std::numbers::pi}) {
    if (const auto t = within((turn + whole) / arc.sweep, arc.radius * std::abs(arc.sweep))) return t;
  }
  return {};
}

std::vector<Meeting> lineWithArc(const Piece& line, const Piece& bent) {
  const Arc arc = arcFromBulge(bent.start, bent.segment.end, bent.segment.bulge);
  const Point way = line.segment.end - line.start;
  const double size = length(way);
  if (!(size > 0)) return {};
  std::vector<Meeting> found;
  for (const Point p : lineMeetsCircle(line.start, way * (1 / size), arc.centre, arc.radius)) {
    const auto t = within(dot(way, p - line.start) / (size * size), size);
    const auto u = t ? shareAt(arc, p) : std::nullopt;
    if (u) found.push_back({*t, *u, p});
  }
  return found;
}

std::vector<Meeting> arcWithArc(const Piece& a, const Piece& b) {
  const Arc p = arcFromBulge(a.start, a.segment.end, a.segment.bulge);
  const Arc q = arcFromBulge(b.start, b.segment.end, b.segment.bulge);
  std::vector<Meeting> found;
  for (const Point place : circlesMeet(p.centre, p.radius, q.centre, q.radius)) {
    const auto t = shareAt(p, place);
    const auto u = shareAt(q, place);
    if (t && u) found.push_back({*t, *u, place});
  }
  return found;
}

/// The stretch of a piece between two parameters, with the box round it.
struct Stretch {
  Piece piece;
  double from = 0;
  double to = 1;
  Box box;
};

Box roughBox(const Piece& piece) {
  if (piece.segment.kind != SegmentKind::Cubic) return boxOf(piece);
  Box box;  // the handles hold the curve; cheaper than its extremes
  for (const Point p : {piece.start, piece.segment.handle1, piece.segment.handle2, piece.segment.end}) box.include(p);
  return box;
}

/// How far the piece leaves its chord, at most.
double bulgeOf(const Piece& piece) {
  const Segment& s = piece.segment;
  if (s.kind == SegmentKind::Line) return 0;
  if (s.kind == SegmentKind::Arc) return std::abs(s.bulge) * distance(piece.start, s.end) / 2;
  const Point chord = s.end - piece.start;
  const double size = length(chord);
  const auto off = [&](Point h) {
    return size > 0 ? std::abs(cross(chord, h - piece.start)) / size : distance(h, piece.start);
  };
  const double beyond = size > 0 ? 0 : std::max(distance(s.handle1, piece.start), distance(s.handle2, piece.start));
  return std::max({off(s.handle1), off(s.handle2), beyond});
}

std::pair<Stretch, Stretch> halves(const Stretch& s) {
  const double middle = (s.from + s.to) / 2;
  Stretch first{{s.piece.start, partOf(s.piece.start, s.piece.segment, 0, 0.5)}, s.from, middle, {}};
  Stretch second{{first.piece.segment.end, partOf(s.piece.start, s.piece.segment, 0.5, 1)}, middle, s.to, {}};
  first.box = roughBox(first.piece);
  second.box = roughBox(second.piece);
  return {first, second};
}

class Halving {
 public:
  Halving(const Piece& a, const Piece& b, double flatness) : a_(a), b_(b), flatness_(flatness) {}

  std::vector<Meeting> run() {
    visit({a_, 0, 1, roughBox(a_)}, {b_, 0, 1, roughBox(b_)}, 0);
    return std::move(found_);
  }

 private:
  static constexpr int kDeepest = 40;
  static constexpr int kMostVisits = 20'000;  // two curves on one track would halve without end

  void visit(const Stretch& a, const Stretch& b, int depth) {
    if (++visits_ > kMostVisits || apart(a.box, b.box, kReach)) return;
    const double bulgeA = bulgeOf(a.piece);
    const double bulgeB = bulgeOf(b.piece);
    if (depth >= kDeepest || (bulgeA <= flatness_ && bulgeB <= flatness_)) {
      meet(a, b);
      return;
    }
    if (bulgeA >= bulgeB) {
      const auto [first, second] = halves(a);
      visit(first, b, depth + 1);
      visit(second, b, depth + 1);
    } else {
      const auto [first, second] = halves(b);
      visit(a, first, depth + 1);
      visit(a, second, depth + 1);
    }
  }

  void meet(const Stretch& a, const Stretch& b) {
    const auto chord = [](const Stretch& s) { return Piece{s.piece.start, Segment::line(s.piece.segment.end)}; };
    for (const Meeting& m : lineWithLine(chord(a), chord(b))) {
      refine(a.from + (a.to - a.from) * m.t, b.from + (b.to - b.from) * m.u);
    }
  }

  /// Newton's method on pointAt(a, t) = pointAt(b, u).
  void refine(double t, double u) {
    constexpr int kRounds = 8;
    for (int i = 0; i < kRounds; ++i) {
      const Point off = pointAt(b_, u) - pointAt(a_, t);
      const Point da = speed(a_, t);
      const Point db = speed(b_, u);
      const double bend = cross(da, db);
      if (std::abs(bend) <= 1e-9 * length(da) * length(db)) break;
      t = std::clamp(t + cross(off, db) / bend, 0.0, 1.0);
      u = std::clamp(u + cross(off, da) / bend, 0.0, 1.0);
    }
    const Point place = pointAt(a_, t);
    if (distance(place, pointAt(b_, u)) > flatness_) return;
    constexpr double kSamePlace = 1e-6;
    const bool known = std::any_of(found_.begin(), found_.end(), [&](const Meeting& m) {
      return std::abs(m.t - t) < kSamePlace && std::abs(m.u - u) < kSamePlace;
    });
    if (!known) found_.push_back({t, u, place});
  }

  static Point speed(const Piece& piece, double t) {
    if (piece.segment.kind == SegmentKind::Cubic) return derivative(cubicOf(piece.start, piece.segment), t);
    return tangentAt(piece, t) * lengthOf(piece);
  }

  const Piece& a_;
  const Piece& b_;
  double flatness_;
  int visits_ = 0;
  std::vector<Meeting> found_;
};

}  // namespace

std::vector<Meeting> meetings(const Piece& a, const Piece& b, double flatness) {
  if (a.segment.kind == SegmentKind::Cubic || b.segment.kind == SegmentKind::Cubic)
    return Halving(a, b, flatness).run();
  const bool bentA = isArc(a.segment);
  const bool bentB = isArc(b.segment);
  if (bentA && bentB) return arcWithArc(a, b);
  if (bentB) return lineWithArc(a, b);
  if (!bentA) return lineWithLine(a, b);
  std::vector<Meeting> found = lineWithArc(b, a);
  for (Meeting& m : found) std::swap(m.t, m.u);
  return found;
}

}  // namespace rim
