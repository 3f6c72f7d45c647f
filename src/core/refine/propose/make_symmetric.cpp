// Making a drawing exactly symmetric.

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/geometry/affine.h"
#include "core/geometry/intersect.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/refine/combine/areas.h"
#include "core/refine/edit/place.h"
#include "core/refine/propose/symmetry.h"

namespace rim::refine {
namespace {

constexpr double kOnAxisMm = 1e-6;

Path mirroredPath(const Path& path) {
  Path other = transformed(path, scale(-1, 1), kOnAxisMm);
  return path.closed ? reversed(other) : other;
}

/// Nodes next to the axis x = 0 lie on it.
Path onAxis(Path path) {
  const auto put = [](Point& p) {
    if (std::abs(p.x) < kOnAxisMm) p.x = 0;
  };
  put(path.start);
  for (Segment& s : path.segments) put(s.end);
  return path;
}

/// The parts of an open path at the left of the axis.
std::vector<Path> leftParts(const Path& open) {
  const Box box = boxOf(open);
  const Piece axis{{0, box.low.y - 1}, Segment::line({0, box.high.y + 1})};
  std::vector<PathPlace> cuts{{0, 0, open.start, 0}};
  for (std::size_t i = 0; i < open.segments.size(); ++i) {
    std::vector<Meeting> met = meetings(pieceOf(open, i), axis);
    std::sort(met.begin(), met.end(), [](const Meeting& a, const Meeting& b) { return a.t < b.t; });
    for (const Meeting& m : met) cuts.push_back({i, m.t, m.place, 0});
  }
  cuts.push_back({open.segments.size() - 1, 1, open.segments.back().end, 0});
  std::vector<Path> parts;
  for (std::size_t c = 0; c + 1 < cuts.size(); ++c) {
    if (distance(cuts[c].place, cuts[c + 1].place) < kOnAxisMm && cuts[c].segment == cuts[c + 1].segment) continue;
    const Path part = stretchOf(open, cuts[c], cuts[c + 1]);
    if (!part.segments.empty() && pointAt(pieceOf(part, part.segments.size() / 2), 0.5).x <= 0)
      parts.push_back(onAxis(part));
  }
  return parts;
}

/// An open part with its mirror image, joined where it ends on the axis.
std::vector<Path> withImage(const Path& part) {
  const Path image = reversed(mirroredPath(part));
  const bool ends = part.segments.back().end.x == 0;
  const bool begins = part.start.x == 0;
  if (!ends && !begins) return {part, image};
  Path whole = ends ? part : image;
  append(whole, ends ? image : part);
  if (ends && begins) whole.closed = true;
  return {std::move(whole)};
}

/// The left half of all closed outlines, each with its number.
std::vector<AreaOutline> leftHalf(const Drawing& drawing, const std::vector<std::size_t>& places,
                                  const std::stop_token& stop) {
  Box box = boxOf(drawing);
  const Point low = box.low - Point{1, 1};
  const Point high{0, box.high.y + 1};
  std::vector<Ring> rings = ringsOf(drawing, places, 0, stop);
  rings.push_back(
      {{low,
        {Segment::line({high.x, low.y}), Segment::line(high), Segment::line({low.x, high.y}), Segment::line(low)},
        true},
       1,
       places.front()});
  std::vector<AreaOutline> half = areaOutlines(
      rings, [](int a, int b) { return a > 0 && b > 0; }, kOnAxisMm, stop);
  for (AreaOutline& outline : half) outline.path = onAxis(outline.path);
  return half;
}

/// The drawing whose axis is x = 0, made of its left half.
Drawing ofLeftHalf(const Drawing& drawing, const std::stop_token& stop) {
  std::vector<AreaOutline> areas;
  std::vector<std::size_t> all;
  for (const auto& places : closedByLayer(drawing)) {
    std::vector<Ring> rings;
    for (const AreaOutline& half : leftHalf(drawing, places, stop)) {
      rings.push_back({half.path, 0, half.source});
      rings.push_back({mirroredPath(half.path), 0, half.source});
    }
    for (AreaOutline& area : areaOutlines(
             rings, [](int a, int) { return a > 0; }, kOnAxisMm, stop)) {
      area.path = onAxis(area.path);
      areas.push_back(std::move(area));
    }
    all.insert(all.end(), places.begin(), places.end());
  }
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (drawing.path(i).closed || drawing.path(i).segments.empty()) continue;
    all.push_back(i);
    for (const Path& part : leftParts(drawing.path(i))) {
      for (Path& path : withImage(part)) areas.push_back({std::move(path), i});
    }
  }
  return withAreas(drawing, all, std::move(areas));
}

std::size_t segmentsOf(const Drawing& drawing) {
  const Counts counts = countsOf(pathsOf(drawing));
  return counts.lines + counts.arcs + counts.curves;
}

/// The mean of two drawings that are made alike; none when they are not.
std::optional<Drawing> meanOf(const Drawing& a, const Drawing& b) {
  if (a.outlines.size() != b.outlines.size()) return {};
  Drawing mean = a;
  std::vector<bool> used(b.outlines.size(), false);
  for (std::size_t i = 0; i < a.outlines.size(); ++i) {
    const Path& p = a.path(i);
    std::optional<Path> best;
    double least = std::numeric_limits<double>::infinity();
    std::size_t which = 0;
    for (std::size_t j = 0; j < b.outlines.size(); ++j) {
      const std::size_t n = p.segments.size();
      if (used[j] || b.path(j).segments.size() != n || b.path(j).closed != p.closed) continue;
      for (std::size_t first = 0; first < (p.closed ? n : 1); ++first) {
        const Path q = p.closed ? begunAt(b.path(j), first) : b.path(j);
        double sum = distance(p.start, q.start);
        bool alike = true;
        for (std::size_t s = 0; s < n; ++s) {
          sum += distance(p.segments[s].end, q.segments[s].end);
          alike = alike && p.segments[s].kind == q.segments[s].kind;
        }
        if (!alike || sum >= least) continue;
        least = sum;
        which = j;
        best = std::move(q);
      }
    }
    if (!best) return {};
    used[which] = true;
    Path path = p;
    path.start = lerp(p.start, best->start, 0.5);
    for (std::size_t s = 0; s < p.segments.size(); ++s) {
      const Segment& one = p.segments[s];
      const Segment& two = best->segments[s];
      path.segments[s] = {one.kind, lerp(one.end, two.end, 0.5), (one.bulge + two.bulge) / 2,
                          lerp(one.handle1, two.handle1, 0.5), lerp(one.handle2, two.handle2, 0.5)};
    }
    mean.setPath(i, std::move(path));
  }
  return mean;
}

Drawing mirrorSymmetric(const Drawing& drawing, const Symmetry& mirror, SymmetryFrom from,
                        const std::stop_token& stop) {
  // In a frame where the axis stands upright at x = 0.
  const Affine in = rotation(std::numbers::pi / 2 - mirror.axisAngle) * shift(-mirror.centre);
  const Affine out = shift(mirror.centre) * rotation(mirror.axisAngle - std::numbers::pi / 2);
  const Drawing upright = mapped(drawing, in);
  const auto ofLeft = [&] { return ofLeftHalf(upright, stop); };
  const auto ofRight = [&] { return mapped(ofLeftHalf(mapped(upright, scale(-1, 1)), stop), scale(-1, 1)); };
  if (from == SymmetryFrom::Best || from == SymmetryFrom::Mean) {
    const Drawing left = ofLeft();
    const Drawing right = ofRight();
    const auto mean = from == SymmetryFrom::Mean ? meanOf(left, right) : std::nullopt;
    if (mean) return mapped(*mean, out);
    return mapped(segmentsOf(right) < segmentsOf(left) ? right : left, out);
  }
  // Which half that is shows where its middle comes to in the drawing's own frame.
  const Point left = out.turned({-1, 0});
  const Point wanted = from == SymmetryFrom::Left    ? Point{-1, 0}
                       : from == SymmetryFrom::Right ? Point{1, 0}
                       : from == SymmetryFrom::Lower ? Point{0, -1}
                                                     : Point{0, 1};
  return mapped(dot(left, wanted) >= 0 ? ofLeft() : ofRight(), out);
}

/// The stretch from one place to another bent so that it ends elsewhere: moved more and more towards its end.
Path bentTo(Path path, Point end) {
  const Point by = end - path.segments.back().end;
  const double n = static_cast<double>(path.segments.size());
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const double before = static_cast<double>(i) / n;
    const double after = static_cast<double>(i + 1) / n;
    Segment& s = path.segments[i];
    s.handle1 = s.handle1 + by * before;
    s.handle2 = s.handle2 + by * after;
    s.end = s.end + by * after;
  }
  path.segments.back().end = end;
  return path;
}

/// An outline round the centre: one part of it, all round.
Path ofOnePart(const Path& closed, const Symmetry& turn) {
  const Affine spin = about(turn.centre, rotation(2 * std::numbers::pi / turn.turns));
  const bool clockwise = signedArea(closed) < 0;
  const Path way = clockwise ? reversed(closed) : closed;
  const PathPlace from{0, 0, way.start, 0};
  const PathPlace to = nearestOn(way, spin(way.start));
  if (to.segment == 0 && to.t < 1e-9) return closed;
  Path part = bentTo(stretchOf(way, from, to), spin(way.start));
  Path whole = part;
  for (int i = 1; i < turn.turns; ++i) {
    part = transformed(part, spin, kOnAxisMm);
    append(whole, part);
  }
  whole.segments.back().end = whole.start;
  whole.closed = true;
  return clockwise ? reversed(whole) : whole;
}

Drawing turnSymmetric(const Drawing& drawing, const Symmetry& turn) {
  const Affine spin = about(turn.centre, rotation(2 * std::numbers::pi / turn.turns));
  Drawing out = drawing;
  std::vector<bool> done(drawing.outlines.size(), false);
  const auto middle = [&](std::size_t i) {
    const Box box = boxOf(drawing.path(i));
    return lerp(box.low, box.high, 0.5);
  };
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (done[i]) continue;
    done[i] = true;
    const Box box = boxOf(drawing.path(i));
    if (distance(middle(i), turn.centre) < 0.1 * distance(box.low, box.high)) {
      if (drawing.path(i).closed) out.setPath(i, ofOnePart(drawing.path(i), turn));
      continue;
    }
    // One of several that stand round the centre: all become it, turned.
    Path path = drawing.path(i);
    Point at = middle(i);
    for (int k = 1; k < turn.turns; ++k) {
      path = transformed(path, spin, kOnAxisMm);
      at = spin(at);
      std::optional<std::size_t> like;
      for (std::size_t j = 0; j < drawing.outlines.size(); ++j) {
        if (!done[j] && (!like || distance(middle(j), at) < distance(middle(*like), at))) like = j;
      }
      if (!like || distance(middle(*like), at) > 0.5 * distance(box.low, box.high)) continue;
      done[*like] = true;
      out.setPath(*like, path);
    }
  }
  return out;
}

}  // namespace

Drawing withSymmetry(const Drawing& drawing, const Symmetry& symmetry, SymmetryFrom from, const std::stop_token& stop) {
  return symmetry.turns > 0 ? turnSymmetric(drawing, symmetry) : mirrorSymmetric(drawing, symmetry, from, stop);
}

Symmetrized madeSymmetric(const Drawing& drawing, SymmetryWish wish, SymmetryFrom from, double withinMm,
                          const std::stop_token& stop) {
  Symmetrized made{{drawing, {}}, {}};
  const auto found = symmetryOf(drawing, wish, withinMm, stop);
  if (!found || drawing.outlines.empty()) return made;
  const auto take = [&](const Symmetry& symmetry, SymmetryFrom half) {
    made.refined.drawing = withSymmetry(made.refined.drawing, symmetry, half, stop);
    made.refined.changes.push_back(
        {symmetry.turns > 0 ? "turn" : "mirror", drawing.outlines.front().id, symmetry.centre, symmetry.farthestMm});
    made.about.push_back(symmetry);
  };
  take(*found, from);
  if (found->turns > 0) return made;
  // What one half has the other has now, so that a second axis can only stand square to the first.
  if (const auto second = secondMirror(made.refined.drawing, *found, withinMm)) take(*second, SymmetryFrom::Best);
  return made;
}

Refined symmetrized(const Drawing& drawing, SymmetryWish wish, SymmetryFrom from, double withinMm,
                    const std::stop_token& stop) {
  return madeSymmetric(drawing, wish, from, withinMm, stop).refined;
}

}  // namespace rim::refine
