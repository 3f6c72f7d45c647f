#include "core/refine/combine/offset.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/curve_form.h"
#include "core/geometry/segment.h"
#include "core/refine/combine/areas.h"

namespace rim::refine {
namespace {

constexpr double kSnapMm = 1e-6;
constexpr double kSmooth = 1e-6;  // radians: what turns less is no corner

/// Builds the side of a path that lies `away` to its right (to its left when negative).
class Side {
 public:
  Side(double away, Joins joins) : away_(away), joins_(joins) {}

  /// Adds the segment moved aside.
  void add(const Piece& piece) {
    const Point begin = moved(piece, 0);
    const Point end = moved(piece, 1);
    if (!path_) path_ = Path{begin, {}, false};
    lineTo(begin);
    if (!isArc(piece.segment)) return lineTo(end);
    const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
    const double radius = arc.radius + (arc.sweep > 0 ? away_ : -away_);
    if (radius > kSnapMm) {
      path_->segments.push_back(Segment::arc(end, piece.segment.bulge));
    } else {
      // Moved farther than its centre it would run round that the wrong way; over the centre it winds round nothing.
      lineTo(arc.centre);
      lineTo(end);
    }
  }

  /// Fills the corner between two segments, or runs through it where it closes.
  void corner(const Piece& before, const Piece& after) {
    const Point node = after.start;
    const double turn = angleBetween(tangentAt(before, 1), tangentAt(after, 0));
    if (std::abs(turn) < kSmooth) return;
    // A left turn opens the right side.
    const bool reversal = std::abs(turn) > std::numbers::pi - kSmooth;
    if ((turn > 0) == (away_ > 0) || reversal) {
      open(node, moved(before, 1), moved(after, 0), reversal ? (away_ > 0 ? 1 : -1) * std::numbers::pi : turn, joins_);
    } else {
      lineTo(node);
    }
  }

  /// Fills the corner whose sides end and begin at these places, `turn` radians apart.
  void open(Point node, Point from, Point to, double turn, Joins joins) {
    lineTo(from);
    if (joins == Joins::Round) {
      const double sweeps = std::ceil(std::abs(turn) / (std::numbers::pi / 2) - kSmooth);
      for (double k = 1; k <= sweeps; ++k) {
        const double angle = turn * k / sweeps;
        const Point arm = from - node;
        const Point place{arm.x * std::cos(angle) - arm.y * std::sin(angle),
                          arm.x * std::sin(angle) + arm.y * std::cos(angle)};
        path_->segments.push_back(Segment::arc(k == sweeps ? to : node + place, bulgeFromSweep(turn / sweeps)));
      }
    } else if (joins == Joins::Mitre) {
      mitre(node, from, to, turn);
    }
    lineTo(to);
  }

  Path& path() { return *path_; }

  Point moved(const Piece& piece, double t) const {
    return pointAt(piece, t) - leftNormal(tangentAt(piece, t)) * away_;
  }

 private:
  void lineTo(Point p) {
    const Point last = endOf(*path_);
    if (!(last == p)) path_->segments.push_back(Segment::line(p));
  }

  void mitre(Point node, Point from, Point to, double turn) {
    constexpr double kLimit = 10;
    const double reach = std::abs(away_);
    const Point out = unit(from - node + (to - node));
    const double half = std::abs(turn) / 2;
    const double tip = reach / std::max(std::cos(half), 1e-12);
    if (tip <= kLimit * reach) {
      lineTo(node + out * tip);
      return;
    }
    // Cut off square to the middle: as far along both sides as the limit allows.
    const double along = (kLimit * reach - reach * std::cos(half)) / std::max(std::sin(half), 1e-12);
    const double way = turn > 0 ? 1 : -1;
    lineTo(from + leftNormal(from - node) * (way * along / reach));
    lineTo(to - leftNormal(to - node) * (way * along / reach));
  }

  double away_;
  Joins joins_;
  std::optional<Path> path_;
};

Path withoutNothing(const Path& path) {
  Path out{path.start, {}, path.closed};
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    if (lengthOf(pieceOf(path, i)) > kSnapMm) out.segments.push_back(path.segments[i]);
  }
  if (!out.segments.empty() && path.closed) out.segments.back().end = out.start;
  return out;
}

/// The raw offset of a closed path: it may cross itself anywhere.
Path rawOffset(const Path& closed, double mm, Joins joins) {
  Side side(mm, joins);
  const std::size_t n = closed.segments.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Piece piece = pieceOf(closed, i);
    side.add(piece);
    side.corner(piece, pieceOf(closed, (i + 1) % n));
  }
  Path path = std::move(side.path());
  if (!path.segments.empty() && !(path.segments.back().end == path.start))
    path.segments.push_back(Segment::line(path.start));
  path.closed = true;
  return path;
}

/// The raw outline of an open path that is 2 `half` wide, its tips as they are wanted.
Path rawBand(const Path& open, double half, Joins joins, Tips tips) {
  const Path back = reversed(open);
  Side side(half, joins);
  const std::size_t n = open.segments.size();
  const auto run = [&](const Path& path, const Path& next) {
    for (std::size_t i = 0; i < n; ++i) {
      const Piece piece = pieceOf(path, i);
      side.add(piece);
      if (i + 1 < n) side.corner(piece, pieceOf(path, i + 1));
    }
    const Piece last = pieceOf(path, n - 1);
    const Piece first = pieceOf(next, 0);
    side.open(last.segment.end, side.moved(last, 1), side.moved(first, 0), std::numbers::pi,
              tips == Tips::Round ? Joins::Round : Joins::Bevel);
  };
  run(open, back);
  run(back, open);
  Path path = std::move(side.path());
  if (!(path.segments.back().end == path.start)) path.segments.push_back(Segment::line(path.start));
  path.closed = true;
  return path;
}

std::vector<AreaOutline> resolved(std::vector<Ring> rings, const std::stop_token& stop) {
  return areaOutlines(
      rings, [](int a, int) { return a > 0; }, kSnapMm, stop);
}

std::vector<AreaOutline> offsetAreas(const std::vector<Ring>& rings, double mm, Joins joins, double toleranceMm,
                                     const std::stop_token& stop) {
  // Each by itself: where a raw offset winds the wrong way it must not eat of another. A hole shrinks as an outline.
  std::vector<Ring> all;
  for (const Ring& ring : rings) {
    const bool hole = signedArea(ring.path) < 0;
    const Path way = hole ? reversed(ring.path) : ring.path;
    const Path arcs = withoutNothing(inForm(way, CurveForm::Arcs, toleranceMm));
    if (arcs.segments.size() < 2) continue;
    Path moved = rawOffset(arcs, hole ? -mm : mm, joins);
    if (moved.segments.size() < 2) continue;
    for (AreaOutline& area : resolved({{std::move(moved), 0, ring.source}}, stop))
      all.push_back({hole ? reversed(area.path) : std::move(area.path), 0, ring.source});
  }
  return resolved(std::move(all), stop);
}

std::vector<AreaOutline> bandOf(const Path& open, double widthMm, Joins joins, Tips tips, double toleranceMm,
                                const std::stop_token& stop) {
  const Path arcs = withoutNothing(inForm(open, CurveForm::Arcs, toleranceMm));
  if (arcs.segments.empty()) return {};
  return resolved({{rawBand(arcs, widthMm / 2, joins, tips), 0, 0}}, stop);
}

/// What lies outermost of areas, without their holes.
std::vector<Ring> outerRings(const std::vector<AreaOutline>& areas) {
  std::vector<Ring> rings;
  for (const AreaOutline& area : areas) {
    if (signedArea(area.path) > 0) rings.push_back({area.path, 0, 0});
  }
  return rings;
}

/// All that a drawing draws, grown by `mm` and united, without holes.
std::vector<Ring> silhouette(const Drawing& drawing, double mm, Joins joins, double toleranceMm,
                             const std::stop_token& stop) {
  std::vector<Ring> grown;
  for (const Outline& outline : drawing.outlines) {
    if (outline.path().segments.empty()) continue;
    const auto areas = outline.path().closed ? offsetAreas(ringsOf(makeDrawing({outline.path()}), {0}, 0, stop), mm,
                                                           joins, toleranceMm, stop)
                                             : bandOf(outline.path(), 2 * mm, joins, Tips::Round, toleranceMm, stop);
    for (Ring& ring : outerRings(areas)) grown.push_back(std::move(ring));
  }
  return outerRings(resolved(std::move(grown), stop));
}

}  // namespace

Drawing offset(const Drawing& drawing, double mm, Joins joins, double toleranceMm, const std::stop_token& stop) {
  if (mm == 0) return drawing;
  std::vector<AreaOutline> areas;
  std::vector<std::size_t> all;
  for (const auto& places : closedByLayer(drawing)) {
    std::vector<AreaOutline> made = offsetAreas(ringsOf(drawing, places, 0, stop), mm, joins, toleranceMm, stop);
    areas.insert(areas.end(), std::make_move_iterator(made.begin()), std::make_move_iterator(made.end()));
    all.insert(all.end(), places.begin(), places.end());
  }
  return withAreas(drawing, all, std::move(areas));
}

Drawing thickened(const Drawing& drawing, double mm, Joins joins, Tips tips, double toleranceMm,
                  const std::stop_token& stop) {
  std::vector<AreaOutline> areas;
  std::vector<std::size_t> all;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const double width = mm > 0 ? mm : drawing.outlines[i].stroke.usual;
    if (drawing.path(i).closed || !(width > 0)) continue;
    for (AreaOutline& area : bandOf(drawing.path(i), width, joins, tips, toleranceMm, stop)) {
      area.source = i;
      areas.push_back(std::move(area));
    }
    all.push_back(i);
  }
  Drawing out = withAreas(drawing, all, std::move(areas));
  for (Outline& outline : out.outlines) {
    if (outline.path().closed) outline.stroke = {};
  }
  return out;
}

Drawing withRing(const Drawing& drawing, double gapMm, double widthMm, Joins joins, double toleranceMm,
                 const std::stop_token& stop) {
  if (drawing.outlines.empty()) return drawing;
  // Grown so far that all runs together, then shrunk back to the gap: bays are bridged, nothing comes nearer.
  constexpr double kFarther = 1.6;
  const auto innerAt = [&](double grown) {
    std::vector<Ring> rings = silhouette(drawing, grown, joins, toleranceMm, stop);
    return rings.size() == 1 && grown > gapMm ? outerRings(offsetAreas(rings, gapMm - grown, joins, toleranceMm, stop))
                                              : rings;
  };
  const Box box = boxOf(drawing);
  const double most = 2 * (distance(box.low, box.high) + gapMm);
  std::vector<Ring> inner = innerAt(gapMm);
  for (double grown = gapMm * kFarther; inner.size() != 1 && grown < most * kFarther; grown *= kFarther)
    inner = innerAt(grown);
  const std::vector<Ring> outer = outerRings(offsetAreas(inner, widthMm, joins, toleranceMm, stop));
  Drawing out = drawing;
  for (const Ring& ring : outer) add(out, ring.path);
  for (const Ring& ring : inner) add(out, reversed(ring.path));
  return out;
}

}  // namespace rim::refine
