#include "core/refine/measure/webs.h"

#include <algorithm>
#include <cmath>

#include "core/for_all.h"
#include "core/geometry/arc.h"
#include "core/geometry/box_index.h"
#include "core/geometry/curve_form.h"
#include "core/geometry/intersect.h"
#include "core/geometry/segment.h"
#include "core/refine/combine/monotone.h"

namespace rim::refine {
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

  const std::vector<Box>& boxes() const { return boxes_; }
  const BoxIndex& index() const { return index_; }

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
  /// `known`: what shall be undercut.
  Shortest(const Borders& borders, const ThinPlaces& known) : borders_(borders), places_(known) {}

  void offer(Point a, Point b) {
    const double mm = distance(a, b);
    if (mm <= kShortest) return;
    // Among likes the last digits decide nothing.
    const bool forWeb = !places_.web || mm < places_.web->mm - kShortest;
    const bool forGap = !places_.gap || mm < places_.gap->mm - kShortest;
    if ((!forWeb && !forGap) || !borders_.isFree(a, b)) return;
    const Point middle = lerp(a, b, 0.5);
    const bool material = borders_.inMaterial(middle);
    if (material && forWeb) places_.web = Across{mm, middle, a, b};
    if (!material && forGap) places_.gap = Across{mm, middle, a, b};
  }

  const ThinPlaces& places() const { return places_; }

  /// How far there is still something to look for.
  double reach(double most) const {
    return places_.web && places_.gap ? std::min(most, std::max(places_.web->mm, places_.gap->mm)) : most;
  }

 private:
  const Borders& borders_;
  ThinPlaces places_;
};

/// Neighbours in a row, that are looked round together: their surroundings are nearly the same.
struct Group {
  std::size_t begin, end;
  Box box;
};

/// Parts boxes that follow each other into groups that are hardly wider than `reach`.
std::vector<Group> groupsOf(const std::vector<Box>& boxes, double reach) {
  std::vector<Group> groups;
  constexpr double kWide = 3;
  for (std::size_t i = 0; i < boxes.size(); ++i) {
    Box with = groups.empty() ? Box{} : groups.back().box;
    with.include(boxes[i]);
    const bool fits = !groups.empty() && std::max(with.width(), with.height()) <= kWide * reach;
    if (!fits) groups.push_back({i, i, boxes[i]});
    groups.back().end = i + 1;
    if (fits) groups.back().box = with;
  }
  return groups;
}

bool isNear(const Box& a, const Box& b, double reach) {
  return a.low.x - reach <= b.high.x && b.low.x - reach <= a.high.x && a.low.y - reach <= b.high.y &&
         b.low.y - reach <= a.high.y;
}

std::vector<std::size_t> around(const BoxIndex& index, const Box& box, double reach) {
  std::vector<std::size_t> found;
  index.near(box, reach, [&found](std::size_t i) { found.push_back(i); });
  std::sort(found.begin(), found.end());
  return found;
}

void offerFromSides(const Borders& borders, const Group& group, double reach, Shortest& shortest) {
  const std::vector<std::size_t> others = around(borders.index(), group.box, shortest.reach(reach));
  for (std::size_t i = group.begin; i < group.end; ++i) {
    const Side& side = borders.sides()[i];
    const double far = shortest.reach(reach);
    const auto take = [&](Point a, Point b) {
      if (distance(a, b) <= far) shortest.offer(a, b);
    };
    for (const std::size_t j : others) {
      const Side& other = borders.sides()[j];
      if (j >= i && isNear(side.box, other.box, far)) eachWay(side.piece, other.piece, take);
    }
  }
}

/// Calls `visit` with every place of a side that is square to the way from a point.
template <class Visit>
void eachFoot(const Piece& piece, Point from, const Visit& visit) {
  if (isArc(piece.segment)) {
    const Arc arc = arcOf(piece);
    const Point line = unit(from - arc.centre);
    for (const double way : {1.0, -1.0}) {
      const Point on = arc.centre + line * (way * arc.radius);
      if (isOn(piece, on)) visit(on);
    }
  } else {
    const Point u = unit(piece.segment.end - piece.start);
    const Point foot = piece.start + u * dot(from - piece.start, u);
    if (isOn(piece, foot)) visit(foot);
  }
}

void offerFromCorners(const Borders& borders, const Group& group, const BoxIndex& corners, double reach,
                      Shortest& shortest) {
  const std::vector<std::size_t> sides = around(borders.index(), group.box, shortest.reach(reach));
  const std::vector<std::size_t> others = around(corners, group.box, shortest.reach(reach));
  for (std::size_t i = group.begin; i < group.end; ++i) {
    const Corner& corner = borders.corners()[i];
    const double far = shortest.reach(reach);
    Box spot;
    spot.include(corner.place);
    const auto take = [&](Point to) {
      const double mm = distance(corner.place, to);
      if (mm > kShortest && mm <= far && isSquare(corner, unit(to - corner.place))) shortest.offer(corner.place, to);
    };
    for (const std::size_t j : sides) {
      if (isNear(spot, borders.sides()[j].box, far)) eachFoot(borders.sides()[j].piece, corner.place, take);
    }
    for (const std::size_t j : others) {
      const Corner& other = borders.corners()[j];
      if (isSquare(other, unit(corner.place - other.place))) take(other.place);
    }
  }
}

std::vector<Box> spotsOf(const std::vector<Corner>& corners) {
  std::vector<Box> spots(corners.size());
  for (std::size_t i = 0; i < corners.size(); ++i) spots[i].include(corners[i].place);
  return spots;
}

/// The shortest web and gap within `reach`. Parts of the borders are looked through side by side; the first of them
/// says what the others have to undercut, so that what is found does not depend on how many processors there are.
ThinPlaces shortestWithin(const Borders& borders, const std::vector<Box>& spots, const BoxIndex& corners, double reach,
                          const std::stop_token& stop) {
  constexpr std::size_t kAtOnce = 256;
  const std::vector<Group> sides = groupsOf(borders.boxes(), reach);
  const std::vector<Group> turns = groupsOf(spots, reach);
  const std::size_t all = sides.size() + turns.size();
  const auto lookThrough = [&](std::size_t part, const ThinPlaces& known) {
    Shortest shortest(borders, known);
    for (std::size_t i = part * kAtOnce; i < std::min(all, (part + 1) * kAtOnce); ++i) {
      if (i < sides.size()) {
        offerFromSides(borders, sides[i], reach, shortest);
      } else {
        offerFromCorners(borders, turns[i - sides.size()], corners, reach, shortest);
      }
    }
    return shortest.places();
  };
  ThinPlaces best = lookThrough(0, {});
  std::vector<ThinPlaces> others((all - 1) / kAtOnce, best);
  WorkControl control;
  control.stop = stop;
  forAll(others.size(), control, [&](std::size_t i) { others[i] = lookThrough(i + 1, best); });
  for (const ThinPlaces& other : others) {
    if (other.web && (!best.web || other.web->mm < best.web->mm)) best.web = other.web;
    if (other.gap && (!best.gap || other.gap->mm < best.gap->mm)) best.gap = other.gap;
  }
  return best;
}

}  // namespace

ThinPlaces thinPlaces(const Drawing& drawing, const std::stop_token& stop) {
  const Borders borders(drawing);
  if (borders.sides().empty()) return {};
  const std::vector<Box> spots = spotsOf(borders.corners());
  const BoxIndex corners(spots);
  const Box& all = borders.all();
  const double size = distance(all.low, all.high);
  constexpr double kFewestSteps = 256;
  constexpr double kFarther = 4;
  const double steps = std::max(kFewestSteps, 4 * std::sqrt(static_cast<double>(borders.sides().size())));
  ThinPlaces found;
  for (double reach = size / steps;; reach *= kFarther) {
    const ThinPlaces here = shortestWithin(borders, spots, corners, reach, stop);
    // What was found within the reach is the shortest there is.
    if (!found.web) found.web = here.web;
    if (!found.gap) found.gap = here.gap;
    if ((found.web && found.gap) || reach > size) return found;
  }
}

}  // namespace rim::refine
