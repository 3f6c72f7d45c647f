#include "core/refine/combine/areas.h"

#include <algorithm>
#include <map>

#include "core/geometry/flatten.h"
#include "core/geometry/path_place.h"
#include "core/geometry/point_in_polygon.h"
#include "core/geometry/segment.h"
#include "core/mend/repair/meet.h"

namespace rim::refine {
namespace {

constexpr double kTouchMm = 1e-6;

/// An outline with what is asked of it again and again.
struct Shape {
  const Path* path = nullptr;
  Box box;
  double area = 0;
  std::vector<Point> places;
};

Shape shapeOf(const Path& path) {
  constexpr double kChordShare = 0.002;
  Shape shape{&path, boxOf(path), std::abs(signedArea(path)), {}};
  shape.places = flatten(path, std::max(1e-9, kChordShare * distance(shape.box.low, shape.box.high)));
  // Between two nodes a side may leave the other outline and come back.
  const std::size_t corners = shape.places.size();
  for (std::size_t i = 0; i < corners; ++i)
    shape.places.push_back(lerp(shape.places[i], shape.places[(i + 1) % corners], 0.5));
  return shape;
}

bool holds(const Box& outer, const Box& inner) {
  return outer.low.x <= inner.low.x + kTouchMm && outer.low.y <= inner.low.y + kTouchMm &&
         outer.high.x >= inner.high.x - kTouchMm && outer.high.y >= inner.high.y - kTouchMm;
}

/// Whether all of one outline lies inside another, which may touch it.
bool liesIn(const Shape& inner, const Shape& outer, const PointInPolygon& inside) {
  if (!(inner.area < outer.area) || !holds(outer.box, inner.box)) return false;
  const double near = 1e-3 * distance(inner.box.low, inner.box.high);
  return std::all_of(inner.places.begin(), inner.places.end(),
                     [&](Point p) { return inside.has(p) || nearestOn(*outer.path, p).off <= near * 1e-3 + kTouchMm; });
}

/// How many of the outlines lie round each.
std::vector<int> depthsOf(const std::vector<Path>& paths) {
  std::vector<Shape> shapes;
  for (const Path& path : paths) shapes.push_back(shapeOf(path));
  std::vector<int> depths(paths.size(), 0);
  for (std::size_t outer = 0; outer < paths.size(); ++outer) {
    const PointInPolygon inside(paths[outer]);
    for (std::size_t inner = 0; inner < paths.size(); ++inner) {
      if (inner != outer && liesIn(shapes[inner], shapes[outer], inside)) ++depths[inner];
    }
  }
  return depths;
}

bool isOdd(int number) { return number % 2 != 0; }

/// The lobes of an outline that crosses itself, else the outline.
std::vector<Path> simpleOnes(const Path& path, const std::stop_token& stop) {
  std::vector<AreaOutline> lobes = areaOutlines(
      {{path, 0, 0}}, [](int a, int) { return isOdd(a); }, kTouchMm, stop);
  constexpr double kSame = 1e-9;
  const double area = std::abs(signedArea(path));
  if (lobes.size() == 1 && std::abs(signedArea(lobes[0].path) - area) <= kSame * area) return {path};
  std::vector<Path> paths;
  for (AreaOutline& lobe : lobes) paths.push_back(std::move(lobe.path));
  return paths;
}

bool belongs(AreaRule rule, bool a, bool b) {
  switch (rule) {
    case AreaRule::Unite:
      return a || b;
    case AreaRule::Subtract:
      return a && !b;
    case AreaRule::Intersect:
      return a && b;
    case AreaRule::Exclude:
      return a != b;
  }
  return false;
}

/// Neighbours that lie on one line, or on one circle for less than half a turn, become one: what was cut from several
/// outlines along one line.
Path withoutSeams(const Path& path) {
  Path out = path;
  for (std::size_t i = 0; i < out.segments.size() && out.segments.size() > 2;) {
    const std::size_t next = (i + 1) % out.segments.size();
    if (next == 0 && !path.closed) break;
    const Piece before = pieceOf(out, i);
    const Piece after = pieceOf(out, next);
    const bool arcs = isArc(before.segment) && isArc(after.segment);
    const bool small = !arcs || std::abs(before.segment.bulge) + std::abs(after.segment.bulge) < 0.8;
    const auto one = small ? mend::asOne(before, after, kTouchMm) : std::vector<Segment>{};
    if (one.size() != 1) {
      ++i;
      continue;
    }
    if (next == 0) out.start = before.start;
    out.segments[next] = one.front();
    out.segments.erase(out.segments.begin() + static_cast<std::ptrdiff_t>(i));
    if (path.closed) out.segments.back().end = out.start;
  }
  return out;
}

}  // namespace

std::vector<Ring> ringsOf(const Drawing& drawing, const std::vector<std::size_t>& take, int side,
                          const std::stop_token& stop) {
  std::vector<Path> paths;
  std::vector<std::size_t> sources;
  for (const std::size_t place : take) {
    for (Path& path : simpleOnes(drawing.path(place), stop)) {
      paths.push_back(std::move(path));
      sources.push_back(place);
    }
  }
  const std::vector<int> depths = depthsOf(paths);
  std::vector<Ring> rings;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    const bool clockwise = signedArea(paths[i]) < 0;
    rings.push_back({clockwise != isOdd(depths[i]) ? reversed(paths[i]) : paths[i], side, sources[i]});
  }
  return rings;
}

std::vector<std::vector<std::size_t>> closedByLayer(const Drawing& drawing) {
  std::map<std::size_t, std::vector<std::size_t>> layers;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (drawing.path(i).closed) layers[drawing.layers.empty() ? 0 : drawing.outlines[i].layer].push_back(i);
  }
  std::vector<std::vector<std::size_t>> all;
  for (auto& [layer, places] : layers) all.push_back(std::move(places));
  return all;
}

Drawing withAreas(const Drawing& drawing, const std::vector<std::size_t>& places, std::vector<AreaOutline> areas) {
  std::map<std::size_t, std::vector<Path>> parts;
  for (const std::size_t place : places) parts[place];
  for (AreaOutline& area : areas) parts[area.source].push_back(withoutSeams(area.path));
  Drawing out = emptyLike(drawing);
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const auto changed = parts.find(i);
    if (changed == parts.end()) {
      out.outlines.push_back(drawing.outlines[i]);
    } else {
      addParts(out, drawing.outlines[i], std::move(changed->second));
    }
  }
  return out;
}

Drawing united(const Drawing& drawing, const std::stop_token& stop) {
  std::vector<AreaOutline> areas;
  std::vector<std::size_t> all;
  for (const auto& places : closedByLayer(drawing)) {
    std::vector<AreaOutline> made = areaOutlines(
        ringsOf(drawing, places, 0, stop), [](int a, int) { return a > 0; }, kTouchMm, stop);
    areas.insert(areas.end(), std::make_move_iterator(made.begin()), std::make_move_iterator(made.end()));
    all.insert(all.end(), places.begin(), places.end());
  }
  return withAreas(drawing, all, std::move(areas));
}

Drawing combined(const Drawing& drawing, const Drawing& other, AreaRule rule, const std::stop_token& stop) {
  std::vector<std::size_t> others;
  for (const auto& places : closedByLayer(other)) others.insert(others.end(), places.begin(), places.end());
  std::vector<AreaOutline> areas;
  std::vector<std::size_t> all;
  for (const auto& places : closedByLayer(drawing)) {
    std::vector<Ring> rings = ringsOf(drawing, places, 0, stop);
    for (Ring& ring : ringsOf(other, others, 1, stop)) {
      ring.source = places.front();
      rings.push_back(std::move(ring));
    }
    std::vector<AreaOutline> made = areaOutlines(
        rings, [rule](int a, int b) { return belongs(rule, a > 0, b > 0); }, kTouchMm, stop);
    areas.insert(areas.end(), std::make_move_iterator(made.begin()), std::make_move_iterator(made.end()));
    all.insert(all.end(), places.begin(), places.end());
  }
  return withAreas(drawing, all, std::move(areas));
}

}  // namespace rim::refine
