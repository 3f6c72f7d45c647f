#include "core/mend/repair/branch_lines.h"

#include <algorithm>
#include <limits>

#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/repair/middle_lines.h"

namespace rim {
namespace {

/// How far a place lies from the nearest of the other lines.
double offFromOthers(const std::vector<Centreline>& lines, std::size_t own, Point p) {
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < lines.size(); ++i) {
    if (i != own && !lines[i].path.segments.empty()) least = std::min(least, nearestOn(lines[i].path, p).off);
  }
  return least;
}

}  // namespace

std::vector<Centreline> branchesOf(const Path& outer, const Path& inner, double widest, const std::stop_token& stop) {
  const std::vector<Centreline> lines = middlesOf({&outer, &inner}, widest, stop);
  std::vector<Centreline> branches;
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const Path& path = lines[i].path;
    if (path.closed || path.segments.empty()) continue;
    constexpr double kAttached = 0.3;  // of the stroke's width
    const double near = kAttached * widest;
    const bool begins = offFromOthers(lines, i, path.start) <= near;
    const bool ends = offFromOthers(lines, i, path.segments.back().end) <= near;
    if (begins == ends) continue;
    branches.push_back(lines[i]);
    if (ends) branches.back().path = reversed(path);
  }
  return branches;
}

Path withoutBeginning(const Path& open, double length) {
  double left = length;
  for (std::size_t i = 0; i < open.segments.size(); ++i) {
    const Piece piece = pieceOf(open, i);
    const double own = lengthOf(piece);
    if (own <= left) {
      left -= own;
      continue;
    }
    const double t = left / own;
    return stretchOf(open, {i, t, pointAt(piece, t), 0}, endPlace(open));
  }
  return {open.start, {}, false};
}

}  // namespace rim
