#include "core/refine/propose/likes.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <optional>

#include "core/geometry/circle.h"
#include "core/refine/propose/exact_shapes.h"
#include "core/trace/fit/primitive.h"

namespace rim::refine {
namespace {

constexpr double kExactMm = 1e-9;

struct Circle {
  std::size_t outline = 0;
  CircleOf circle;
};

std::vector<Circle> circlesOf(const Drawing& drawing) {
  std::vector<Circle> circles;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (const auto circle = circleOf(drawing.path(i))) circles.push_back({i, *circle});
  }
  return circles;
}

/// Groups of things of which each is near the first of its group.
template <class Thing>
std::vector<std::vector<Thing>> grouped(const std::vector<Thing>& things,
                                        const std::function<bool(const Thing&, const Thing&)>& near) {
  std::vector<std::vector<Thing>> groups;
  for (const Thing& thing : things) {
    const auto group =
        std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return near(g.front(), thing); });
    if (group == groups.end()) {
      groups.push_back({thing});
    } else {
      group->push_back(thing);
    }
  }
  std::erase_if(groups, [](const auto& g) { return g.size() < 2; });
  return groups;
}

void add(Proposal& proposal, const Drawing& drawing, std::size_t outline, Path path, double moved, Point at) {
  if (moved <= kExactMm) return;
  if (proposal.paths.empty()) proposal.outline = drawing.outlines[outline].id;
  proposal.paths.push_back({drawing.outlines[outline].id, std::move(path)});
  if (moved > proposal.movedMm) {
    proposal.movedMm = moved;
    proposal.at = at;
  }
}

void addCircle(Proposal& proposal, const Drawing& drawing, const Circle& c, CircleOf wanted) {
  const double moved = distance(c.circle.centre, wanted.centre) + std::abs(c.circle.radius - wanted.radius);
  const double turn = signedArea(drawing.path(c.outline)) > 0 ? 1 : -1;
  add(proposal, drawing, c.outline, circlePathOf(wanted.centre, wanted.radius, turn), moved, c.circle.centre);
}

std::vector<Proposal> kept(std::vector<Proposal> proposals, double withinMm) {
  std::erase_if(proposals, [withinMm](const Proposal& p) { return p.paths.empty() || p.movedMm > withinMm; });
  return proposals;
}

/// A closed outline as one of several that are alike.
struct Like {
  std::size_t outline = 0;
  Point middle;
  Point size;
  double area = 0;
};

std::vector<Like> likesOf(const Drawing& drawing) {
  std::vector<Like> likes;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const Path& path = drawing.path(i);
    if (!path.closed) continue;
    const Box box = boxOf(path);
    likes.push_back({i, lerp(box.low, box.high, 0.5), {box.width(), box.height()}, signedArea(path)});
  }
  return likes;
}

void addMove(Proposal& proposal, const Drawing& drawing, const Like& like, Point to) {
  add(proposal, drawing, like.outline, scaled(drawing.path(like.outline), 1, to - like.middle),
      distance(like.middle, to), to);
}

/// In a row: between the first and the last, which stay, all at one distance on one line.
Proposal inRow(const Drawing& drawing, std::vector<Like> likes) {
  Point low = likes.front().middle;
  Point high = low;
  for (const Like& a : likes) {
    for (const Like& b : likes) {
      if (distance(a.middle, b.middle) <= distance(low, high)) continue;
      low = a.middle;
      high = b.middle;
    }
  }
  const Point way = unit(high - low);
  std::sort(likes.begin(), likes.end(),
            [&](const Like& a, const Like& b) { return dot(a.middle - low, way) < dot(b.middle - low, way); });
  Proposal proposal;
  proposal.kind = TrueUpKind::Spacing;
  for (std::size_t i = 0; i < likes.size(); ++i)
    addMove(proposal, drawing, likes[i],
            lerp(low, high, static_cast<double>(i) / static_cast<double>(likes.size() - 1)));
  return proposal;
}

/// All round a circle, each as many degrees from the next.
std::optional<Proposal> onOneCircle(const Drawing& drawing, std::vector<Like> likes) {
  std::vector<Point> middles;
  for (const Like& like : likes) middles.push_back(like.middle);
  const auto circle = trace::fit::fitCircle(middles);
  if (!circle || circle->kind != trace::fit::Primitive::Kind::Circle) return {};
  const auto angleOf = [&](const Like& like) {
    const Point arm = like.middle - circle->place;
    return std::atan2(arm.y, arm.x);
  };
  std::sort(likes.begin(), likes.end(), [&](const Like& a, const Like& b) { return angleOf(a) < angleOf(b); });
  const double step = 2 * std::numbers::pi / static_cast<double>(likes.size());
  double first = 0;
  for (std::size_t i = 0; i < likes.size(); ++i) first += angleOf(likes[i]) - static_cast<double>(i) * step;
  first /= static_cast<double>(likes.size());
  Proposal proposal;
  proposal.kind = TrueUpKind::Spacing;
  for (std::size_t i = 0; i < likes.size(); ++i) {
    const double angle = first + static_cast<double>(i) * step;
    addMove(proposal, drawing, likes[i],
            circle->place + Point{std::cos(angle), std::sin(angle)} * std::abs(circle->radius));
  }
  return proposal;
}

}  // namespace

std::vector<Proposal> equalRadii(const Drawing& drawing, double withinMm) {
  std::vector<Proposal> proposals;
  for (const auto& group : grouped<Circle>(circlesOf(drawing), [withinMm](const Circle&a, const Circle&b) {
         return std::abs(a.circle.radius - b.circle.radius) <= withinMm;
       })) {
    double sum = 0;
    for (const Circle& c : group) sum += c.circle.radius;
    Proposal proposal;
    proposal.kind = TrueUpKind::Radii;
    for (const Circle& c : group)
      addCircle(proposal, drawing, c, {c.circle.centre, sum / static_cast<double>(group.size())});
    proposals.push_back(std::move(proposal));
  }
  return kept(std::move(proposals), withinMm);
}

std::vector<Proposal> concentric(const Drawing& drawing, double withinMm) {
  std::vector<Proposal> proposals;
  for (const auto& group : grouped<Circle>(circlesOf(drawing), [withinMm](const Circle&a, const Circle&b) {
         return distance(a.circle.centre, b.circle.centre) <= withinMm;
       })) {
    const auto largest = std::max_element(
        group.begin(), group.end(), [](const Circle& a, const Circle& b) { return a.circle.radius < b.circle.radius; });
    Proposal proposal;
    proposal.kind = TrueUpKind::Concentric;
    for (const Circle& c : group) addCircle(proposal, drawing, c, {largest->circle.centre, c.circle.radius});
    proposals.push_back(std::move(proposal));
  }
  return kept(std::move(proposals), withinMm);
}

std::vector<Proposal> evenlySpaced(const Drawing& drawing, double withinMm) {
  std::vector<Proposal> proposals;
  for (const auto& group : grouped<Like>(likesOf(drawing), [withinMm](const Like&a, const Like&b) {
         constexpr double kSameArea = 0.03;
         return distance(a.size, b.size) <= withinMm && std::abs(a.area - b.area) <= kSameArea * std::abs(a.area);
       })) {
    if (group.size() < 3) continue;
    const Proposal row = inRow(drawing, group);
    const auto round = onOneCircle(drawing, group);
    if (row.movedMm <= withinMm) {
      proposals.push_back(row);
    } else if (round) {
      proposals.push_back(*round);
    }
  }
  return kept(std::move(proposals), withinMm);
}

}  // namespace rim::refine
