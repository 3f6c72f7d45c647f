#include "core/refine/edit/snap.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "core/geometry/arc.h"
#include "core/geometry/intersect.h"
#include "core/geometry/segment.h"

namespace rim::refine {
namespace {

/// The nearest so far of one kind.
class Nearest {
 public:
  Nearest(Point place, double reach) : place_(place), least_(reach) {}
  void consider(Point p) {
    const double off = distance(p, place_);
    if (off > least_) return;
    least_ = off;
    best_ = p;
  }
  const std::optional<Point>& best() const { return best_; }

 private:
  Point place_;
  double least_;
  std::optional<Point> best_;
};

/// Whether the arc runs over a direction from its centre (radians).
bool isOn(const Arc& arc, double angle) {
  const double turn = std::remainder(angle - arc.startAngle, 2 * std::numbers::pi);
  constexpr double kSame = 1e-9;
  for (const double way : {turn, turn + 2 * std::numbers::pi, turn - 2 * std::numbers::pi})
    if (way * arc.sweep >= 0 && std::abs(way) <= std::abs(arc.sweep) + kSame) return true;
  return false;
}

/// The places of the arc where it runs level or upright.
std::vector<Point> quadrantsOf(const Arc& arc) {
  std::vector<Point> places;
  constexpr double kQuarter = std::numbers::pi / 2;
  for (int k = 0; k < 4; ++k) {
    if (isOn(arc, k * kQuarter))
      places.push_back(arc.centre + Point{std::cos(k * kQuarter), std::sin(k * kQuarter)} * arc.radius);
  }
  return places;
}

/// The places of a circle's arc where a line from elsewhere touches it.
std::vector<Point> touchesOf(const Arc& arc, Point from) {
  const double away = distance(from, arc.centre);
  if (away <= arc.radius) return {};
  const double half = std::acos(arc.radius / away);
  const Point way = from - arc.centre;
  const double main = std::atan2(way.y, way.x);
  std::vector<Point> places;
  for (const double angle : {main + half, main - half}) {
    if (isOn(arc, angle)) places.push_back(arc.centre + Point{std::cos(angle), std::sin(angle)} * arc.radius);
  }
  return places;
}

/// The same of a cubic: where its tangent leads to the other place, found between samples by halving.
std::vector<Point> touchesOf(const Piece& piece, Point from) {
  constexpr int kSamples = 24;
  constexpr int kHalvings = 40;
  const auto turn = [&](double t) { return cross(pointAt(piece, t) - from, tangentAt(piece, t)); };
  std::vector<Point> places;
  for (int k = 0; k < kSamples; ++k) {
    double low = static_cast<double>(k) / kSamples;
    double high = static_cast<double>(k + 1) / kSamples;
    const bool rising = turn(low) < 0;
    if (rising == (turn(high) < 0)) continue;
    for (int round = 0; round < kHalvings; ++round) {
      const double middle = (low + high) / 2;
      ((turn(middle) < 0) == rising ? low : high) = middle;
    }
    places.push_back(pointAt(piece, low));
  }
  return places;
}

/// A guide near a place, as long as two lines are that may cross there.
Piece stretchOf(const rim::Guide& guide, Point place, double reach) {
  const Point on = guide.upright ? Point{guide.at, place.y} : Point{place.x, guide.at};
  const Point way = guide.upright ? Point{0, 2 * reach} : Point{2 * reach, 0};
  return {on - way, Segment::line(on + way)};
}

}  // namespace

std::vector<Box> SnapIndex::sidesOf(const Drawing& drawing, std::vector<Side>& sides) {
  std::vector<Box> boxes;
  for (const Outline& outline : drawing.outlines) {
    for (std::size_t i = 0; i < outline.path().segments.size(); ++i) {
      sides.push_back({pieceOf(outline.path(), i), outline.id});
      boxes.push_back(boxOf(sides.back().piece));
    }
  }
  return boxes;
}

std::vector<Box> SnapIndex::centresOf(const std::vector<Side>& sides, std::vector<Centre>& centres) {
  std::vector<Box> boxes;
  for (const Side& side : sides) {
    const Segment& segment = side.piece.segment;
    if (!isArc(segment)) continue;
    centres.push_back({arcFromBulge(side.piece.start, segment.end, segment.bulge).centre, side.outline});
    boxes.emplace_back();
    boxes.back().include(centres.back().place);
  }
  return boxes;
}

SnapIndex::SnapIndex(const Drawing& drawing)
    : ofSides_(sidesOf(drawing, sides_)), ofCentres_(centresOf(sides_, centres_)) {}

std::optional<Snapped> SnapIndex::at(Point place, double reach, const std::set<SnapTo>& wanted,
                                     const std::set<OutlineId>& without, const SnapAids& aids) const {
  std::vector<Nearest> found(kSnaps, Nearest(place, reach));
  const auto to = [&found](SnapTo what) -> Nearest& { return found[static_cast<std::size_t>(what)]; };
  Box spot;
  spot.include(place);
  std::vector<std::size_t> near;
  ofSides_.near(spot, reach, [&](std::size_t i) {
    if (!without.contains(sides_[i].outline)) near.push_back(i);
  });
  std::sort(near.begin(), near.end());  // of places equally far the first one, in whatever order they are found
  std::vector<Piece> here;              // that pass the place
  for (const std::size_t i : near) {
    const Piece& piece = sides_[i].piece;
    if (isArc(piece.segment)) {
      const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
      for (const Point p : quadrantsOf(arc)) to(SnapTo::Quadrant).consider(p);
      if (aids.from) {
        for (const Point p : touchesOf(arc, *aids.from)) to(SnapTo::Tangent).consider(p);
      }
    } else if (aids.from && piece.segment.kind == SegmentKind::Cubic) {
      for (const Point p : touchesOf(piece, *aids.from)) to(SnapTo::Tangent).consider(p);
    }
    to(SnapTo::Node).consider(piece.start);
    to(SnapTo::Node).consider(piece.segment.end);
    to(SnapTo::Middle).consider(pointAt(piece, 0.5));
    const Point on = pointAt(piece, nearestOn(piece, place));
    to(SnapTo::Line).consider(on);
    if (distance(on, place) <= reach) here.push_back(piece);
  }
  ofCentres_.near(spot, reach, [&](std::size_t i) {
    if (!without.contains(centres_[i].outline)) to(SnapTo::Centre).consider(centres_[i].place);
  });
  for (const rim::Guide& guide : aids.guides) {
    const Point on = guide.upright ? Point{guide.at, place.y} : Point{place.x, guide.at};
    if (wanted.count(SnapTo::Guide) == 0 || distance(on, place) > reach) continue;
    to(SnapTo::Guide).consider(on);
    here.push_back(stretchOf(guide, place, reach));
  }
  if (aids.grid > 0) {
    const auto line = [&aids](double at) { return std::round(at / aids.grid) * aids.grid; };
    to(SnapTo::Grid).consider({line(place.x), line(place.y)});
  }
  constexpr std::size_t kMostHere = 60;  // where more meet, no crossing of two could be told
  if (wanted.count(SnapTo::Crossing) != 0 && here.size() <= kMostHere) {
    for (std::size_t i = 0; i < here.size(); ++i) {
      for (std::size_t j = i + 1; j < here.size(); ++j) {
        for (const Meeting& m : meetings(here[i], here[j])) to(SnapTo::Crossing).consider(m.place);
      }
    }
  }
  for (std::size_t k = 0; k < kSnaps; ++k) {
    const auto what = static_cast<SnapTo>(k);
    if (wanted.count(what) != 0 && found[k].best()) return Snapped{*found[k].best(), what};
  }
  return std::nullopt;
}

std::optional<Snapped> snapped(const Drawing& drawing, Point place, double reach, const std::set<SnapTo>& wanted,
                               const std::set<OutlineId>& without, const SnapAids& aids) {
  return SnapIndex(drawing).at(place, reach, wanted, without, aids);
}

}  // namespace rim::refine
