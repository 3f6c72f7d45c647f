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

/// The places of the arc where it runs level or upright.
std::vector<Point> quadrantsOf(const Arc& arc) {
  std::vector<Point> places;
  constexpr double kQuarter = std::numbers::pi / 2;
  for (int k = 0; k < 4; ++k) {
    double turn = k * kQuarter - arc.startAngle;
    turn = std::remainder(turn, 2 * std::numbers::pi);
    for (const double way : {turn, turn + 2 * std::numbers::pi, turn - 2 * std::numbers::pi}) {
      if (way * arc.sweep >= 0 && std::abs(way) <= std::abs(arc.sweep) + 1e-9) {
        places.push_back(arc.centre + Point{std::cos(k * kQuarter), std::sin(k * kQuarter)} * arc.radius);
        break;
      }
    }
  }
  return places;
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
                                     const std::set<OutlineId>& without) const {
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
      for (const Point p : quadrantsOf(arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge)))
        to(SnapTo::Quadrant).consider(p);
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
                               const std::set<OutlineId>& without) {
  return SnapIndex(drawing).at(place, reach, wanted, without);
}

}  // namespace rim::refine
