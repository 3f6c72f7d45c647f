#include "core/trace/likely_breaks.h"

#include <limits>
#include <queue>

#include "core/trace/moments.h"

namespace rim {
namespace {

constexpr std::size_t kPointsOfRun = 3;
/// What runs must save by becoming one: doubtful breaks are kept.
constexpr double kLeastSaving = 5;

/// Points of the track in a row, and the runs beside it.
struct Run {
  std::size_t from = 0;  ///< index of its first point; the next run's is one beyond its last
  double way = 0;        ///< px, with the way to the next run's first point
  MomentSums sums;
  double price = 0;
  std::size_t before = 0;
  std::size_t after = 0;
  std::size_t version = 0;  ///< how often it has grown
  bool gone = false;
};

/// Two neighbouring runs that may become one.
struct Pair {
  double saving = 0;
  double price = 0;  ///< as one
  std::size_t first = 0;
  std::size_t second = 0;
  std::size_t versions = 0;  ///< of both, added up
  friend bool operator<(const Pair& a, const Pair& b) { return a.saving < b.saving; }
};

class Merger {
 public:
  Merger(const Track& track, const SplitLimits& limits) : limits_(limits) {
    const std::size_t n = track.closed() ? track.last() : track.last() + 1;
    for (std::size_t from = 0; from < n; from += kPointsOfRun) {
      const std::size_t end = std::min(n, from + kPointsOfRun);
      Run run{from, track.way(std::min(end, track.last())) - track.way(from), MomentSums(track.point(from))};
      for (std::size_t i = from; i < end; ++i) run.sums.add(track.point(i));
      run.price = priceOf(run.sums, run.way);
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
    while (!pairs_.empty() && count_ > 2) {
      const Pair pair = pairs_.top();
      pairs_.pop();
      const Run& a = runs_[pair.first];
      const Run& b = runs_[pair.second];
      if (a.gone || b.gone || a.version + b.version != pair.versions) continue;
      merge(pair);
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

  double priceOf(const MomentSums& sums, double way, double atMost = std::numeric_limits<double>::infinity()) const {
    return priceOfPiece(sums.central(), way, limits_, atMost);
  }

  /// Remembers that run r and the one after it may become one, if that saves enough.
  void offer(std::size_t r) {
    if (r == kNone || runs_[r].after == kNone) return;
    const Run& a = runs_[r];
    const Run& b = runs_[a.after];
    MomentSums both = a.sums;
    both.add(b.sums);
    const double worthIt = a.price + b.price - kLeastSaving;
    const double price = priceOf(both, a.way + b.way, worthIt);
    if (price < worthIt) pairs_.push({a.price + b.price - price, price, r, a.after, a.version + b.version});
  }

  void merge(const Pair& pair) {
    Run& a = runs_[pair.first];
    Run& b = runs_[pair.second];
    a.sums.add(b.sums);
    a.way += b.way;
    a.price = pair.price;
    a.after = b.after;
    a.version += b.version + 1;
    b.gone = true;
    --count_;
    if (b.after != kNone) runs_[b.after].before = pair.first;
    offer(a.before);
    offer(pair.first);
  }

  const SplitLimits& limits_;
  std::vector<Run> runs_;
  std::size_t count_ = 0;
  std::priority_queue<Pair> pairs_;
};

}  // namespace

std::vector<std::size_t> likelyBreaks(const Track& track, const SplitLimits& limits) {
  Merger merger(track, limits);
  merger.mergeAll();
  return merger.beginnings();
}

}  // namespace rim
