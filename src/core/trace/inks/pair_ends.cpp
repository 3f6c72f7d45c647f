#include "core/trace/inks/pair_ends.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/disjoint_sets.h"

namespace rim::trace::inks {
namespace {

constexpr double kStraight = 0.2;
/// Lines that pass each other by more than this do not go over into each other, however parallel they are.
constexpr double kMostOffsetPx = 0.9;

struct End {
  std::size_t border = 0;
  bool atEnd = false;
  Point out;    ///< unit, out of the junction
  Point place;  ///< the measured point nearest to the junction

  std::size_t key() const { return 2 * border + (atEnd ? 1 : 0); }
};

/// Two ends that may go over into each other.
struct Candidate {
  std::size_t rank = 0;  ///< of the first lone ink whose outline leads on; their number when none does
  double bend = 0;       ///< radians
  bool bent = false;     ///< not straight
  std::size_t a = 0;
  std::size_t b = 0;
};

std::uint64_t bitOf(std::uint8_t ink) { return ink == kOutside ? 0 : std::uint64_t{1} << ink; }

/// How far the lines of two ends that lead the same way pass each other, halfway between the ends.
double offsetOf(const End& a, const End& b) {
  const Point between = b.place - a.place;
  return std::abs(cross(a.out, between) - cross(b.out, between)) / 2;
}

/// Whether two lines cross there: ends that go straight on, and two others that do.
bool linesCross(const std::vector<Candidate>& here) {
  for (const Candidate& one : here) {
    for (const Candidate& other : here) {
      const bool apart = one.a != other.a && one.a != other.b && one.b != other.a && one.b != other.b;
      if (apart && !one.bent && !other.bent) return true;
    }
  }
  return false;
}

class Pairing {
 public:
  Pairing(const std::vector<Junction>& junctions, const std::vector<InkBorder>& borders, const LoneInks& lone)
      : junctions_(junctions), borders_(borders), lone_(lone), ways_(borders.size()), turns_(borders.size(), false) {
    pairs_.partner.assign(2 * borders.size(), EndPairs::kNone);
    pairs_.bent.assign(2 * borders.size(), false);
    for (const InkBorder& border : borders) beside_.push_back(bitOf(border.left) | bitOf(border.right));
  }

  EndPairs run() {
    std::vector<std::vector<End>> at(junctions_.size());
    for (std::size_t i = 0; i < borders_.size(); ++i) {
      const InkBorder& b = borders_[i];
      if (b.start < 0) continue;
      at[static_cast<std::size_t>(b.start)].push_back({i, false, b.leaves, b.points.front()});
      at[static_cast<std::size_t>(b.end)].push_back({i, true, -b.arrives, b.points.back()});
    }
    for (std::size_t j = 0; j < at.size(); ++j) {
      if (!junctions_[j].fixed) collect(at[j], junctions_[j].place);
    }
    std::stable_sort(candidates_.begin(), candidates_.end(), [](const Candidate& a, const Candidate& b) {
      return std::pair(a.rank, a.bend) < std::pair(b.rank, b.bend);
    });
    for (const Candidate& candidate : candidates_) join(candidate);
    return std::move(pairs_);
  }

 private:
  bool isOnRim(const End& e) const {
    return borders_[e.border].left == kOutside || borders_[e.border].right == kOutside;
  }

  std::uint8_t inkBeside(const End& e, bool left) const {
    const InkBorder& border = borders_[e.border];
    return left != e.atEnd ? border.left : border.right;
  }

  /// Whether the ink's outline leads from one end to the other without a corner.
  bool goesOnAlong(std::uint8_t ink, const End& a, const End& b, Point junction) const {
    // What lies at the left of the way out of a junction lies at the right of the way into it.
    const bool beside = (inkBeside(a, true) == ink && inkBeside(b, false) == ink) ||
                        (inkBeside(a, false) == ink && inkBeside(b, true) == ink);
    return beside && lone_.isSmoothNear(ink, junction);
  }

  /// Two ends that may go over into each other; nothing where they do not.
  std::optional<Candidate> candidateOf(const End& a, const End& b, Point junction) const {
    if (isOnRim(a) != isOnRim(b)) return std::nullopt;
    Candidate candidate{0, 0, false, a.key(), b.key()};
    if (isOnRim(a)) return candidate;
    candidate.bend = std::abs(angleBetween(a.out, -b.out));
    candidate.bent = candidate.bend >= kStraight || offsetOf(a, b) > kMostOffsetPx;
    const auto& inks = lone_.inks();
    while (candidate.rank < inks.size() && !goesOnAlong(inks[candidate.rank].ink, a, b, junction)) ++candidate.rank;
    if (candidate.bent && candidate.rank == inks.size()) return std::nullopt;
    return candidate;
  }

  void collect(const std::vector<End>& ends, Point junction) {
    std::vector<Candidate> here;
    for (std::size_t i = 0; i < ends.size(); ++i) {
      for (std::size_t k = i + 1; k < ends.size(); ++k) {
        const auto candidate = candidateOf(ends[i], ends[k], junction);
        if (candidate) here.push_back(*candidate);
      }
    }
    if (linesCross(here)) std::erase_if(here, [](const Candidate& c) { return c.bent; });
    // Of those that are nearly straight the straightest counts, whatever leads on along them.
    std::size_t first = lone_.inks().size();
    for (const Candidate& c : here) first = c.bent ? first : std::min(first, c.rank);
    for (Candidate& c : here) c.rank = c.bent ? c.rank : first;
    candidates_.insert(candidates_.end(), here.begin(), here.end());
  }

  void join(const Candidate& candidate) {
    const auto [rank, bend, bent, a, b] = candidate;
    if (pairs_.partner[a] != EndPairs::kNone || pairs_.partner[b] != EndPairs::kNone) return;
    const std::size_t one = ways_.of(a / 2);
    const std::size_t two = ways_.of(b / 2);
    const std::uint64_t beside = beside_[one] & beside_[two];
    const bool turns = bent || turns_[one] || turns_[two];
    // A way that turns in a junction lies along one ink's outline.
    if (turns && beside == 0) return;
    ways_.join(one, two);
    beside_[ways_.of(one)] = beside;
    turns_[ways_.of(one)] = turns;
    for (const auto& [end, other] : {std::pair(a, b), std::pair(b, a)}) {
      pairs_.partner[end] = other;
      pairs_.bent[end] = bent;
    }
  }

  const std::vector<Junction>& junctions_;
  const std::vector<InkBorder>& borders_;
  const LoneInks& lone_;
  std::vector<Candidate> candidates_;
  DisjointSets ways_;                  ///< of borders
  std::vector<std::uint64_t> beside_;  ///< of each way, by the border that stands for it: the inks beside all of it
  std::vector<bool> turns_;            ///< and whether it turns in a junction
  EndPairs pairs_;
};

}  // namespace

EndPairs pairedEnds(const std::vector<Junction>& junctions, const std::vector<InkBorder>& borders,
                    const LoneInks& lone) {
  return Pairing(junctions, borders, lone).run();
}

}  // namespace rim::trace::inks
