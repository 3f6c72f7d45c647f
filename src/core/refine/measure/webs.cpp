#include "core/refine/measure/webs.h"

#include <algorithm>
#include <cmath>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/geometry/box_index.h"
#include "core/geometry/curve_form.h"
#include "core/geometry/intersect.h"
#include "core/geometry/segment.h"
#include "core/refine/combine/monotone.h"

namespace rim {
namespace {

constexpr double kOnMm = 1e-6;      // a way that begins this near to a border's end begins at it
constexpr double kSquare = 1e-6;    // the cosine of what is still square
constexpr double kShortest = 1e-5;  // mm; what is shorter is where borders touch

struct Side {
  Piece piece;
  Box box;
};

/// A node where a border turns.
struct Corner {
  Point place;
  Point in;   ///< unit tangent arriving
  Point out;  ///< unit tangent leaving
};

/// All borders of a drawing, and the ways between them.
class Borders {
 public:
  explicit Borders(const Drawing& drawing)
      : index_(gathered(drawing, sides_, corners_, boxes_)), levels_(leveled(sides_, parts_)) {
    for (const Box& box : boxes_) all_.include(box);
  }

  const std::vector<Side>& sides() const { return sides_; }
  const std::vector<Corner>& corners() const { return corners_; }

  template <class Visit>
  void near(const Box& box, double reach, const Visit& visit) const {
    index_.near(box, reach, visit);
  }

  /// Whether a place lies in material: how many borders a ray to its right crosses.
  bool inMaterial(Point p) const {
    Box ray;
    ray.include(p);
    ray.include(Point{all_.high.x + 1, p.y});
    bool inside = false;
    levels_.near(ray, 0, [&](std::size_t i) {
      const Piece& part = parts_[i];
      const double low = std::min(part.start.y, part.segment.end.y);
      const double high = std::max(part.start.y, part.segment.end.y);
      // A node on the ray belongs to what lies above it, so that it counts once.
      if (p.y >= low && p.y < high && crossingAt(part, p.y, false) > p.x) inside = !inside;
    });
    return inside;
  }

  /// Whether a way crosses no border between its ends.
  bool isFree(Point a, Point b) const {
    const Point way = unit(b - a);
    const double size = distance(a, b);
    const double skip = std::min(10 * kOnMm, size / 100);
    const Piece line{a + way * skip, Segment::line(b - way * skip)};
    bool free = true;
    index_.near(boxOf(line), kOnMm, [&](std::size_t i) { free = free && meetings(sides_[i].piece, line).empty(); });
    return free;
  }

  const Box& all() const { return all_; }

 private:
  static const std::vector<Box>& gathered(const Drawing& drawing, std::vector<Side>& sides,
                                          std::vector<Corner>& corners, std::vector<Box>& boxes) {
    constexpr double kArcMm = 1e-4;
    for (std::size_t o = 0; o < drawing.outlines.size(); ++o) {
      if (!drawing.path(o).closed) continue;
      const Path path = inForm(drawing.path(o), CurveForm::Arcs, kArcMm);
      const std::size_t n = path.segments.size();
      for (std::size_t i = 0; i < n; ++i) {
        const Piece piece = pieceOf(path, i);
        if (lengthOf(piece) <= kOnMm) continue;
        sides.push_back({piece, boxOf(piece)});
        boxes.push_back(sides.back().box);
        const Point in = tangentAt(pieceOf(path, (i + n - 1) % n), 1);
        const Point out = tangentAt(piece, 0);
        constexpr double kTurn = 1e-3;
        if (std::abs(angleBetween(in, out)) > kTurn) corners.push_back({piece.start, in, out});
      }
    }
    return boxes;
  }

  /// The sides in parts that only rise or only fall.
  static std::vector<Box> leveled(const std::vector<Side>& sides, std::vector<Piece>& parts) {
    std::vector<Box> boxes;
    for (const Side& side : sides) {
      const std::vector<double> cuts = monotoneCuts(side.piece);
      Point start = side.piece.start;
      for (std::size_t c = 0; c + 1 < cuts.size(); ++c) {
        Segment part = partOf(side.piece.start, side.piece.segment, cuts[c], cuts[c + 1]);
        if (c + 2 == cuts.size()) part.end = side.piece.segment.end;
        parts.push_back({start, part});
        boxes.emplace_back();
        boxes.back().include(start);
        boxes.back().include(part.end);
        start = part.end;
      }
    }
    return boxes;
  }

  std::vector<Side> sides_;
  std::vector<Corner> corners_;
  std::vector<Box> boxes_;
  std::vector<Piece> parts_;
  Box all_;
  BoxIndex index_;
  BoxIndex levels_;
};

bool isOn(const Piece& piece, Point p) { return distanceTo(piece, p) <= kOnMm; }

Arc arcOf(const Piece& piece) { return arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge); }

/// Calls `visit` with every straight way that meets both sides squarely.
template <class Visit>
void eachWay(const Piece& a, const Piece& b, const Visit& visit) {
  const bool bentA = isArc(a.segment);
  const bool bentB = isArc(b.segment);
  if (!bentA && !bentB) {
    const Point u = unit(a.segment.end - a.start);
    const Point v = unit(b.segment.end - b.start);
    if (std::abs(cross(u, v)) > kSquare) return;
    const auto along = [&](Point p) { return dot(p - a.start, u); };
    const double low = std::max(0.0, std::min(along(b.start), along(b.segment.end)));
    const double high = std::min(along(a.segment.end), std::max(along(b.start), along(b.segment.end)));
    if (high < low) return;
    const Point p = a.start + u * ((low + high) / 2);
    visit(p, b.start + v * dot(p - b.start, v));
  } else if (bentA && bentB) {
    const Arc p = arcOf(a);
    const Arc q = arcOf(b);
    if (distance(p.centre, q.centre) <= kOnMm) {
      // About one centre: anywhere both pass the same spoke, or opposite ones.
      for (const double t : {0.0, 0.25, 0.5, 0.75, 1.0}) {
        const Point spoke = unit(pointAt(a, t) - p.centre);
        for (const double way : {1.0, -1.0}) {
          const Point from = p.centre + spoke * p.radius;
          const Point to = q.centre + spoke * (way * q.radius);
          if (isOn(b, to)) visit(from, to);
        }
      }
      return;
    }
    const Point line = unit(q.centre - p.centre);
    for (const double i : {1.0, -1.0}) {
      for (const double j : {1.0, -1.0}) {
        const Point from = p.centre + line * (i * p.radius);
        const Point to = q.centre + line * (j * q.radius);
        if (isOn(a, from) && isOn(b, to)) visit(from, to);
      }
    }
  } else {
    const Piece& straight = bentA ? b : a;
    const Piece& bent = bentA ? a : b;
    const Arc arc = arcOf(bent);
    const Point u = unit(straight.segment.end - straight.start);
    const Point foot = straight.start + u * dot(arc.centre - straight.start, u);
    if (!isOn(straight, foot)) return;
    const Point normal = leftNormal(u);
    for (const double i : {1.0, -1.0}) {
      const Point on = arc.centre + normal * (i * arc.radius);
      if (isOn(bent, on)) visit(foot, on);
    }
  }
}

/// Whether no border leads nearer to where `way` (unit, from the corner) goes.
bool isSquare(const Corner& corner, Point way) {
  return dot(way, corner.in) >= -kSquare && dot(way, corner.out) <= kSquare;
}

/// Keeps the shortest of each.
class Shortest {
 public:
  explicit Shortest(const Borders& borders) : borders_(borders) {}

  void offer(Point a, Point b) {
    const double mm = distance(a, b);
    if (mm <= kShortest) return;
    const bool forWeb = !places_.web || mm < places_.web->mm;
    const bool forGap = !places_.gap || mm < places_.gap->mm;
    if ((!forWeb && !forGap) || !borders_.isFree(a, b)) return;
    const Point middle = lerp(a, b, 0.5);
    const bool material = borders_.inMaterial(middle);
    if (material && forWeb) places_.web = Across{mm, middle, a, b};
    if (!material && forGap) places_.gap = Across{mm, middle, a, b};
  }

  const ThinPlaces& places() const { return places_; }

 private:
  const Borders& borders_;
  ThinPlaces places_;
};

void offerFromSide(const Borders& borders, std::size_t i, double reach, Shortest& shortest) {
  const Side& side = borders.sides()[i];
  const auto take = [&](Point a, Point b) {
    if (distance(a, b) <= reach) shortest.offer(a, b);
  };
  borders.near(side.box, reach, [&](std::size_t j) {
    if (j >= i) eachWay(side.piece, borders.sides()[j].piece, take);
  });
}

void offerFromCorner(const Borders& borders, const Corner& corner, const BoxIndex& corners, double reach,
                     Shortest& shortest) {
  Box spot;
  spot.include(corner.place);
  const auto take = [&](Point to) {
    const double mm = distance(corner.place, to);
    if (mm > kShortest && mm <= reach && isSquare(corner, unit(to - corner.place))) shortest.offer(corner.place, to);
  };
  borders.near(spot, reach, [&](std::size_t j) {
    const Piece& piece = borders.sides()[j].piece;
    if (isArc(piece.segment)) {
      const Arc arc = arcOf(piece);
      const Point line = unit(corner.place - arc.centre);
      for (const double way : {1.0, -1.0}) {
        const Point on = arc.centre + line * (way * arc.radius);
        if (isOn(piece, on)) take(on);
      }
    } else {
      const Point u = unit(piece.segment.end - piece.start);
      const Point foot = piece.start + u * dot(corner.place - piece.start, u);
      if (isOn(piece, foot)) take(foot);
    }
  });
  corners.near(spot, reach, [&](std::size_t j) {
    const Corner& other = borders.corners()[j];
    if (isSquare(other, unit(corner.place - other.place))) take(other.place);
  });
}

}  // namespace

ThinPlaces thinPlaces(const Drawing& drawing, const std::stop_token& stop) {
  const Borders borders(drawing);
  if (borders.sides().empty()) return {};
  std::vector<Box> spots;
  for (const Corner& corner : borders.corners()) {
    spots.emplace_back();
    spots.back().include(corner.place);
  }
  const BoxIndex corners(spots);
  const Box& all = borders.all();
  const double size = distance(all.low, all.high);
  constexpr double kFirstShare = 1.0 / 256;
  constexpr double kFarther = 4;
  ThinPlaces found;
  for (double reach = size * kFirstShare;; reach *= kFarther) {
    Shortest shortest(borders);
    for (std::size_t i = 0; i < borders.sides().size(); ++i) {
      if (stop.stop_requested()) throw Cancelled();
      offerFromSide(borders, i, reach, shortest);
    }
    for (const Corner& corner : borders.corners()) offerFromCorner(borders, corner, corners, reach, shortest);
    // What was found within the reach is the shortest there is.
    if (!found.web) found.web = shortest.places().web;
    if (!found.gap) found.gap = shortest.places().gap;
    if ((found.web && found.gap) || reach > size) return found;
  }
}

}  // namespace rim
