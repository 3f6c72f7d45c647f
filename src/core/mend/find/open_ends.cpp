#include "core/mend/find/open_ends.h"

#include <algorithm>
#include <cstdint>
#include <numbers>
#include <unordered_map>

#include "core/geometry/box_index.h"
#include "core/geometry/intersect.h"
#include "core/geometry/segment.h"
#include "core/mend/find/branches.h"

namespace rim::mend {
namespace {

constexpr std::size_t kNone = static_cast<std::size_t>(-1);

/// Ends by number: path 2 i is the start of the i-th open path, 2 i + 1 its end.
struct Ends {
  std::vector<End> ends;
  std::vector<double> lengths;  // of each open path
  std::vector<std::size_t> layers;
};

Ends endsOf(const Drawing& drawing) {
  Ends all;
  const Paths paths = pathsOf(drawing);
  for (std::size_t p = 0; p < paths.size(); ++p) {
    if (paths[p].closed || paths[p].segments.empty()) continue;
    all.ends.push_back(endOf(paths, p, true));
    all.ends.push_back(endOf(paths, p, false));
    all.lengths.push_back(pathLength(paths[p]));
    all.layers.push_back(drawing.outlines[p].layer);
  }
  return all;
}

/// Ends sorted into square cells.
class Cells {
 public:
  Cells(const std::vector<End>& ends, const std::vector<std::size_t>& which, double width)
      : ends_(ends), width_(width) {
    for (const std::size_t i : which) held_.emplace_back(keyOf(cellOf(ends[i].place.x), cellOf(ends[i].place.y)), i);
    std::sort(held_.begin(), held_.end());
  }

  /// Calls `visit(i, j)` for all i < j whose places are within the cells' width.
  template <typename Visit>
  void pairs(Visit visit) const {
    for (const auto& [key, i] : held_) {
      const std::int64_t x = cellOf(ends_[i].place.x);
      const std::int64_t y = cellOf(ends_[i].place.y);
      for (std::int64_t dx = -1; dx <= 1; ++dx) {
        for (std::int64_t dy = -1; dy <= 1; ++dy) visitCell(keyOf(x + dx, y + dy), i, visit);
      }
    }
  }

 private:
  template <typename Visit>
  void visitCell(std::uint64_t key, std::size_t i, Visit visit) const {
    const auto first = std::lower_bound(held_.begin(), held_.end(), std::pair(key, std::size_t{0}));
    for (auto at = first; at != held_.end() && at->first == key; ++at) {
      const std::size_t j = at->second;
      if (i < j && distance(ends_[i].place, ends_[j].place) <= width_) visit(i, j);
    }
  }

  std::int64_t cellOf(double v) const { return static_cast<std::int64_t>(std::floor(v / width_)); }
  static std::uint64_t keyOf(std::int64_t x, std::int64_t y) {
    return static_cast<std::uint64_t>(x) * 0x9E3779B97F4A7C15ULL ^
           static_cast<std::uint64_t>(y) * 0xC2B2AE3D27D4EB4FULL;
  }

  const std::vector<End>& ends_;
  double width_;
  std::vector<std::pair<std::uint64_t, std::size_t>> held_;
};

class Pairing {
 public:
  Pairing(const Drawing& drawing, const MendSettings& settings)
      : drawing_(drawing),
        paths_(pathsOf(drawing)),
        settings_(settings),
        all_(endsOf(drawing)),
        partner_(all_.ends.size(), kNone) {}

  OpenEnds run() {
    joinTwos();
    std::vector<std::size_t> rest;
    for (std::size_t e = 0; e < all_.ends.size(); ++e) {
      if (partner_[e] == kNone) rest.push_back(e);
    }
    joinRest(rest);
    return result(rest);
  }

 private:
  struct Candidate {
    std::size_t a, b;
    double gap;
    double cost;
  };
  struct Chain {
    std::size_t far = kNone;  // its other end
    double length = 0;
  };

  struct Company {
    std::size_t count = 0;
    std::size_t last = kNone;
  };

  /// Places where exactly two ends meet.
  void joinTwos() {
    std::vector<std::size_t> every;
    for (std::size_t e = 0; e < all_.ends.size(); ++e) every.push_back(e);
    std::vector<Company> company(every.size());
    Cells(all_.ends, every, settings_.coincidentMm).pairs([&company](std::size_t i, std::size_t j) {
      ++company[i].count;
      ++company[j].count;
      company[i].last = j;
      company[j].last = i;
    });
    for (const std::size_t e : every) {
      const std::size_t other = company[e].last;
      if (company[e].count != 1 || company[other].count != 1) continue;
      if (e / 2 == other / 2 && all_.lengths[e / 2] < shortestClosed()) continue;
      if (layerOf(e) != layerOf(other)) continue;
      partner_[e] = other;
    }
  }

  double shortestClosed() const { return 4 * settings_.coincidentMm; }
  std::size_t layerOf(std::size_t end) const { return all_.layers[end / 2]; }

  /// From a free end through all that is joined already to the free end at the other side.
  Chain chainFrom(std::size_t end) const {
    Chain chain{end, 0};
    while (true) {
      chain.length += all_.lengths[chain.far / 2];
      chain.far ^= 1U;
      if (partner_[chain.far] == kNone) return chain;
      chain.far = partner_[chain.far];
    }
  }

  Piece endPiece(std::size_t end) const {
    const Path& path = drawing_.path(all_.ends[end].path);
    return pieceOf(path, all_.ends[end].atStart ? 0 : path.segments.size() - 1);
  }

  /// How far from both ends their lines cross, the farther of the two; none when they do not.
  std::optional<double> crossingNear(std::size_t i, std::size_t j) const {
    const Piece a = endPiece(i);
    const Piece b = endPiece(j);
    std::optional<double> best;
    for (const Meeting& m : meetings(a, b)) {
      const double back = std::max((all_.ends[i].atStart ? m.t : 1 - m.t) * lengthOf(a),
                                   (all_.ends[j].atStart ? m.u : 1 - m.u) * lengthOf(b));
      if (!best || back < *best) best = back;
    }
    return best;
  }

  std::vector<Candidate> candidatesAmong(const std::vector<std::size_t>& rest,
                                         const std::unordered_map<std::size_t, Chain>& chains) const {
    std::vector<Candidate> found;
    Cells(all_.ends, rest, std::max(kOvershootReach * settings_.gapMm, settings_.coincidentMm))
        .pairs([&](std::size_t i, std::size_t j) {
          double gap = distance(all_.ends[i].place, all_.ends[j].place);
          const bool own = chains.at(i).far == j;
          // A line no longer than the gap is no outline that could be closed.
          if (own && chains.at(i).length < std::max(2 * settings_.gapMm, 3 * gap)) return;
          if (i / 2 != j / 2 && gap > settings_.coincidentMm) {
            const auto crossing = crossingNear(i, j);
            if (crossing && *crossing <= settings_.gapMm) gap = std::min(gap, *crossing);
          }
          if (gap > settings_.gapMm || (gap > settings_.coincidentMm && branchOff(i, j))) return;
          found.push_back({i, j, gap, gap + straightness(i, j) + (layerOf(i) != layerOf(j) ? settings_.gapMm : 0)});
        });
    return found;
  }

  /// Whether both ends are at home where they are, within other lines: one within a third path's, the other within that
  /// or the one's.
  bool branchOff(std::size_t i, std::size_t j) const {
    if (!index_) index_.emplace(paths_);
    const Branches branches(paths_, *index_, settings_.coincidentMm);
    const End& a = all_.ends[i];
    const End& b = all_.ends[j];
    const auto onThird = [&](const End& end, const End& other) { return branches.withinLine(end, other.path); };
    const auto onAny = [&](const End& end) { return branches.withinLine(end, end.path); };
    return (onThird(a, b) && onAny(b)) || (onThird(b, a) && onAny(a));
  }

  /// A millionth of a turn's worth of millimetres: it decides only between ends equally near.
  double straightness(std::size_t i, std::size_t j) const {
    constexpr double kMmPerRadian = 1e-3;
    return kMmPerRadian * std::abs(angleBetween(all_.ends[i].outward, -all_.ends[j].outward));
  }

  /// Of the chains those that are held at both ends by others that are held: what can be part of a closed outline.
  std::unordered_map<std::size_t, bool> held(const std::vector<std::size_t>& rest,
                                             const std::vector<Candidate>& candidates,
                                             const std::unordered_map<std::size_t, Chain>& chains) const {
    std::unordered_map<std::size_t, std::vector<std::size_t>> near;
    std::unordered_map<std::size_t, bool> alive;
    for (const std::size_t e : rest) alive[e] = true;
    for (const Candidate& c : candidates) {
      near[c.a].push_back(c.b);
      near[c.b].push_back(c.a);
    }
    std::vector<std::size_t> open = rest;
    while (!open.empty()) {
      const std::size_t e = open.back();
      open.pop_back();
      if (!alive[e]) continue;
      const auto& others = near[e];
      if (std::any_of(others.begin(), others.end(), [&](std::size_t o) { return alive[o]; })) continue;
      for (const std::size_t lost : {e, chains.at(e).far}) {
        alive[lost] = false;
        for (const std::size_t o : near[lost]) open.push_back(o);
      }
    }
    return alive;
  }

  void joinRest(const std::vector<std::size_t>& rest) {
    std::unordered_map<std::size_t, Chain> chains;
    for (const std::size_t e : rest) chains[e] = chainFrom(e);
    std::vector<Candidate> candidates = candidatesAmong(rest, chains);
    const auto alive = held(rest, candidates, chains);
    const auto rank = [&alive](const Candidate& c) { return alive.at(c.a) && alive.at(c.b) ? 0 : 1; };
    std::sort(candidates.begin(), candidates.end(), [&rank](const Candidate& p, const Candidate& q) {
      return std::tuple(rank(p), p.cost, p.a, p.b) < std::tuple(rank(q), q.cost, q.a, q.b);
    });
    for (const Candidate& c : candidates) {
      if (partner_[c.a] != kNone || partner_[c.b] != kNone) continue;
      partner_[c.a] = c.b;
      partner_[c.b] = c.a;
      gaps_[std::min(c.a, c.b)] = c.gap;
    }
  }

  OpenEnds result(const std::vector<std::size_t>& rest) const {
    OpenEnds found;
    for (std::size_t e = 0; e < all_.ends.size(); ++e) {
      if (partner_[e] == kNone || partner_[e] < e) continue;
      const auto gap = gaps_.find(e);
      found.pairs.push_back({all_.ends[e], all_.ends[partner_[e]], gap == gaps_.end() ? 0.0 : gap->second});
    }
    addLonely(rest, found);
    return found;
  }

  void addLonely(const std::vector<std::size_t>& rest, OpenEnds& found) const {
    std::vector<End> ends;
    for (const std::size_t e : rest) {
      if (partner_[e] == kNone) ends.push_back(all_.ends[e]);
    }
    const LonelyEnds lonely(drawing_, ends);
    for (std::size_t i = 0; i < ends.size(); ++i) found.lonely.push_back(lonely.at(i));
  }

  const Drawing& drawing_;
  Paths paths_;
  const MendSettings& settings_;
  Ends all_;
  std::vector<std::size_t> partner_;
  std::unordered_map<std::size_t, double> gaps_;
  mutable std::optional<PieceIndex> index_;  // made when it is first asked for
};

std::vector<Box> placesOf(const std::vector<End>& ends) {
  std::vector<Box> places;
  for (const End& end : ends) places.push_back({end.place, end.place});
  return places;
}

}  // namespace

LonelyEnds::LonelyEnds(const Drawing& drawing, std::vector<End> ends)
    : drawing_(drawing), ends_(std::move(ends)), index_(placesOf(ends_)) {}

LonelyEnd LonelyEnds::at(std::size_t i) const {
  LonelyEnd one{ends_[i], {}, 0};
  constexpr std::size_t kCandidates = 3;  // itself, its own other end, and another
  for (const std::size_t k : index_.nearest(one.end.place, kCandidates)) {
    if (k == i || one.nearest) continue;
    const Path& path = drawing_.path(one.end.path);
    if (ends_[k].path == one.end.path && path.segments.size() == 1 && !isArc(path.segments[0])) continue;
    one.nearest = ends_[k];
    one.gapMm = distance(one.end.place, one.nearest->place);
  }
  return one;
}

End endOf(const Paths& paths, std::size_t path, bool atStart) {
  const Path& p = paths[path];
  if (atStart) return {path, true, p.start, -startTangent(p.start, p.segments.front())};
  const Piece last = pieceOf(p, p.segments.size() - 1);
  return {path, false, last.segment.end, endTangent(last.start, last.segment)};
}

OpenEnds pairEnds(const Drawing& drawing, const MendSettings& settings) { return Pairing(drawing, settings).run(); }

std::vector<std::size_t> scraps(const Paths& paths, const OpenEnds& ends, const MendSettings& settings,
                                const PieceIndex& index) {
  std::unordered_map<std::size_t, int> lonely;
  for (const LonelyEnd& e : ends.lonely) ++lonely[e.end.path];
  std::vector<std::size_t> found;
  for (const auto& [path, count] : lonely) {
    constexpr double kNoLengthMm = 1e-6;
    const double size = count == 2 ? pathLength(paths[path]) : 0;
    if (size > kNoLengthMm && size <= settings.gapMm) found.push_back(path);
  }
  const Branches branches(paths, index, settings.coincidentMm);
  std::erase_if(found, [&](std::size_t p) { return branches.partsAnArea(p); });
  std::sort(found.begin(), found.end());
  return found;
}

}  // namespace rim::mend
