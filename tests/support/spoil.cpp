#include "support/spoil.h"

#include <algorithm>
#include <numbers>

#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "support/drawings.h"

namespace rim::test {
namespace {

double between(std::mt19937& random, double low, double high) {
  return std::uniform_real_distribution<double>(low, high)(random);
}

Point around(Point centre, double radius, double angle) {
  return centre + Point{std::cos(angle), std::sin(angle)} * radius;
}

Path roundedRectangle(Point low, double width, double height, double r) {
  const double bulge = std::tan(std::numbers::pi / 8);
  const Point high = low + Point{width, height};
  return {{low.x + r, low.y},
          {Segment::line({high.x - r, low.y}), Segment::arc({high.x, low.y + r}, bulge),
           Segment::line({high.x, high.y - r}), Segment::arc({high.x - r, high.y}, bulge),
           Segment::line({low.x + r, high.y}), Segment::arc({low.x, high.y - r}, bulge),
           Segment::line({low.x, low.y + r}), Segment::arc({low.x + r, low.y}, bulge)},
          true};
}

Path star(Point centre, double outer, double inner, double turn) {
  std::vector<Point> corners;
  for (int k = 0; k < 10; ++k) {
    corners.push_back(around(centre, k % 2 == 0 ? outer : inner, turn + std::numbers::pi * k / 5));
  }
  return polygonThrough(corners);
}

/// The piece from t = a to t = b; beyond 0..1 a line is lengthened.
Path part(const Piece& piece, double a, double b) {
  if (!isArc(piece.segment)) {
    return {lerp(piece.start, piece.segment.end, a), {Segment::line(lerp(piece.start, piece.segment.end, b))}, false};
  }
  return {pointAt(piece, a), {partOf(piece.start, piece.segment, a, b)}, false};
}

template <typename Change>
Drawing changed(const Drawing& drawing, Change change) {
  Drawing out = emptyLike(drawing);
  for (const Path& path : pathsOf(drawing)) {
    for (const Path& made : change(path)) add(out, made);
  }
  return out;
}

}  // namespace

Path linePath(Point from, Point to) { return {from, {Segment::line(to)}, false}; }

Path squarePath(double side, Point at) {
  return polygonThrough({at, at + Point{side, 0}, at + Point{side, side}, at + Point{0, side}});
}

double farthest(const Path& from, const Path& to) {
  constexpr int kPlaces = 32;
  double most = 0;
  for (std::size_t i = 0; i < from.segments.size(); ++i) {
    for (int k = 0; k <= kPlaces; ++k)
      most = std::max(most, nearestOn(to, pointAt(pieceOf(from, i), static_cast<double>(k) / kPlaces)).off);
  }
  return most;
}

Path circlePath(Point centre, double radius) {
  const Point right = centre + Point{radius, 0};
  return {right, {Segment::arc(centre - Point{radius, 0}, 1), Segment::arc(right, 1)}, true};
}

Drawing plate(std::mt19937& random) {
  Drawing drawing;
  drawing.pageWidth = 120;
  drawing.pageHeight = 80;
  const double bulge = 1;
  setPaths(drawing, {roundedRectangle({0, 0}, 120, 80, 8),
                     circlePath({20, 20}, 8),
                     circlePath({20, 60}, 5),
                     star({60, 40}, 18, 8, between(random, 0, 1)),
                     {{95, 13}, {Segment::arc({95, 37}, bulge), Segment::line({95, 13})}, true},
                     polygonThrough({{85, 50}, {105, 52}, {100, 70}, {90, 68}}),
                     roundedRectangle({40, 8}, 30, 8, 3),
                     circlePath({60, 40}, 3)});
  return drawing;
}

Drawing takenApart(const Drawing& drawing, std::mt19937& random) {
  Drawing out = changed(drawing, [&random](const Path& path) {
    std::vector<Path> made;
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Path one = part(pieceOf(path, i), 0, 1);
      made.push_back(random() % 2 == 0 ? one : reversed(one));
    }
    return made;
  });
  std::shuffle(out.outlines.begin(), out.outlines.end(), random);
  return out;
}

Drawing inPieces(const Drawing& drawing, int most, std::mt19937& random) {
  return changed(drawing, [&](const Path& path) {
    std::vector<Path> made;
    const int n = 1 + static_cast<int>(random() % static_cast<unsigned>(most));
    for (int k = 0; k < n; ++k) made.push_back(part(pieceOf(path, 0), static_cast<double>(k) / n, (k + 1.0) / n));
    return made;
  });
}

Drawing withGaps(const Drawing& drawing, double gapMm, std::mt19937& random) {
  return changed(drawing, [&](const Path& path) {
    const double size = pathLength(path);
    const bool cut = random() % 10 < 6;
    const double a = cut ? between(random, 0, gapMm / 2) / size : 0;
    const double b = cut ? between(random, 0, gapMm / 2) / size : 0;
    return std::vector{part(pieceOf(path, 0), a, 1 - b)};
  });
}

Drawing withOvershoots(const Drawing& drawing, double overMm, std::mt19937& random) {
  Drawing out = emptyLike(drawing);
  for (const Path& path : pathsOf(drawing)) {
    const bool onlyLines = std::none_of(path.segments.begin(), path.segments.end(), isArc);
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const double size = lengthOf(pieceOf(path, i));
      const double a = onlyLines ? between(random, 0, overMm) / size : 0;
      const double b = onlyLines ? between(random, 0, overMm) / size : 0;
      add(out, part(pieceOf(path, i), -a, 1 + b));
    }
  }
  return out;
}

Drawing withDoubles(const Drawing& drawing, std::mt19937& random) {
  return changed(drawing, [&](const Path& path) {
    std::vector<Path> made{path};
    if (random() % 2 == 0) made.push_back(reversed(path));
    if (random() % 3 == 0) made.push_back(part(pieceOf(path, 0), 0.2, 0.7));
    return made;
  });
}

Drawing withDirt(const Drawing& drawing, std::mt19937& random) {
  Drawing out = drawing;
  for (int k = 0; k < 10; ++k) {
    const Point p{between(random, 0, 120), between(random, 0, 80)};
    constexpr double kLengths[] = {0, 1e-9, 0.05, 0.2};
    const Point q = around(p, kLengths[random() % 4], between(random, 0, 6));
    add(out, {p, {Segment::line(q)}, false});
  }
  std::shuffle(out.outlines.begin(), out.outlines.end(), random);
  return out;
}

}  // namespace rim::test
