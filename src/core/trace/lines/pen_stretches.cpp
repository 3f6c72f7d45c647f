#include "core/trace/lines/pen_stretches.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/trace/lines/track_points.h"

namespace rim::trace::lines {
namespace {

constexpr std::size_t kNone = static_cast<std::size_t>(-1);

/// Samples that follow each other along a ring and show the pen's way without a break.
struct SampleRun {
  std::vector<std::uint32_t> samples;
  bool round = false;  ///< all of a ring: the last one goes over into the first
};

double wayAlong(const std::vector<ShownMiddle>& middles, const std::vector<std::uint32_t>& samples) {
  double way = 0;
  for (std::size_t i = 1; i < samples.size(); ++i)
    way += distance(middles[samples[i - 1]].place, middles[samples[i]].place);
  return way;
}

/// Follows runs one after the other and takes what none before has shown.
class PenFollower {
 public:
  PenFollower(const MedialAxis& axis, const BorderNearby& border, double width, double same)
      : axis_(axis),
        width_(width),
        samePx_(std::max(0.8, same * width)),
        middles_(shownMiddles(axis, border, width)),
        stands_(axis.samples.size(), false),
        takenBy_(axis.samples.size(), kNone),
        index_(boxesAt(places())) {}

  std::vector<PenStretch> run() {
    findStandstills();
    std::vector<SampleRun> runs;
    for (const SampleRing& ring : axis_.rings) addRuns(ring, runs);
    std::stable_sort(runs.begin(), runs.end(), [this](const SampleRun& a, const SampleRun& b) {
      return a.round != b.round ? a.round : wayAlong(middles_, a.samples) > wayAlong(middles_, b.samples);
    });
    for (SampleRun& one : runs) follow(begunWell(std::move(one)));
    return std::move(found_);
  }

 private:
  std::vector<Point> places() const {
    std::vector<Point> places;
    places.reserve(middles_.size());
    for (const ShownMiddle& m : middles_) places.push_back(m.place);
    return places;
  }

  /// The mean of what samples `first` to `end` - 1 of a list show.
  Point meanOf(const std::vector<std::uint32_t>& samples, std::size_t first, std::size_t end) const {
    Point sum;
    for (std::size_t i = first; i < end; ++i) sum = sum + middles_[samples[i]].place;
    return sum * (1 / static_cast<double>(end - first));
  }

  /// Where the border goes on and the middle does not.
  void findStandstills() {
    constexpr double kShare = 0.2;
    for (const SampleRing& ring : axis_.rings) {
      const double spacing = ring.length / static_cast<double>(ring.end - ring.first);
      const auto reach = std::max<std::ptrdiff_t>(1, std::lround(tangentReachOf(width_) / spacing));
      for (std::uint32_t s = ring.first; s < ring.end; ++s) {
        const std::uint32_t before = sampleBeside(axis_, s, -reach);
        const std::uint32_t after = sampleBeside(axis_, s, reach);
        if (!middles_[s].shown || !middles_[before].shown || !middles_[after].shown) continue;
        stands_[s] = distance(middles_[before].place, middles_[after].place) <
                     kShare * distance(axis_.samples[before].place, axis_.samples[after].place);
      }
    }
  }

  bool goesOn(std::uint32_t from, std::uint32_t to) const {
    const ShownMiddle& a = middles_[from];
    const ShownMiddle& b = middles_[to];
    if (!a.shown || !b.shown) return false;
    // Inside a bend the middle goes farther than the border does.
    constexpr double kFarthest = 1.0 / 3;  // widths
    constexpr double kSameWay = 0.8;
    const double jump = distance(a.place, b.place);
    return jump < samePx_ || (jump < kFarthest * width_ && dot(a.way, b.way) > kSameWay);
  }

  void addRuns(const SampleRing& ring, std::vector<SampleRun>& runs) const {
    const std::uint32_t n = ring.end - ring.first;
    std::optional<std::uint32_t> gap;
    for (std::uint32_t k = 0; k < n && !gap; ++k) {
      if (!goesOn(ring.first + k, ring.first + (k + 1) % n)) gap = k;
    }
    if (!gap) {
      // Begun at a tip, if it has one, a line that no other meets is followed once.
      std::uint32_t begin = 0;
      for (std::uint32_t k = 0; k < n; ++k) {
        if (stands_[ring.first + k]) begin = k;
      }
      SampleRun run{{}, true};
      for (std::uint32_t k = 0; k < n; ++k) run.samples.push_back(ring.first + (begin + k) % n);
      runs.push_back(std::move(run));
      return;
    }
    SampleRun run;
    for (std::uint32_t k = 1; k <= n; ++k) {
      const std::uint32_t s = ring.first + (*gap + k) % n;
      if (!run.samples.empty() && !goesOn(run.samples.back(), s)) {
        runs.push_back(std::move(run));
        run = {};
      }
      if (middles_[s].shown) run.samples.push_back(s);
    }
    if (!run.samples.empty()) runs.push_back(std::move(run));
  }

  /// Of the samples at the other edge the one that shows most nearly the same place; `taken`: of those only that
  /// belong to a stretch.
  std::optional<std::uint32_t> across(std::uint32_t s, bool taken) const {
    constexpr double kOtherWay = -0.85;
    std::optional<std::uint32_t> best;
    double least = samePx_;
    index_.near({middles_[s].place, middles_[s].place}, samePx_, [&](std::size_t i) {
      if (!middles_[i].shown || (taken && takenBy_[i] == kNone)) return;
      const double off = distance(middles_[i].place, middles_[s].place);
      if (off > least || dot(middles_[i].way, middles_[s].way) > kOtherWay) return;
      least = off;
      best = static_cast<std::uint32_t>(i);
    });
    return best;
  }

  /// A round run of which something is taken already begins there, so that no stretch of it is in two.
  SampleRun begunWell(SampleRun run) const {
    const auto first = std::find_if(run.samples.begin(), run.samples.end(),
                                    [this](std::uint32_t s) { return across(s, true).has_value(); });
    if (run.round && first != run.samples.end()) std::rotate(run.samples.begin(), first, run.samples.end());
    return run;
  }

  void follow(const SampleRun& run) {
    StretchEnd last{run.round ? StretchEnd::Kind::Free : StretchEnd::Kind::Hidden, 0, {}, {}};
    if (run.round) {
      // Round a ring it comes back to what it began with.
      const auto other = across(run.samples.front(), true);
      if (other) last = {StretchEnd::Kind::OnLine, takenBy_[*other], middles_[*other].place, {}};
    }
    std::vector<std::uint32_t> taken;
    StretchEnd start{run.round ? StretchEnd::Kind::Free : StretchEnd::Kind::Hidden, 0, {}, {}};
    for (std::size_t k = 0; k < run.samples.size(); ++k) {
      const std::uint32_t s = run.samples[k];
      const auto other = across(s, true);
      if (!other || turnsBack(run, k, *other)) {
        taken.push_back(s);
        takenBy_[s] = found_.size();
        continue;
      }
      const StretchEnd met = endOn(*other, taken);
      if (!taken.empty()) finish(std::move(taken), start, met);
      taken.clear();
      start = StretchEnd{StretchEnd::Kind::OnLine, takenBy_[*other], middles_[*other].place, {}};
    }
    if (taken.empty()) return;
    const bool whole = run.round && taken.size() == run.samples.size();
    finish(std::move(taken), start, last, whole);
  }

  /// Whether the run only seems to come onto the stretch that it makes: round a sharp corner it soon leaves it again.
  bool turnsBack(const SampleRun& run, std::size_t k, std::uint32_t other) const {
    constexpr double kAlong = -0.97;  // what runs back on its own line runs just the other way
    if (takenBy_[other] != found_.size()) return false;
    double way = 0;
    for (std::size_t i = k + 1; i < run.samples.size() && way < width_ / 2; ++i) {
      const auto last = across(run.samples[i - 1], true);
      if (!across(run.samples[i], true))
        return last && dot(middles_[*last].way, middles_[run.samples[i - 1]].way) > kAlong;
      way += distance(middles_[run.samples[i - 1]].place, middles_[run.samples[i]].place);
    }
    return false;
  }

  double extentOf(const std::vector<std::uint32_t>& samples) const {
    double extent = 0;
    for (const std::uint32_t s : samples)
      extent = std::max(extent, distance(middles_[samples.front()].place, middles_[s].place));
    return extent;
  }

  /// By how much the border turns while the middle stands still at the beginning of samples, radians.
  template <typename Iterator>
  double standsAtEnd(Iterator first, Iterator end) const {
    double turn = 0;
    for (Iterator s = first; s != end && std::next(s) != end && stands_[*s]; ++s)
      turn += angleBetween(middles_[*s].way, middles_[*std::next(s)].way);
    return std::abs(turn);
  }

  /// By how much the border turns along samples, radians.
  double turnAlong(const std::vector<std::uint32_t>& samples) const {
    double turn = 0;
    for (std::size_t i = 1; i < samples.size(); ++i)
      turn += angleBetween(middles_[samples[i - 1]].way, middles_[samples[i]].way);
    return turn;
  }

  /// Of a stroke that comes hardly out of another one the tip alone is seen.
  void takeTip(const std::vector<std::uint32_t>& taken) {
    const std::size_t aside = taken.size() / 4;  // beside the tip edges may show, too
    const Point tip = meanOf(taken, aside, taken.size() - aside);
    const Point out = unit(middles_[taken.front()].way - middles_[taken.back()].way);
    constexpr double kTipPx = 1;
    PenStretch stretch;
    stretch.points = {tip - out * kTipPx, tip};
    stretch.ends[0] = {StretchEnd::Kind::Hidden, 0, {}, -out};
    stretch.ends[1] = {StretchEnd::Kind::Free, 0, {}, out};
    found_.push_back(std::move(stretch));
  }

  /// Where a stretch ends that comes onto a sample of another one, or, round a tip, onto its own.
  StretchEnd endOn(std::uint32_t other, const std::vector<std::uint32_t>& taken) const {
    if (takenBy_[other] != found_.size() || taken.empty())
      return {StretchEnd::Kind::OnLine, takenBy_[other], middles_[other].place, {}};
    const auto at = std::find(taken.begin(), taken.end(), other);
    const std::vector<std::uint32_t> rest(at, taken.end());
    const bool folds = wayAlong(middles_, rest) < width_;
    return {folds ? StretchEnd::Kind::Free : StretchEnd::Kind::OnLine, found_.size(), middles_[other].place, {}};
  }

  void finish(std::vector<std::uint32_t> taken, const StretchEnd& start, const StretchEnd& end, bool whole = false) {
    constexpr double kTipTurn = 2;
    constexpr double kTipShare = 0.35;
    const double shortest = 0.12 * width_;
    const double extent = extentOf(taken);
    const bool comesOut = start.kind != StretchEnd::Kind::OnLine && end.kind != StretchEnd::Kind::OnLine;
    // Where noise keeps both of its edges from showing the same, the run has been all round it.
    const double stub = end.kind == StretchEnd::Kind::Hidden ? kTipShare * width_ : shortest;
    if (comesOut && extent < stub && turnAlong(taken) > kTipTurn) return takeTip(taken);
    if (extent < shortest) {
      for (const std::uint32_t s : taken) takenBy_[s] = kNone;
      return;
    }
    PenStretch stretch;
    stretch.closed = whole;
    stretch.ends = {start, end};
    stretch.ends[0].out = -middles_[taken.front()].way;
    stretch.ends[1].out = middles_[taken.back()].way;
    if (standsAtEnd(taken.begin(), taken.end()) > kTipTurn) stretch.ends[0].kind = StretchEnd::Kind::Free;
    if (standsAtEnd(taken.rbegin(), taken.rend()) > kTipTurn) stretch.ends[1].kind = StretchEnd::Kind::Free;
    takePoints(stretch, taken);
    if (whole && runsBackOnItself(stretch.points)) openAtTips(stretch);
    found_.push_back(std::move(stretch));
  }

  /// Whether a way all round a short stroke encloses nothing.
  bool runsBackOnItself(const std::vector<Point>& points) const {
    const Path path = pathThrough(points, true);
    return std::abs(signedArea(path)) < samePx_ * pathLength(path) / 4;
  }

  /// The half of a way that runs back on itself, between its tips.
  void openAtTips(PenStretch& stretch) const {
    std::vector<Point>& points = stretch.points;
    const auto farther = [&](Point a, Point b) { return distance(a, points.front()) < distance(b, points.front()); };
    points.erase(std::max_element(points.begin(), points.end(), farther) + 1, points.end());
    const Point way = unit(points.back() - points.front());
    stretch.closed = false;
    stretch.ends[0] = {StretchEnd::Kind::Free, 0, {}, -way};
    stretch.ends[1] = {StretchEnd::Kind::Free, 0, {}, way};
  }

  /// Where the middle stands still one point, elsewhere what both edges show, or the one.
  void takePoints(PenStretch& stretch, const std::vector<std::uint32_t>& taken) const {
    for (std::size_t k = 0; k < taken.size();) {
      const std::size_t first = k;
      while (k < taken.size() && stands_[taken[k]]) ++k;
      if (k > first) {
        stretch.points.push_back(meanOf(taken, first, k));
        continue;
      }
      const std::uint32_t s = taken[k++];
      const auto other = across(s, false);
      if (other) stretch.widths.push_back(distance(axis_.samples[s].place, axis_.samples[*other].place));
      stretch.points.push_back(other ? lerp(middles_[s].place, middles_[*other].place, 0.5) : middles_[s].place);
    }
  }

  const MedialAxis& axis_;
  double width_;
  double samePx_;  ///< two edges show one way when they put it nearer than this
  std::vector<ShownMiddle> middles_;
  std::vector<bool> stands_;
  std::vector<std::size_t> takenBy_;  ///< the stretch of each sample
  BoxIndex index_;
  std::vector<PenStretch> found_;
};

}  // namespace

std::vector<PenStretch> penStretches(const MedialAxis& axis, const BorderNearby& border, double width, double same) {
  return PenFollower(axis, border, width, same).run();
}

}  // namespace rim::trace::lines
