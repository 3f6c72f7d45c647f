#pragma once

#include <random>

#include "core/drawing/drawing.h"

namespace rim::test {

/// A plate with holes of many kinds: lines, arcs, sharp and round corners. All closed, nothing wrong with it.
Drawing plate(std::mt19937& random);

/// All outlines taken apart into single lines and arcs, in any order and direction.
Drawing takenApart(const Drawing& drawing, std::mt19937& random);

/// Each of the lines and arcs of a taken-apart drawing in up to `most` pieces.
Drawing inPieces(const Drawing& drawing, int most, std::mt19937& random);

/// Most lines and arcs end a little early, so that gaps of up to `gapMm` open.
Drawing withGaps(const Drawing& drawing, double gapMm, std::mt19937& random);

/// Lines that meet only lines run on past their ends by up to `overMm`.
Drawing withOvershoots(const Drawing& drawing, double overMm, std::mt19937& random);

/// Some lines and arcs lie there twice, wholly or in part, either way round.
Drawing withDoubles(const Drawing& drawing, std::mt19937& random);

/// Dots, scraps and lines of no length in between.
Drawing withDirt(const Drawing& drawing, std::mt19937& random);

/// A polygon with many corners.
Path circlePath(Point centre, double radius);

/// An open line, and a closed square with its lower left corner there.
Path linePath(Point from, Point to);
Path squarePath(double side, Point at = {});

/// How far a path lies from another one at most, at 32 places of each of its segments.
double farthest(const Path& from, const Path& to);

}  // namespace rim::test
