#include "core/refine/edit/snap.h"

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

std::optional<Snapped> snapped(const Drawing& drawing, Point place, double reach, const std::set<SnapTo>& wanted,
                               const std::set<OutlineId>& without) {
  std::vector<Nearest> found(kSnaps, Nearest(place, reach));
  const auto at = [&found](SnapTo to) -> Nearest& { return found[static_cast<std::size_t>(to)]; };
  Box spot;
  spot.include(place);
  std::vector<Piece> here;  // that pass the place
  for (const Outline& outline : drawing.outlines) {
    if (without.count(outline.id) != 0) continue;
    const Path& path = outline.path();
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Piece piece = pieceOf(path, i);
      if (isArc(piece.segment)) {
        const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
        at(SnapTo::Centre).consider(arc.centre);
        for (const Point p : quadrantsOf(arc)) at(SnapTo::Quadrant).consider(p);
      }
      if (apart(boxOf(piece), spot, reach)) continue;
      at(SnapTo::Node).consider(piece.start);
      at(SnapTo::Node).consider(piece.segment.end);
      at(SnapTo::Middle).consider(pointAt(piece, 0.5));
      const Point on = pointAt(piece, nearestOn(piece, place));
      at(SnapTo::Line).consider(on);
      if (distance(on, place) <= reach) here.push_back(piece);
    }
  }
  constexpr std::size_t kMostHere = 60;  // where more meet, no crossing of two could be told
  if (wanted.count(SnapTo::Crossing) != 0 && here.size() <= kMostHere) {
    for (std::size_t i = 0; i < here.size(); ++i) {
      for (std::size_t j = i + 1; j < here.size(); ++j) {
        for (const Meeting& m : meetings(here[i], here[j])) at(SnapTo::Crossing).consider(m.place);
      }
    }
  }
  for (std::size_t k = 0; k < kSnaps; ++k) {
    const auto to = static_cast<SnapTo>(k);
    if (wanted.count(to) != 0 && found[k].best()) return Snapped{*found[k].best(), to};
  }
  return std::nullopt;
}

}  // namespace rim::refine
