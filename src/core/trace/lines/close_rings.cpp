#include "core/trace/lines/close_rings.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/geometry/box_index.h"
#include "core/trace/lines/track_points.h"

namespace rim::trace::lines {
namespace {

/// A stretch of a line between two places where lines meet; its ends have the numbers 2 n and 2 n + 1.
struct Branch {
  std::size_t line = 0;
  std::vector<Point> points;
  std::vector<Point> even;  ///< the same, kTrackStepPx apart; none of a closed line
};

/// Where a line ends on another one: three ends of arms, of which `through` go on in each other.
struct Fork {
  std::size_t ending = 0;
  std::array<std::size_t, 2> through{};
};

/// Where a line is cut, and which end comes onto it there.
struct Landing {
  std::size_t ending = 0;  ///< twice the line's number, and one more for its last point
  std::size_t line = 0;
  std::size_t at = 0;  ///< point of that line
};

Point turned(Point way, double angle) {
  return {way.x * std::cos(angle) - way.y * std::sin(angle), way.x * std::sin(angle) + way.y * std::cos(angle)};
}

/// How an arm may come to its end: as it runs near to it, or bent on as it bends there.
struct WaysIn {
  Point straight;
  Point bent;
};

/// None where the arm is too short to say. What lies next to the end does not count, as a corner is round there.
std::optional<WaysIn> waysIn(const Branch& branch, bool last, double width) {
  const std::size_t step = std::max<std::size_t>(1, static_cast<std::size_t>(width / 2 / kTrackStepPx));
  const auto at = [&](std::size_t k) { return branch.even[last ? branch.even.size() - 1 - k : k]; };
  if (branch.even.size() < 3 * step + 1) return {};
  const Point near = unit(at(step) - at(2 * step));
  constexpr double kStepsOn = 1.5;  // from the middle of `near` to the end
  return WaysIn{near, turned(near, kStepsOn * angleBetween(at(2 * step) - at(3 * step), near))};
}

/// What one turns by who comes along one arm and goes on along another, radians: the least that both allow. None where
/// either is too short to say.
std::optional<double> turnOver(const Branch& from, bool fromLast, const Branch& to, bool toLast, double width) {
  const auto in = waysIn(from, fromLast, width);
  const auto out = waysIn(to, toLast, width);
  if (!in || !out) return {};
  double least = std::numbers::pi;
  for (const Point a : {in->straight, in->bent}) {
    for (const Point b : {out->straight, out->bent}) least = std::min(least, std::abs(angleBetween(a, -b)));
  }
  return least;
}

/// Lines as arms and forks, and the rings that other pairs of arms would close.
class Rings {
 public:
  Rings(std::vector<StrokeLine> lines, double width) : lines_(std::move(lines)), width_(width) {
    cutAtLandings(landings());
  }

  std::vector<StrokeLine> run() {
    bool any = false;
    while (auto ring = cheapestRing()) {
      close(*ring);
      any = true;
    }
    if (!any) return std::move(lines_);
    for (const Fork& fork : forks_) redraw(fork);
    return rebuilt();
  }

 private:
  static constexpr std::size_t kNone = static_cast<std::size_t>(-1);

  /// A way round: the ends at which forks are come to and left, and what it bends more than now.
  struct Ring {
    struct Turn {
      std::size_t fork, in, out;
    };
    std::vector<Turn> turns;
    double cost = 0;
  };

  /// Ends of open lines that lie on another line, or on the same one farther on.
  std::vector<Landing> landings() const {
    std::vector<Point> places;
    std::vector<std::pair<std::size_t, std::size_t>> whose;
    for (std::size_t l = 0; l < lines_.size(); ++l) {
      for (std::size_t i = 0; i < lines_[l].points.size() && !lines_[l].closed; ++i) {
        places.push_back(lines_[l].points[i]);
        whose.emplace_back(l, i);
      }
    }
    const BoxIndex index(boxesAt(places));
    const double reach = std::max(1.0, width_ / 10);
    const auto own = static_cast<std::size_t>(2 * width_ / kTrackStepPx);
    std::vector<Landing> found;
    for (std::size_t e = 0; e < 2 * lines_.size(); ++e) {
      const StrokeLine& line = lines_[e / 2];
      if (line.closed || line.points.size() < 2 || line.freeEnds[e % 2]) continue;
      const std::size_t tip = e % 2 == 0 ? 0 : line.points.size() - 1;
      double least = reach;
      std::optional<Landing> met;
      index.near({line.points[tip], line.points[tip]}, reach, [&](std::size_t k) {
        const auto [l, i] = whose[k];
        const double off = distance(places[k], line.points[tip]);
        if (off > least || (l == e / 2 && (i > tip ? i - tip : tip - i) < own)) return;
        if (i == 0 || i + 1 >= lines_[l].points.size()) return;
        least = off;
        met = Landing{e, l, i};
      });
      if (met) found.push_back(*met);
    }
    return found;
  }

  /// Cuts lines where others end on them. Where two end nearly together nothing is clear: such places are left out.
  void cutAtLandings(std::vector<Landing> met) {
    const auto near = [this](const Landing& a, const Landing& b) {
      return a.ending != b.ending && a.line == b.line &&
             distance(lines_[a.line].points[a.at], lines_[b.line].points[b.at]) < width_;
    };
    std::vector<Landing> clear;
    std::copy_if(met.begin(), met.end(), std::back_inserter(clear), [&](const Landing& one) {
      return std::none_of(met.begin(), met.end(), [&](const Landing& other) { return near(one, other); });
    });
    std::sort(clear.begin(), clear.end(), [](const Landing& a, const Landing& b) { return a.at < b.at; });
    std::vector<std::size_t> endBranch(2 * lines_.size(), kNone);
    std::vector<Fork> forks;
    for (std::size_t l = 0; l < lines_.size(); ++l) {
      const std::vector<Point>& points = lines_[l].points;
      std::size_t first = 0;
      endBranch[2 * l] = 2 * branches_.size();
      for (const Landing& cut : clear) {
        if (cut.line != l) continue;
        addBranch(l, slice(points, first, cut.at));
        forks.push_back({cut.ending, {2 * branches_.size() - 1, 2 * branches_.size()}});
        first = cut.at;
      }
      endBranch[2 * l + 1] = 2 * branches_.size() + 1;
      addBranch(l, points.empty() ? points : slice(points, first, points.size() - 1));
    }
    partner_.assign(2 * branches_.size(), kNone);
    forkOf_.assign(2 * branches_.size(), kNone);
    for (std::size_t f = 0; f < forks.size(); ++f) {
      forks[f].ending = endBranch[forks[f].ending];
      partner_[forks[f].through[0]] = forks[f].through[1];
      partner_[forks[f].through[1]] = forks[f].through[0];
      for (const std::size_t e : {forks[f].ending, forks[f].through[0], forks[f].through[1]}) forkOf_[e] = f;
    }
    settled_.assign(forks.size(), false);
    forks_ = std::move(forks);
  }

  void addBranch(std::size_t line, std::vector<Point> points) {
    std::vector<Point> even = points.empty() || lines_[line].closed ? std::vector<Point>{} : evenly(points);
    branches_.push_back({line, std::move(points), std::move(even)});
  }

  static std::vector<Point> slice(const std::vector<Point>& points, std::size_t first, std::size_t last) {
    return {points.begin() + static_cast<std::ptrdiff_t>(first),
            points.begin() + static_cast<std::ptrdiff_t>(last) + 1};
  }

  std::optional<double> turn(std::size_t in, std::size_t out) const {
    return turnOver(branches_[in / 2], in % 2 == 1, branches_[out / 2], out % 2 == 1, width_);
  }

  /// What it costs to go from one end at a fork on in another one: nothing where that is so now, none where it must
  /// not.
  std::optional<double> costOf(const Fork& fork, std::size_t in, std::size_t out) const {
    constexpr double kStraight = 0.45;
    constexpr double kSharpest = 1.9;
    if (partner_[in] == out) return 0;
    const auto now = turn(fork.through[0], fork.through[1]);
    const auto then = turn(in, out);
    if (!now || !then || *now < kStraight || *then > kSharpest) return {};
    return std::max(0.0, *then - *now);
  }

  std::optional<Ring> cheapestRing() const {
    std::optional<Ring> best;
    for (std::size_t f = 0; f < forks_.size(); ++f) {
      for (const std::size_t out : forks_[f].through) {
        Ring ring;
        std::size_t left = kMostSteps;
        search(f, forks_[f].ending, out, ring, best, left);
      }
    }
    return best;
  }

  /// Goes over a fork and along the arm behind it, to its next fork, until the way is round.
  void search(std::size_t f, std::size_t in, std::size_t out, Ring& ring, std::optional<Ring>& best,
              std::size_t& left) const {
    const auto cost = costOf(forks_[f], in, out);
    if (settled_[f] || !cost || left == 0 || ring.turns.size() == kMostTurns) return;
    --left;
    ring.turns.push_back({f, in, out});
    ring.cost += *cost;
    const std::size_t far = out ^ 1U;
    const std::size_t next = forkOf_[far];
    if (!best || ring.cost < best->cost) {
      if (far == ring.turns.front().in) {
        best = ring;
      } else if (next != kNone && std::none_of(ring.turns.begin(), ring.turns.end(),
                                               [next](const Ring::Turn& t) { return t.fork == next; })) {
        for (const std::size_t on : {forks_[next].ending, forks_[next].through[0], forks_[next].through[1]}) {
          if (on != far) search(next, far, on, ring, best, left);
        }
      }
    }
    ring.cost -= *cost;
    ring.turns.pop_back();
  }

  void close(const Ring& ring) {
    for (const Ring::Turn& t : ring.turns) {
      settled_[t.fork] = true;
      for (const std::size_t e : forks_[t.fork].through) partner_[e] = kNone;
      partner_[t.in] = t.out;
      partner_[t.out] = t.in;
    }
  }

  /// Draws anew how arms meet at a fork that has other pairs now: what they were there came of how they were joined.
  void redraw(const Fork& fork) {
    if (partner_[fork.through[0]] == fork.through[1]) return;
    const std::size_t in = fork.ending;
    const std::size_t out = partner_[in];
    if (out == kNone) return;
    const std::size_t third = out == fork.through[0] ? fork.through[1] : fork.through[0];
    const Continuation from = cutBack(in);
    const Continuation to = cutBack(out);
    const auto corner = meetingOf(from, to, width_, 2 * width_);
    std::vector<Point> between = corner ? pointsOnTo(from, *corner) : bridge(from, to);
    if (corner) {
      const std::vector<Point> back = pointsOnTo(to, *corner);
      between.insert(between.end(), back.rbegin(), back.rend());
    }
    between.push_back(to.tip);
    addAtEnd(in, between);
    const Continuation on = cutBack(third);
    const auto beside = [&on](Point p) { return distance(p, fit::project(on.shape, p)); };
    const auto met =
        std::min_element(between.begin(), between.end(), [&beside](Point p, Point q) { return beside(p) < beside(q); });
    addAtEnd(third, pointsOnTo(on, *met));
  }

  /// Takes half a width off an end of an arm, or a third of a short one. How it would run on.
  Continuation cutBack(std::size_t e) {
    std::vector<Point>& points = branches_[e / 2].points;
    if (e % 2 == 0) std::reverse(points.begin(), points.end());
    const auto size = static_cast<std::ptrdiff_t>(points.size());
    const auto half = static_cast<std::ptrdiff_t>(width_ / 2 / kTrackStepPx);
    points.resize(static_cast<std::size_t>(std::max<std::ptrdiff_t>(2, size - std::min(half, size / 3))));
    const auto window = static_cast<std::size_t>(3 * width_ / kTrackStepPx);
    Continuation on = continuationOf(std::span(points).last(std::min(points.size(), window)), width_);
    points.back() = on.tip;
    if (e % 2 == 0) std::reverse(points.begin(), points.end());
    return on;
  }

  void addAtEnd(std::size_t e, const std::vector<Point>& more) {
    std::vector<Point>& points = branches_[e / 2].points;
    if (e % 2 == 1)
      points.insert(points.end(), more.begin(), more.end());
    else
      points.insert(points.begin(), more.rbegin(), more.rend());
  }

  std::vector<StrokeLine> rebuilt() const {
    std::vector<StrokeLine> all;
    std::vector<bool> used(branches_.size(), false);
    for (const bool rings : {false, true}) {
      for (std::size_t e = 0; e < partner_.size(); ++e) {
        if (!used[e / 2] && (rings || partner_[e] == kNone)) all.push_back(lineFrom(e, used));
      }
    }
    return all;
  }

  /// The line that begins with an end of an arm.
  StrokeLine lineFrom(std::size_t first, std::vector<bool>& used) const {
    StrokeLine line;
    std::size_t e = first;
    while (!used[e / 2]) {
      used[e / 2] = true;
      const Branch& branch = branches_[e / 2];
      std::vector<Point> points = branch.points;
      if (e % 2 == 1) std::reverse(points.begin(), points.end());
      line.points.insert(line.points.end(), points.begin() + (line.points.empty() ? 0 : 1), points.end());
      const StrokeLine& source = lines_[branch.line];
      line.widths.insert(line.widths.end(), source.widths.begin(), source.widths.end());
      if (source.closed) line.closed = true;
      e ^= 1U;
      if (partner_[e] == kNone) break;
      e = partner_[e];
    }
    if (e == first && partner_[first] != kNone) {
      line.closed = true;
      line.points.pop_back();
    }
    if (line.closed) return line;
    line.freeEnds[0] = freeEndOf(first);
    line.freeEnds[1] = freeEndOf(e);
    return line;
  }

  std::optional<FreeEnd> freeEndOf(std::size_t e) const {
    return forkOf_[e] == kNone ? lines_[branches_[e / 2].line].freeEnds[e % 2] : std::nullopt;
  }

  static constexpr std::size_t kMostTurns = 12;
  static constexpr std::size_t kMostSteps = 5000;  ///< of one search

  std::vector<StrokeLine> lines_;
  double width_;
  std::vector<Branch> branches_;
  std::vector<Fork> forks_;
  std::vector<std::size_t> partner_;  ///< of each end of an arm the one it goes on in
  std::vector<std::size_t> forkOf_;
  std::vector<bool> settled_;  ///< forks that a ring goes over
};

}  // namespace

std::vector<StrokeLine> withRingsClosed(std::vector<StrokeLine> lines, double width) {
  constexpr std::size_t kMany = 300;  // among more of them no one asks for rings one by one
  if (lines.size() < 2 && !(lines.size() == 1 && !lines.front().closed)) return lines;
  if (lines.size() > kMany) return lines;
  return Rings(std::move(lines), width).run();
}

}  // namespace rim::trace::lines
