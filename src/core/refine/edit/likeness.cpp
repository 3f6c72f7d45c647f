#include "core/refine/edit/likeness.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/geometry/intersect.h"
#include "core/geometry/nesting.h"
#include "core/geometry/point_in_polygon.h"
#include "core/geometry/segment.h"

namespace rim::refine {
namespace {

std::vector<std::size_t> placesIn(const Drawing& drawing, const std::set<OutlineId>& outlines) {
  std::vector<std::size_t> places;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (outlines.count(drawing.outlines[i].id) != 0) places.push_back(i);
  }
  return places;
}

std::set<OutlineId> thoseWhere(const Drawing& drawing, const std::function<bool(std::size_t)>& is) {
  std::set<OutlineId> found;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (is(i)) found.insert(drawing.outlines[i].id);
  }
  return found;
}

struct Extent {
  double shorter = 0;
  double longer = 0;
};

Extent extentOf(const Path& path) {
  const Box box = boxOf(path);
  return {std::min(box.width(), box.height()), std::max(box.width(), box.height())};
}

bool isAsLarge(const Extent& a, const Extent& b) {
  constexpr double kShare = 0.05;
  const double most = kShare * std::max(a.longer, b.longer);
  return std::abs(a.shorter - b.shorter) <= most && std::abs(a.longer - b.longer) <= most;
}

std::set<OutlineId> ofSize(const Drawing& drawing, const std::vector<std::size_t>& to) {
  std::vector<Extent> extents;
  for (const std::size_t place : to) extents.push_back(extentOf(drawing.path(place)));
  return thoseWhere(drawing, [&](std::size_t i) {
    const Extent own = extentOf(drawing.path(i));
    return std::any_of(extents.begin(), extents.end(), [&](const Extent& e) { return isAsLarge(own, e); });
  });
}

std::set<OutlineId> noLarger(const Drawing& drawing, const std::vector<std::size_t>& to) {
  Extent largest;
  for (const std::size_t place : to) {
    const Extent own = extentOf(drawing.path(place));
    largest = {std::max(largest.shorter, own.shorter), std::max(largest.longer, own.longer)};
  }
  return thoseWhere(drawing, [&](std::size_t i) {
    const Extent own = extentOf(drawing.path(i));
    return own.shorter <= largest.shorter && own.longer <= largest.longer;
  });
}

bool startsIn(const Drawing& drawing, const Path& open, const std::vector<std::size_t>& to) {
  return !open.segments.empty() && std::any_of(to.begin(), to.end(), [&](std::size_t place) {
    const Path& round = drawing.path(place);
    return round.closed && boxOf(round).contains(open.start) && PointInPolygon(round).has(open.start);
  });
}

/// Whether some outline of `to` lies round each, directly or at any depth. Open outlines lie where they start.
std::vector<bool> liesIn(const Drawing& drawing, const std::vector<std::size_t>& to, bool directly) {
  const Nesting nesting = nestingOf(pathsOf(drawing));
  std::vector<bool> given(drawing.outlines.size(), false);
  for (const std::size_t place : to) given[place] = true;
  std::vector<bool> lies(drawing.outlines.size(), false);
  for (std::size_t i = 0; i < lies.size(); ++i) {
    lies[i] = !drawing.path(i).closed && startsIn(drawing, drawing.path(i), to);
    for (auto round = nesting.parent[i]; round && !lies[i]; round = nesting.parent[*round]) {
      lies[i] = given[*round];
      if (directly) break;
    }
  }
  return lies;
}

bool crosses(const Path& a, const Path& b) {
  const Box box = boxOf(b);
  for (std::size_t i = 0; i < a.segments.size(); ++i) {
    const Piece piece = pieceOf(a, i);
    if (apart(boxOf(piece), box, 0)) continue;
    for (std::size_t k = 0; k < b.segments.size(); ++k) {
      const Piece other = pieceOf(b, k);
      if (!apart(boxOf(piece), boxOf(other), 0) && !meetings(piece, other).empty()) return true;
    }
  }
  return false;
}

/// Whether one of two parts is a dot or an accent of the other: much smaller, above or below it, and not far off.
bool isDotOf(const Box& dot, const Box& stem) {
  constexpr double kMostHeight = 0.55;
  constexpr double kMostArea = 0.35;
  constexpr double kOverlap = 0.6;
  constexpr double kMostGap = 0.5;
  const double share = stem.width() * stem.height();
  if (dot.height() > kMostHeight * stem.height() || dot.width() * dot.height() > kMostArea * share) return false;
  const double common = std::min(dot.high.x, stem.high.x) - std::max(dot.low.x, stem.low.x);
  const double gap = std::max(dot.low.y - stem.high.y, stem.low.y - dot.high.y);
  return common >= kOverlap * std::min(dot.width(), stem.width()) && gap <= kMostGap * stem.height();
}

/// All parts of the letters that the given outlines belong to: their outermost borders, dots of these, and what lies
/// inside them all.
std::set<OutlineId> wholeLetters(const Drawing& drawing, const std::vector<std::size_t>& to) {
  const Nesting nesting = nestingOf(pathsOf(drawing));
  std::set<std::size_t> roots;
  for (const std::size_t place : to) roots.insert(outermostRound(nesting, place));
  std::vector<Box> boxes;
  for (const Outline& outline : drawing.outlines) boxes.push_back(boxOf(outline.path()));
  const std::set<std::size_t> given = roots;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (!drawing.path(i).closed || nesting.parent[i]) continue;
    const bool belongs = std::any_of(given.begin(), given.end(), [&](std::size_t root) {
      return isDotOf(boxes[i], boxes[root]) || isDotOf(boxes[root], boxes[i]);
    });
    if (belongs) roots.insert(i);
  }
  return thoseWhere(drawing, [&](std::size_t i) { return roots.contains(outermostRound(nesting, i)); });
}

}  // namespace

std::set<OutlineId> alike(const Drawing& drawing, const std::set<OutlineId>& to, Likeness how) {
  const std::vector<std::size_t> given = placesIn(drawing, to);
  const auto isGiven = [&](std::size_t i) { return to.count(drawing.outlines[i].id) != 0; };
  switch (how) {
    case Likeness::Size:
      return ofSize(drawing, given);
    case Likeness::Smaller:
      return noLarger(drawing, given);
    case Likeness::Layer: {
      std::set<std::size_t> layers;
      for (const std::size_t place : given) layers.insert(drawing.outlines[place].layer);
      return thoseWhere(drawing, [&](std::size_t i) { return layers.count(drawing.outlines[i].layer) != 0; });
    }
    case Likeness::Open:
      return thoseWhere(drawing, [&](std::size_t i) { return !drawing.path(i).closed; });
    case Likeness::Within: {
      const std::vector<bool> lies = liesIn(drawing, given, false);
      return thoseWhere(drawing, [&](std::size_t i) { return lies[i]; });
    }
    case Likeness::WithHoles: {
      const std::vector<bool> lies = liesIn(drawing, given, true);
      return thoseWhere(drawing, [&](std::size_t i) { return lies[i] || isGiven(i); });
    }
    case Likeness::Outermost: {
      const std::vector<bool> lies = liesIn(drawing, given, false);
      return thoseWhere(drawing, [&](std::size_t i) { return isGiven(i) && !lies[i]; });
    }
    case Likeness::Others:
      return thoseWhere(drawing, [&](std::size_t i) { return !isGiven(i); });
    case Likeness::Letter:
      return wholeLetters(drawing, given);
  }
  return {};
}

std::set<OutlineId> encircled(const Drawing& drawing, const Path& by, bool touched) {
  const PointInPolygon inside(by);
  const Box box = boxOf(by);
  return thoseWhere(drawing, [&](std::size_t i) {
    const Path& path = drawing.path(i);
    if (path.segments.empty() || apart(boxOf(path), box, 0)) return false;
    const bool starts = inside.has(path.start);
    if (starts && touched) return true;
    return (starts || touched) && crosses(path, by) == touched;
  });
}

}  // namespace rim::refine
