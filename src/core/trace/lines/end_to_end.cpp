#include "core/trace/lines/end_to_end.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/geometry/box_index.h"
#include "core/median.h"
#include "core/trace/lines/track_points.h"

namespace rim::trace::lines {
namespace {

/// An end of a line by its number: twice the line's, and one more for its last point.
using End = std::size_t;

double penWidth(const StrokeLine& line) { return line.widths.empty() ? 0 : medianOf(line.widths); }

/// The direction, unit, in which a line would leave its end, by its last points as far as it is wide.
Point wayOut(const StrokeLine& line, bool atLast) {
  const std::size_t count = line.points.size();
  const auto at = [&](std::size_t k) { return line.points[atLast ? count - 1 - k : k]; };
  std::size_t k = 1;
  while (k + 1 < count && distance(at(0), at(k)) < penWidth(line) / 2) ++k;
  return unit(at(0) - at(k));
}

/// Joins lines pair by pair of their ends.
class Joiner {
 public:
  explicit Joiner(std::vector<StrokeLine> lines) : lines_(std::move(lines)) {
    for (std::size_t i = 0; i < lines_.size(); ++i) {
      lineOf_.insert(lineOf_.end(), 2, i);
      first_.push_back(2 * i);
      last_.push_back(2 * i + 1);
    }
  }

  std::vector<StrokeLine> run() {
    std::vector<bool> taken(lineOf_.size(), false);
    for (const Pair& pair : pairs()) {
      if (taken[pair.a] || taken[pair.b]) continue;
      taken[pair.a] = taken[pair.b] = true;
      join(pair.a, pair.b);
    }
    std::erase_if(lines_, [](const StrokeLine& line) { return line.points.empty(); });
    return std::move(lines_);
  }

 private:
  struct Pair {
    End a, b;
    double turn;  ///< radians
  };

  bool canGoOn(End e) const {
    const StrokeLine& line = lines_[e / 2];
    return !line.closed && line.points.size() >= 2 && !(line.freeEnds[e % 2] && line.freeEnds[e % 2]->atArea);
  }
  Point placeOf(End e) const { return e % 2 == 0 ? lines_[e / 2].points.front() : lines_[e / 2].points.back(); }

  /// Those of ends at one place, the straightest first.
  std::vector<Pair> pairs() const {
    constexpr double kMostTurn = 2.9;
    std::vector<End> ends;
    std::vector<Point> places;
    for (End e = 0; e < lineOf_.size(); ++e) {
      if (!canGoOn(e)) continue;
      ends.push_back(e);
      places.push_back(placeOf(e));
    }
    const BoxIndex index(boxesAt(places));
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < ends.size(); ++i) {
      const End a = ends[i];
      const double reach = std::max(1.0, penWidth(lines_[a / 2]) / 16);
      index.near({places[i], places[i]}, reach, [&](std::size_t k) {
        const End b = ends[k];
        if (k <= i || distance(places[i], places[k]) > reach || isHardlyLonger(a, b)) return;
        const double turn = std::abs(angleBetween(wayOut(lines_[a / 2], a % 2), -wayOut(lines_[b / 2], b % 2)));
        if (turn < kMostTurn) pairs.push_back({a, b, turn});
      });
    }
    std::sort(pairs.begin(), pairs.end(),
              [](const Pair& p, const Pair& q) { return std::tie(p.turn, p.a, p.b) < std::tie(q.turn, q.a, q.b); });
    return pairs;
  }

  /// Whether both are the ends of one line that is no ring.
  bool isHardlyLonger(End a, End b) const {
    constexpr double kLeastWidths = 3;
    if (a / 2 != b / 2) return false;
    const StrokeLine& line = lines_[a / 2];
    return pathLength(pathThrough(line.points, false)) < kLeastWidths * penWidth(line);
  }

  void turnRound(std::size_t i) {
    std::reverse(lines_[i].points.begin(), lines_[i].points.end());
    std::reverse(lines_[i].widths.begin(), lines_[i].widths.end());
    std::swap(lines_[i].freeEnds[0], lines_[i].freeEnds[1]);
    std::swap(first_[i], last_[i]);
  }

  void join(End a, End b) {
    const std::size_t i = lineOf_[a];
    const std::size_t j = lineOf_[b];
    StrokeLine& line = lines_[i];
    if (i == j) {
      line.points.back() = lerp(line.points.front(), line.points.back(), 0.5);
      line.points.erase(line.points.begin());
      line.closed = true;
      line.freeEnds = {};
      return;
    }
    if (last_[i] != a) turnRound(i);
    if (first_[j] != b) turnRound(j);
    StrokeLine& next = lines_[j];
    line.points.back() = lerp(line.points.back(), next.points.front(), 0.5);
    line.points.insert(line.points.end(), next.points.begin() + 1, next.points.end());
    line.widths.insert(line.widths.end(), next.widths.begin(), next.widths.end());
    line.freeEnds[1] = next.freeEnds[1];
    last_[i] = last_[j];
    lineOf_[last_[i]] = i;
    next = {};
  }

  std::vector<StrokeLine> lines_;
  std::vector<std::size_t> lineOf_;  ///< the line that an end belongs to now
  std::vector<End> first_, last_;    ///< of each line
};

}  // namespace

std::vector<StrokeLine> endToEnd(std::vector<StrokeLine> lines) { return Joiner(std::move(lines)).run(); }

}  // namespace rim::trace::lines
