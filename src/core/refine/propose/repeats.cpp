#include "core/refine/propose/repeats.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/drawing/nested.h"
#include "core/error.h"
#include "core/geometry/affine.h"
#include "core/geometry/circle.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/refine/propose/closest_pairs.h"
#include "core/refine/propose/exact_shapes.h"

namespace rim::refine {
namespace {

constexpr double kOnePartMm = 1e-6;  // parts that are as near as that are one already

/// A border with its holes.
struct Part {
  std::vector<std::size_t> outlines;  ///< the border first
  std::vector<Point> places;          ///< evenly along the border
  Point middle;                       ///< the mean of these
  double area = 0;
  double length = 0;
  double room = 0;  ///< that its places may be off, mm
  std::size_t segments = 0;
};

Part partOf(const Drawing& drawing, std::vector<std::size_t> outlines, double withinMm) {
  constexpr int kPlacesAlong = 160;
  constexpr double kShareOfSide = 1.0 / 60;
  const Outline& border = drawing.outlines[outlines.front()];
  Part part;
  part.places = placesAlong(border.path(), kPlacesAlong);
  for (const Point p : part.places) part.middle = part.middle + p * (1 / static_cast<double>(part.places.size()));
  part.area = std::abs(signedArea(border.path()));
  part.length = pathLength(border.path());
  part.room = std::min(withinMm, kShareOfSide * std::min(border.box().width(), border.box().height()));
  for (const std::size_t i : outlines) part.segments += drawing.path(i).segments.size();
  part.outlines = std::move(outlines);
  return part;
}

/// Whether two parts could be one, without a look at their shape.
bool mayBeLike(const Drawing& drawing, const Part& a, const Part& b) {
  constexpr double kWavering = 0.2;  // a shaky border is longer than a calm one
  return a.outlines.size() == b.outlines.size() && onOneLayer(drawing, a.outlines.front(), b.outlines.front()) &&
         std::abs(a.area - b.area) <= std::min(a.room, b.room) * std::min(a.length, b.length) &&
         std::abs(a.length - b.length) <= kWavering * std::min(a.length, b.length);
}

/// How far the farthest mapped place lies from the border; looked at no longer than until one lies farther than
/// `most`.
double farthest(const NearestOnPaths& border, const std::vector<Point>& places, const Affine& map, double most) {
  double far = 0;
  for (const Point p : places) {
    far = std::max(far, border.distanceTo(map(p)));
    if (far > most) break;
  }
  return far;
}

double misfit(const NearestOnPaths& border, const std::vector<Point>& places, const Affine& map) {
  constexpr std::size_t kEvery = 5;
  double sum = 0;
  for (std::size_t i = 0; i < places.size(); i += kEvery) sum += border.distanceTo(map(places[i]));
  return sum;
}

/// A turn and a shift, after which the map brings the places onto the border better (least squares of closest places,
/// closed form for the plane).
Affine inPlace(const NearestOnPaths& border, const std::vector<Point>& places, Affine map, double reach) {
  constexpr int kMostRounds = 150;
  constexpr std::size_t kFewestPairs = 3;
  for (int round = 0; round < kMostRounds; ++round) {
    const ClosestPairs closest = closestPairs(places, map, border, reach);
    if (closest.pairs.size() < kFewestPairs) break;
    const Point p = map(closest.from);
    const Point q = closest.to;
    double c = 0;
    double s = 0;
    for (const auto& [from, to] : closest.pairs) {
      const Point u = map(from) - p;
      const Point v = to - q;
      c += dot(u, v);
      s += cross(u, v);
    }
    const double turn = std::atan2(s, c);
    map = shift(q) * rotation(turn) * shift(-p) * map;
    if (std::abs(turn) * reach < kOnePartMm / 100 && length(q - p) < kOnePartMm / 100) break;
  }
  return map;
}

/// The map that brings `part` onto the border of `of` within its room; none: they are not alike.
std::optional<Affine> ontoBorder(const NearestOnPaths& border, const Part& part, const Part& of, double room) {
  constexpr double kReach = 8;  // times the room: what is nearly there settles
  const Affine moved = shift(of.middle - part.middle);
  const auto settled = [&](const Affine& from) { return inPlace(border, part.places, from, kReach * room); };
  const double off = farthest(border, part.places, moved, kReach * room);
  if (off <= kOnePartMm) return moved;
  if (off <= kReach * room) {
    const Affine map = settled(moved);
    if (farthest(border, part.places, map, room) <= room) return map;
  }
  constexpr int kTurns = 36;
  std::vector<std::pair<double, Affine>> tried;
  for (const bool mirrored : {false, true}) {
    for (int k = 0; k < kTurns; ++k) {
      const Affine turn = rotation(2 * std::numbers::pi * k / kTurns) * scale(1, mirrored ? -1 : 1);
      const Affine map = shift(of.middle) * turn * shift(-part.middle);
      tried.emplace_back(misfit(border, part.places, map), map);
    }
  }
  std::sort(tried.begin(), tried.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  constexpr std::size_t kBest = 3;
  for (std::size_t i = 0; i < kBest; ++i) {
    const Affine map = inPlace(border, part.places, tried[i].second, part.length / 10);
    if (farthest(border, part.places, map, room) <= room) return map;
  }
  return {};
}

/// The path of `of` as an outline of the part would be: running the way that one does.
Path asIn(const Path& of, const Affine& back, const Path& now) {
  constexpr double kTolerance = 1e-6;
  const Path path = transformed(of, back, kTolerance);
  return (signedArea(path) > 0) == (signedArea(now) > 0) ? path : reversed(path);
}

/// A part as it would be: a path for each of its outlines.
struct Made {
  std::vector<ProposedPath> paths;
  Apart apart;  ///< the most that anything moves
};

/// The part made of `best`; none when a hole has no like.
std::optional<Made> madeOf(const Drawing& drawing, const Part& part, const Part& best, const Affine& onto,
                           double room) {
  const Affine back = inverse(onto);
  Made made;
  std::vector<std::size_t> left = best.outlines;
  for (const std::size_t i : part.outlines) {
    const Path& now = drawing.path(i);
    std::optional<std::size_t> like;
    Apart nearest{room, {}};
    for (std::size_t k = 0; k < left.size(); ++k) {
      if (i == part.outlines.front() && k > 0) break;
      const Apart apart = apartBy(now, asIn(drawing.path(left[k]), back, now));
      if (apart.mm > nearest.mm) continue;
      nearest = apart;
      like = k;
    }
    if (!like) return {};
    made.paths.push_back({drawing.outlines[i].id, asIn(drawing.path(left[*like]), back, now)});
    left.erase(left.begin() + static_cast<std::ptrdiff_t>(*like));
    if (nearest.mm > made.apart.mm) made.apart = nearest;
  }
  return made;
}

/// All parts of a group made of the best of them.
Proposal proposalFor(const Drawing& drawing, const std::vector<const Part*>& group) {
  Proposal proposal;
  proposal.kind = TrueUpKind::Repeats;
  const Part& best = **std::min_element(group.begin(), group.end(),
                                        [](const Part* a, const Part* b) { return a->segments < b->segments; });
  proposal.outline = drawing.outlines[best.outlines.front()].id;
  const NearestOnPaths border(Paths(drawing.path(best.outlines.front())));
  for (const Part* part : group) {
    if (part == &best) continue;
    const double room = std::min(part->room, best.room);
    const auto onto = ontoBorder(border, *part, best, room);
    if (!onto) continue;
    const auto made = madeOf(drawing, *part, best, *onto, room);
    if (!made || made->apart.mm < kOnePartMm) continue;
    proposal.paths.insert(proposal.paths.end(), made->paths.begin(), made->paths.end());
    if (made->apart.mm <= proposal.movedMm) continue;
    proposal.movedMm = made->apart.mm;
    proposal.at = made->apart.at;
  }
  return proposal;
}

}  // namespace

std::vector<Proposal> repeatedParts(const Drawing& drawing, double withinMm, const std::stop_token& stop) {
  std::vector<Part> parts;
  for (std::vector<std::size_t>& area : areasOf(drawing)) {
    const Path& border = drawing.path(area.front());
    if (circleOf(border) || !(drawing.outlines[area.front()].box().width() > 0)) continue;
    parts.push_back(partOf(drawing, std::move(area), withinMm));
  }
  std::sort(parts.begin(), parts.end(), [](const Part& a, const Part& b) { return a.area < b.area; });
  std::vector<bool> taken(parts.size(), false);
  std::vector<Proposal> found;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    if (taken[i]) continue;
    std::vector<const Part*> group{&parts[i]};
    const NearestOnPaths border(Paths(drawing.path(parts[i].outlines.front())));
    for (std::size_t k = i + 1; k < parts.size(); ++k) {
      if (stop.stop_requested()) throw Cancelled();
      if (parts[k].area - parts[i].area > parts[i].room * parts[i].length) break;
      if (taken[k] || !mayBeLike(drawing, parts[i], parts[k])) continue;
      if (!ontoBorder(border, parts[k], parts[i], std::min(parts[i].room, parts[k].room))) continue;
      taken[k] = true;
      group.push_back(&parts[k]);
    }
    if (group.size() < 2) continue;
    Proposal proposal = proposalFor(drawing, group);
    if (!proposal.paths.empty()) found.push_back(std::move(proposal));
  }
  return found;
}

}  // namespace rim::refine
