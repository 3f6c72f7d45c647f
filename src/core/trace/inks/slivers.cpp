#include "core/trace/inks/slivers.h"

#include <algorithm>
#include <optional>
#include <utility>

#include "core/geometry/overlap.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/trace/inks/cracks.h"

namespace rim::trace::inks {
namespace {

constexpr double kSliverPx = 0.4;
constexpr double kLongestPx = 4;
constexpr double kSameWay = 0.9;  // cosine

/// An end of a border that lies in a junction.
struct BorderEnd {
  std::size_t border = 0;
  bool atStart = true;
};

/// Borders that meet in a junction, as they leave it.
class Meeting {
 public:
  /// `seen`: where the junction was before anything was taken away.
  Meeting(InkBorders& borders, std::size_t junction, Point seen, const std::vector<BorderEnd>& ends)
      : borders_(borders), junction_(junction), seen_(seen), ends_(ends) {
    for (const BorderEnd& end : ends) {
      const Path& path = borders.borders[end.border].path;
      leaving_.push_back(end.atStart ? path : reversed(path));
    }
  }

  /// Takes away a sliver between two of three; false: there is none.
  bool partsLater() {
    for (std::size_t third = 0; third < leaving_.size(); ++third) {
      std::size_t one = (third + 1) % leaving_.size();
      std::size_t other = (third + 2) % leaving_.size();
      // A side of the picture is known exactly, so the place is on it.
      if (isRim(other)) std::swap(one, other);
      if (const auto common = commonBeginning(leaving_[one], leaving_[other]);
          common && partAt(*common, one, other, third))
        return true;
    }
    return false;
  }

 private:
  bool isRim(std::size_t i) const {
    const FittedBorder& border = borders_.borders[ends_[i].border];
    return border.left == kOutside || border.right == kOutside;
  }

  static std::optional<Overlap> commonBeginning(const Path& one, const Path& other) {
    const Piece a = pieceOf(one, 0);
    const Piece b = pieceOf(other, 0);
    if (dot(tangentAt(a, 0), tangentAt(b, 0)) < kSameWay) return {};
    constexpr double kAtStart = 1e-6;
    for (const Overlap& overlap : overlapsOf(a, b, kSliverPx)) {
      if (overlap.from < kAtStart && overlap.otherFrom < kAtStart && overlap.otherTo > overlap.otherFrom)
        return overlap;
    }
    return {};
  }

  /// The rest of a path from a place in its first segment on; nothing where no segment is left.
  static std::optional<Path> restOf(const Path& path, double t) {
    constexpr double kAtEnd = 1 - 1e-6;
    if (t > kAtEnd && path.segments.size() == 1) return {};
    Path rest = stretchOf(path, {0, t, pointAt(pieceOf(path, 0), t), 0}, endPlace(path));
    if (rest.segments.empty()) return {};
    return rest;
  }

  bool partAt(const Overlap& common, std::size_t one, std::size_t other, std::size_t third) {
    const Piece first = pieceOf(leaving_[one], 0);
    const Point place = pointAt(first, common.to);
    const Point back = first.start - place;
    const Path& on = leaving_[third];
    if (distance(seen_, place) > kLongestPx) return false;
    // The third one leads away from them.
    if (nearestOn(on, place).off < length(first.start - place) / 2) return false;
    if (back == Point{} || dot(unit(back), startTangent(on.start, on.segments.front())) < -kSameWay) return false;
    auto rest = restOf(leaving_[one], common.to);
    auto otherRest = restOf(leaving_[other], common.otherTo);
    if (!rest || !otherRest) return false;
    Path longer = reversed(stretchOf(leaving_[one], startPlace(leaving_[one]), {0, common.to, place, 0}));
    append(longer, on);
    put(one, withEnds(std::move(*rest), place, endOf(leaving_[one])));
    put(other, withEnds(std::move(*otherRest), place, endOf(leaving_[other])));
    put(third, withEnds(std::move(longer), place, endOf(on)));
    borders_.junctions[junction_] = place;
    return true;
  }

  void put(std::size_t i, Path path) {
    borders_.borders[ends_[i].border].path = ends_[i].atStart ? path : reversed(path);
  }

  InkBorders& borders_;
  std::size_t junction_;
  Point seen_;
  const std::vector<BorderEnd>& ends_;
  std::vector<Path> leaving_;
};

std::vector<std::vector<BorderEnd>> endsAtJunctions(const InkBorders& borders) {
  std::vector<std::vector<BorderEnd>> ends(borders.junctions.size());
  for (std::size_t i = 0; i < borders.borders.size(); ++i) {
    const FittedBorder& border = borders.borders[i];
    if (border.start < 0) continue;
    ends[static_cast<std::size_t>(border.start)].push_back({i, true});
    ends[static_cast<std::size_t>(border.end)].push_back({i, false});
  }
  return ends;
}

/// Three different borders, each with a path.
bool isSimple(const std::vector<BorderEnd>& ends, const InkBorders& borders) {
  constexpr std::size_t kThree = 3;
  if (ends.size() != kThree || ends[0].border == ends[1].border || ends[1].border == ends[2].border ||
      ends[0].border == ends[2].border)
    return false;
  return std::none_of(ends.begin(), ends.end(),
                      [&](const BorderEnd& end) { return borders.borders[end.border].path.segments.empty(); });
}

}  // namespace

InkBorders withoutSlivers(InkBorders borders, const std::vector<bool>& stay, std::vector<std::size_t>& moved) {
  constexpr int kMostTimes = 4;
  const auto ends = endsAtJunctions(borders);
  for (std::size_t j = 0; j < ends.size(); ++j) {
    if (stay[j] || !isSimple(ends[j], borders)) continue;
    const Point seen = borders.junctions[j];
    int times = 0;
    while (times < kMostTimes && Meeting(borders, j, seen, ends[j]).partsLater()) ++times;
    if (times > 0) moved.push_back(j);
  }
  return borders;
}

}  // namespace rim::trace::inks
