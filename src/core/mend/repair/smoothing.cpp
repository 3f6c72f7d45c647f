#include "core/mend/repair/smoothing.h"

#include <algorithm>
#include <tuple>

#include "core/disjoint_sets.h"
#include "core/geometry/path_place.h"

namespace rim::mend {
namespace {

/// The path comes to a crossing, for the first or the second time.
struct Visit {
  OnPath at;
  Point place;
  std::size_t crossing = 0;
};

std::vector<Visit> visitsOf(const std::vector<TrueCrossing>& crossings) {
  std::vector<Visit> visits;
  for (std::size_t k = 0; k < crossings.size(); ++k) {
    visits.push_back({crossings[k].a, crossings[k].place, k});
    visits.push_back({crossings[k].b, crossings[k].place, k});
  }
  std::stable_sort(visits.begin(), visits.end(), [](const Visit& p, const Visit& q) {
    return std::tie(p.at.segment, p.at.t) < std::tie(q.at.segment, q.at.t);
  });
  return visits;
}

/// Of every visit the other one of its crossing.
std::vector<std::size_t> partnersOf(const std::vector<Visit>& visits) {
  std::vector<std::size_t> seen(visits.size() / 2, visits.size());
  std::vector<std::size_t> partners(visits.size());
  for (std::size_t v = 0; v < visits.size(); ++v) {
    std::size_t& other = seen[visits[v].crossing];
    if (other == visits.size()) {
      other = v;
      continue;
    }
    partners[v] = other;
    partners[other] = v;
  }
  return partners;
}

class Smoothing {
 public:
  Smoothing(const Path& path, const std::vector<TrueCrossing>& crossings)
      : path_(path), visits_(visitsOf(crossings)), partners_(partnersOf(visits_)), used_(visits_.size(), false) {}

  std::vector<Path> parts() {
    std::vector<Path> parts;
    // The stretch after the last visit leads over the start, or begins at it.
    parts.push_back(path_.closed ? round(visits_.size() - 1) : fromTheStart());
    for (std::size_t v = 0; v < visits_.size(); ++v) {
      if (!used_[v]) parts.push_back(round(v));
    }
    std::erase_if(parts, [](const Path& part) { return part.segments.empty(); });
    return parts;
  }

 private:
  /// The closed part that the stretch after a visit belongs to.
  Path round(std::size_t begin) {
    Path part{visits_[begin].place, {}, true};
    for (std::size_t v = begin; !used_[v];) {
      used_[v] = true;
      const std::size_t next = (v + 1) % visits_.size();
      add(part, visits_[v], visits_[next]);
      v = partners_[next];
    }
    return part;
  }

  Path fromTheStart() {
    Path part{path_.start, {}, false};
    addFrom(part, upTo(path_, visits_.front().at, visits_.front().place), visits_.front().place);
    const std::size_t last = visits_.size() - 1;
    for (std::size_t v = partners_[0];; v = partners_[v + 1]) {
      used_[v] = true;
      if (v == last) break;
      add(part, visits_[v], visits_[v + 1]);
    }
    const Path rest = from(path_, visits_.back().at, visits_.back().place);
    part.segments.insert(part.segments.end(), rest.segments.begin(), rest.segments.end());
    return part;
  }

  void add(Path& part, const Visit& from, const Visit& to) const {
    const bool sameSpot = from.at.segment == to.at.segment && from.at.t == to.at.t;
    // From the last visit on to the first the way leads over the start, however near they are.
    const bool nothing = sameSpot && &from != &visits_.back();
    if (nothing) {
      if (!(from.place == to.place)) part.segments.push_back(Segment::line(to.place));
      return;
    }
    addFrom(part, withEnds(between(path_, from.at, to.at), from.place, to.place), to.place);
  }

  static void addFrom(Path& part, const Path& stretch, Point end) {
    part.segments.insert(part.segments.end(), stretch.segments.begin(), stretch.segments.end());
    if (!part.segments.empty()) part.segments.back().end = end;
  }

  const Path& path_;
  std::vector<Visit> visits_;
  std::vector<std::size_t> partners_;
  std::vector<bool> used_;  ///< of the stretch after each visit
};

}  // namespace

std::vector<Path> smoothed(const Path& path, const std::vector<TrueCrossing>& crossings) {
  if (crossings.empty()) return {path};
  return Smoothing(path, crossings).parts();
}

std::vector<TrueCrossing> interlacedWith(const std::vector<TrueCrossing>& crossings, std::size_t which) {
  const std::vector<Visit> visits = visitsOf(crossings);
  const std::vector<std::size_t> partners = partnersOf(visits);
  DisjointSets together(crossings.size());
  // Of the crossings that were entered and not left, those entered after this one interlace with it.
  std::vector<std::size_t> open;
  for (std::size_t v = 0; v < visits.size(); ++v) {
    if (partners[v] > v) {
      open.push_back(v);
      continue;
    }
    const auto own = std::find(open.begin(), open.end(), partners[v]);
    for (auto other = own + 1; other != open.end(); ++other) together.join(visits[v].crossing, visits[*other].crossing);
    open.erase(own);
  }
  std::vector<TrueCrossing> found;
  for (std::size_t k = 0; k < crossings.size(); ++k) {
    if (together.of(k) == together.of(which)) found.push_back(crossings[k]);
  }
  return found;
}

}  // namespace rim::mend
