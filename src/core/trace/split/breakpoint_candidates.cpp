#include "core/trace/split/breakpoint_candidates.h"

#include <cstdint>
#include <queue>

#include "core/trace/fit/moments.h"

namespace rim::trace::split {
namespace {

constexpr std::size_t kPointsOfRun = 3;
/// What runs must save by becoming one: doubtful breaks are kept.
constexpr double kLeastSaving = 5;

/// Points of the track in a row, and the runs beside it.
struct Run {
  std::size_t from = 0;  ///< index of its first point; the next run's is one beyond its last
  double way = 0;        ///< px, with the way to the next run's first point
  fit::MomentSums sums;
  double price = 0;
  std::size_t before = 0;
  std::size_t after = 0;
  double priceAsOne = 0;     ///< with the run after it, at the last offer
  std::uint32_t offers = 0;  ///< how often they were looked at
  bool gone = false;
};

/// A run that may become one with the one after it; void when they were looked at again since.
struct Offer {
  double saving = 0;
  std::uint32_t run = 0;
  std::uint32_t number = 0;
  friend bool operator<(const Offer& a, const Offer& b) { return a.saving < b.saving; }
};

class Merger {
 public:
  Merger(const Track& track, const SplitLimits& limits) : limits_(limits) {
    const std::size_t n = track.closed() ? track.last() : track.last() + 1;
    runs_.reserve(n / kPointsOfRun + 1);
    for (std::size_t from = 0; from < n; from += kPointsOfRun) {
      const std::size_t end = std::min(n, from + kPointsOfRun);
      Run run{from, track.arcLength(std::min(end, track.last())) - track.arcLength(from),
              fit::MomentSums(track.point(from))};
      for (std::size_t i = from; i < end; ++i) run.sums.add(track.point(i));
      run.price = priceOfPiece(run.sums.central(), run.way, limits);
      run.before = runs_.size() - 1;
      run.after = runs_.size() + 1;
      runs_.push_back(run);
    }
    count_ = runs_.size();
    runs_.front().before = track.closed() ? count_ - 1 : kNone;
    runs_.back().after = track.closed() ? 0 : kNone;
  }

  void mergeAll() {
    for (std::size_t r = 0; r < runs_.size(); ++r) offer(r);
    while (!offers_.empty() && count_ > 2) {
      const Offer offer = offers_.top();
      offers_.pop();
      const Run& run = runs_[offer.run];
      if (!run.gone && run.offers == offer.number) merge(offer.run);
    }
  }

  /// Where the runs that are left begin.
  std::vector<std::size_t> beginnings() const {
    std::vector<std::size_t> found;
    for (const Run& run : runs_) {
      if (!run.gone && run.before != kNone) found.push_back(run.from);
    }
    std::sort(found.begin(), found.end());
    return found;
  }

 private:
  static constexpr std::size_t kNone = static_cast<std::size_t>(-1);

  /// Remembers that run r and the one after it may become one, if that saves enough.
  void offer(std::size_t r) {
    if (r == kNone || runs_[r].after == kNone) return;
    Run& a = runs_[r];
    const Run& b = runs_[a.after];
    fit::MomentSums both = a.sums;
    both.add(b.sums);
    const double worthIt = a.price + b.price - kLeastSaving;
    a.priceAsOne = priceOfPiece(both.central(), a.way + b.way, limits_, worthIt);
    ++a.offers;
    if (a.priceAsOne < worthIt)
      offers_.push({a.price + b.price - a.priceAsOne, static_cast<std::uint32_t>(r), a.offers});
  }

  void merge(std::size_t first) {
    Run& a = runs_[first];
    Run& b = runs_[a.after];
    a.sums.add(b.sums);
    a.way += b.way;
    a.price = a.priceAsOne;
    a.after = b.after;
    b.gone = true;
    --count_;
    if (b.after != kNone) runs_[b.after].before = first;
    offer(a.before);
    offer(first);
  }

  const SplitLimits& limits_;
  std::vector<Run> runs_;
  std::size_t count_ = 0;
  std::priority_queue<Offer> offers_;
};

}  // namespace

std::vector<std::size_t> breakpointCandidates(const Track& track, const SplitLimits& limits) {
  Merger merger(track, limits);
  merger.mergeAll();
  return merger.beginnings();
}

}  // namespace rim::trace::split
