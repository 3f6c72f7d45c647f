#include "core/mend/find/double_lines.h"

#include <algorithm>
#include <map>
#include <tuple>

#include "core/error.h"
#include "core/geometry/overlap.h"
#include "core/mend/find/straight_on.h"

namespace rim::mend {
namespace {

/// The better a path is to be kept, the larger.
struct Worth {
  bool closed = false;
  double meanSegment = 0;
  double length = 0;
};

std::vector<Worth> worthsOf(const Paths& paths) {
  std::vector<Worth> worths;
  for (const Path& path : paths) {
    const double size = pathLength(path);
    worths.push_back({path.closed, size / static_cast<double>(std::max<std::size_t>(1, path.segments.size())), size});
  }
  return worths;
}

constexpr std::size_t kMostStretches = 300'000;

[[noreturn]] void failForStretches() {
  throw InputError("more than " + std::to_string(kMostStretches) +
                   " stretches of line lie on others, the most that is looked at: mend the drawing in parts, or draw "
                   "each line once.");
}

bool neighbours(const Path& path, std::size_t i, std::size_t j) {
  const std::size_t n = path.segments.size();
  return i == j || i + 1 == j || j + 1 == i || (path.closed && ((i + 1) % n == j || (j + 1) % n == i));
}

}  // namespace

std::vector<CoveredStretch> coveredStretches(const Drawing& drawing, const PieceIndex& index,
                                             const MendSettings& settings, const std::stop_token& stop) {
  const std::vector<Worth> worths = worthsOf(pathsOf(drawing));
  // Lengths are compared to a micrometre: a copy is not better for its rounding.
  const auto keeps = [&](std::size_t a, std::size_t b) {
    const auto key = [&](std::size_t p) {
      constexpr double kPerMm = 1000;
      return std::tuple(worths[p].closed, std::round(worths[p].meanSegment * kPerMm),
                        std::round(worths[p].length * kPerMm));
    };
    return key(a) != key(b) ? key(a) > key(b) : a < b;
  };
  const StraightOn straight(drawing, index, settings.coincidentMm);
  std::vector<CoveredStretch> found;
  index.pairs(
      settings.doubleMm,
      [&](std::size_t i, std::size_t j) {
        const IndexedPiece* a = &index.pieces()[i];
        const IndexedPiece* b = &index.pieces()[j];
        if (!onOneLayer(drawing, a->path, b->path)) return;
        if (a->path == b->path && neighbours(drawing.path(a->path), a->segment, b->segment)) return;
        if (a->path == b->path ? a->segment < b->segment : keeps(a->path, b->path)) std::swap(a, b);
        for (const Overlap& o : overlapsOf(a->piece, b->piece, settings.doubleMm)) {
          if (straight.onlyPass(*a, *b, o)) continue;
          const double lengthMm =
              lengthOf(Piece{pointAt(a->piece, o.from), partOf(a->piece.start, a->piece.segment, o.from, o.to)});
          if (found.size() >= kMostStretches) failForStretches();
          found.push_back({a->path, a->segment, o.from, o.to, b->path, b->segment, o.otherFrom, o.otherTo, lengthMm});
        }
      },
      stop);
  std::sort(found.begin(), found.end(), [](const CoveredStretch& p, const CoveredStretch& q) {
    return std::tie(p.path, p.segment, p.from, p.byPath, p.bySegment, p.byFrom) <
           std::tie(q.path, q.segment, q.from, q.byPath, q.bySegment, q.byFrom);
  });
  return found;
}

bool liesOnItself(const Path& path, const CoveredStretch& c, double doubleMm) {
  constexpr double kShareOfBridges = 0.04;
  const Piece by = pieceOf(path, c.bySegment);
  const Piece own = pieceOf(path, c.segment);
  const double off = std::max(distance(pointAt(by, c.byFrom), pointAt(own, c.from)),
                              distance(pointAt(by, c.byTo), pointAt(own, c.to)));
  return off <= kShareOfBridges * doubleMm;
}

std::vector<CommonTrack> commonTracks(const Paths& paths, const std::vector<CoveredStretch>& covered, double doubleMm) {
  std::map<std::pair<std::size_t, std::size_t>, CommonTrack> tracks;
  for (const CoveredStretch& c : covered) {
    if (isRetraced(c)) continue;
    CommonTrack& track = tracks[{c.path, c.byPath}];
    track.path = c.path;
    track.byPath = c.byPath;
    track.lengthMm += c.lengthMm;
    track.onItself = track.onItself || (c.path == c.byPath && liesOnItself(paths[c.path], c, doubleMm));
    if (c.lengthMm > track.longest.lengthMm) track.longest = c;
  }
  std::vector<CommonTrack> found;
  for (auto& [pair, track] : tracks) {
    constexpr double kWhole = 0.995;
    track.whole = track.lengthMm >= kWhole * pathLength(paths[track.path]);
    found.push_back(track);
  }
  return found;
}

}  // namespace rim::mend
