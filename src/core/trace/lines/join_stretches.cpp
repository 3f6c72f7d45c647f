#include "core/trace/lines/join_stretches.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/segment_distance.h"
#include "core/median.h"
#include "core/trace/lines/follow_tracks.h"
#include "core/trace/lines/track_points.h"

namespace rim::trace::lines {
namespace {

/// How a stretch would run on. Where it bends too tightly for its last points to say, the border beside its end does.
Continuation onFrom(const StrokeTrack& track, std::size_t end, const StretchEnd& stretchEnd) {
  constexpr double kOtherWay = 0.12;
  const Continuation on = continuationAt(track, end);
  if (stretchEnd.kind == StretchEnd::Kind::Free || std::abs(angleBetween(on.direction, stretchEnd.out)) < kOtherWay)
    return on;
  const Point tip = end == 0 ? track.points.front() : track.points.back();
  return {{fit::Primitive::Kind::Line, tip, stretchEnd.out, 0}, tip, stretchEnd.out};
}

/// Joins stretches whose ends go on in each other.
class Joining {
 public:
  Joining(const BorderNearby& border, const std::vector<PenStretch>& stretches, double width)
      : border_(border), width_(width), links_(stretches.size()) {
    for (const PenStretch& stretch : stretches) {
      StrokeTrack track;
      track.points = evenly(stretch.points);
      track.widths = stretch.widths.empty() ? std::vector{width} : stretch.widths;
      track.width = track.discWidth = width;
      track.closed = stretch.closed;
      for (std::size_t end = 0; end < 2; ++end) {
        ends_.push_back(stretch.ends[end]);
        open_.push_back(!stretch.closed && stretch.ends[end].kind != StretchEnd::Kind::Free);
        on_.push_back(onFrom(track, end, stretch.ends[end]));
      }
      tracks_.push_back(std::move(track));
    }
  }

  std::vector<StrokeLine> run() {
    joinNeighbours();
    joinAcross();
    joinTouching();
    runOnToLines();
    joinAtCorners();
    runOnToLines();
    goStraightOn();
    for (std::size_t e = 0; e < ends_.size(); ++e) {
      if (links_.partner[e] || tracks_[e / 2].closed) continue;
      if (ends_[e].kind == StretchEnd::Kind::Free || open_[e]) links_.freeEnd[e] = freeEnd(e);
    }
    return followed(tracks_, links_);
  }

 private:
  struct Pair {
    std::size_t a, b;
    double cost;
    std::vector<Point> between;
  };

  FreeEnd freeEnd(std::size_t e) const {
    const Continuation& on = on_[e];
    const double toInk = border_.wayOut(on.tip, on.direction, width_).value_or(width_ / 2);
    return {on, on.tip + on.direction * toInk, width_};
  }

  Point tipOf(std::size_t e) const { return e % 2 == 0 ? tracks_[e / 2].points.front() : tracks_[e / 2].points.back(); }
  double turnBetween(std::size_t a, std::size_t b) const {
    return std::abs(angleBetween(on_[a].direction, -on_[b].direction));
  }
  bool isDeep(Point p) const { return border_.isClear(p, width_ / 2 - 2 * slackOf(width_)); }
  bool areDeep(const std::vector<Point>& points) const {
    return std::all_of(points.begin(), points.end(), [this](Point p) { return isDeep(p); });
  }

  /// Whether each of two ends lies ahead of the other, within `reach`.
  bool faceEachOther(std::size_t a, std::size_t b, double reach) const {
    const Point way = on_[b].tip - on_[a].tip;
    return length(way) <= reach && dot(way, on_[a].direction) >= 0 && dot(-way, on_[b].direction) >= 0;
  }

  bool canGoOn(std::size_t e) const {
    return !links_.partner[e] && (open_[e] || ends_[e].kind == StretchEnd::Kind::Free);
  }

  void take(std::vector<Pair> pairs) {
    std::stable_sort(pairs.begin(), pairs.end(), [](const Pair& p, const Pair& q) { return p.cost < q.cost; });
    for (Pair& pair : pairs) {
      if (!canGoOn(pair.a) || !canGoOn(pair.b)) continue;
      open_[pair.a] = open_[pair.b] = false;
      links_.partner[pair.a] = pair.b;
      links_.partner[pair.b] = pair.a;
      links_.more[pair.a] = std::move(pair.between);
    }
  }

  /// A stretch that comes onto the end of another one goes on in it.
  void joinNeighbours() {
    constexpr double kMostTurn = 0.9;
    constexpr double kSharp = 2.6;
    constexpr double kSharpReach = 1.2;  // widths: so far from its corner a sharp one's sides show as two
    const double reach = std::max(1.5, width_ / 6);
    std::vector<Pair> pairs;
    for (std::size_t e = 0; e < ends_.size(); ++e) {
      if (!open_[e] || ends_[e].kind != StretchEnd::Kind::OnLine) continue;
      for (const std::size_t f : {2 * ends_[e].stretch, 2 * ends_[e].stretch + 1}) {
        if (f == e || tracks_[f / 2].closed) continue;
        const double off = distance(tipOf(f), ends_[e].at);
        const double turn = turnBetween(e, f);
        const bool smooth = open_[f] && off < reach && turn < kMostTurn;
        // What runs back from a tip and then leaves its line came round a sharp corner.
        const bool sharp = !open_[f] && off < kSharpReach * width_ && turn > kSharp;
        if (smooth || sharp) pairs.push_back({e, f, turn, {}});
      }
    }
    take(std::move(pairs));
  }

  /// Ends that face each other over what other strokes hide.
  void joinAcross() {
    // Over a short way they may turn more.
    constexpr double kMostTurn = 0.35;
    constexpr double kTurnWhenNear = 1.1;
    constexpr double kOneArcPx = 0.12;
    const double nearPx = 0.6 * width_;
    const double reach = 3 * width_;
    std::vector<Pair> pairs;
    std::vector<Box> tips;
    for (const Continuation& on : on_) tips.push_back({on.tip, on.tip});
    const BoxIndex index(tips);
    for (std::size_t a = 0; a < ends_.size(); ++a) {
      if (!open_[a] || ends_[a].kind != StretchEnd::Kind::Hidden) continue;
      std::vector<std::size_t> others;
      index.near(tips[a], reach, [&](std::size_t b) {
        if (b > a && open_[b] && ends_[b].kind == StretchEnd::Kind::Hidden) others.push_back(b);
      });
      std::sort(others.begin(), others.end());
      for (const std::size_t b : others) {
        const Point way = on_[b].tip - on_[a].tip;
        if (length(way) < kTrackStepPx || !faceEachOther(a, b, reach)) continue;
        const double turn =
            std::abs(angleBetween(on_[a].direction, way)) + std::abs(angleBetween(on_[b].direction, -way));
        const double most = length(way) < nearPx ? kTurnWhenNear : kMostTurn;
        const bool straight = turn <= most + turnBetween(a, b) && turnBetween(a, b) <= most;
        if (!straight && (turnBetween(a, b) > kTurnWhenNear || offOf(lastOf(a), lastOf(b)) > kOneArcPx)) continue;
        std::vector<Point> between = isStub(a) && isStub(b) ? evenly({on_[a].tip, on_[b].tip}) : bridge(on_[a], on_[b]);
        if (areDeep(between)) pairs.push_back({a, b, turn + length(way) / (10 * width_), std::move(between)});
      }
    }
    take(std::move(pairs));
  }

  /// Whether too little of a stretch is seen to say in which direction it goes on.
  bool isStub(std::size_t e) const {
    constexpr double kLongest = 0.2;  // widths
    return tracks_[e / 2].points.size() <= std::max(kTipPoints, countOf(kLongest * width_));
  }

  /// The last points of a stretch, as long as it is wide.
  std::vector<Point> lastOf(std::size_t e) const {
    const StrokeTrack& track = tracks_[e / 2];
    return pointsFrom(track, e % 2 == 0 ? 0 : track.points.size() - 1, e % 2 == 0 ? 1 : -1, 0, countOf(width_));
  }
  static std::size_t countOf(double lengthPx) { return static_cast<std::size_t>(lengthPx / kTrackStepPx); }

  /// Two ends that come onto one line and go on in each other beside it: it is touched there.
  void joinTouching() {
    constexpr double kOnePx = 0.16;
    constexpr double kBesidePx = 0.03;  // else both would lie on the line
    constexpr double kReach = 2.5;      // widths
    std::vector<Pair> pairs;
    for (std::size_t a = 0; a < ends_.size(); ++a) {
      for (std::size_t b = a + 1; b < ends_.size() && open_[a] && ends_[a].kind == StretchEnd::Kind::OnLine; ++b) {
        if (!open_[b] || ends_[b].kind != StretchEnd::Kind::OnLine || ends_[a].stretch != ends_[b].stretch) continue;
        if (!faceEachOther(a, b, kReach * width_)) continue;
        const double off = offOf(lastOf(a), lastOf(b));
        if (off > kOnePx) continue;
        std::vector<Point> between = bridge(on_[a], on_[b]);
        std::vector<double> beside;
        for (const Point p : between) beside.push_back(besideOf(tracks_[ends_[a].stretch].points, p));
        if (beside.empty() || medianOf(beside) < kBesidePx) continue;
        if (areDeep(between)) pairs.push_back({a, b, off, std::move(between)});
      }
    }
    take(std::move(pairs));
  }

  /// Points of lines as they are now, and whose they are: those in reach of an end of which it is not known yet how it
  /// goes on. Of many strokes they are few.
  struct Lines {
    std::vector<Point> points;
    std::vector<std::size_t> track;
    std::vector<std::size_t> at;
  };
  Lines linesNow() const {
    std::vector<Point> tips;
    for (std::size_t e = 0; e < ends_.size(); ++e) {
      if (open_[e]) tips.push_back(on_[e].tip);
    }
    const BoxIndex index(boxesAt(tips));
    Lines lines;
    const auto add = [&](Point p, std::size_t track, std::size_t at) {
      bool inReach = false;
      index.near({p, p}, kRunOnReach * width_ + kMeetsPx, [&inReach](std::size_t) { inReach = true; });
      if (!inReach) return;
      lines.points.push_back(p);
      lines.track.push_back(track);
      lines.at.push_back(at);
    };
    for (std::size_t t = 0; t < tracks_.size(); ++t) {
      for (std::size_t i = 0; i < tracks_[t].points.size(); ++i) add(tracks_[t].points[i], t, i);
      for (const std::size_t e : {2 * t, 2 * t + 1}) {
        for (const Point p : links_.more[e]) add(p, t, e % 2 == 0 ? 0 : tracks_[t].points.size());
      }
    }
    return lines;
  }

  /// An end that is left over runs on to the first line ahead.
  void runOnToLines() {
    const Lines lines = linesNow();
    const BoxIndex index(boxesAt(lines.points));
    for (std::size_t e = 0; e < ends_.size(); ++e) {
      if (!open_[e]) continue;
      auto more = tracks_[e / 2].points.size() > kTipPoints ? std::nullopt : wayFromTip(e, lines, index);
      if (!more) more = wayOn(e, lines, index);
      if (more) {
        links_.more[e] = std::move(*more);
        open_[e] = false;
      } else if (ends_[e].kind == StretchEnd::Kind::OnLine) {
        links_.more[e] = {ends_[e].at};
        open_[e] = false;
      }
    }
  }

  /// Of a stroke of which the tip alone is seen the shortest way to a line is the likeliest, where it leads about
  /// ahead.
  std::optional<std::vector<Point>> wayFromTip(std::size_t e, const Lines& lines, const BoxIndex& index) const {
    constexpr double kAhead = 0.5;  // radians
    constexpr double kReach = 1.2;  // widths
    std::optional<Point> nearest;
    index.near({on_[e].tip, on_[e].tip}, kReach * width_, [&](std::size_t i) {
      const bool closer = !nearest || distance(lines.points[i], on_[e].tip) < distance(*nearest, on_[e].tip);
      if (lines.track[i] != e / 2 && closer) nearest = lines.points[i];
    });
    if (!nearest || std::abs(angleBetween(on_[e].direction, *nearest - on_[e].tip)) > kAhead) return {};
    std::vector<Point> way = evenly({on_[e].tip, *nearest});
    return areDeep(way) ? std::optional(std::move(way)) : std::nullopt;
  }

  std::optional<std::vector<Point>> wayOn(std::size_t e, const Lines& lines, const BoxIndex& index) const {
    const double reach = kRunOnReach * width_;
    const auto own = static_cast<double>(e % 2 == 0 ? 0 : tracks_[e / 2].points.size());
    std::vector<Point> way;
    for (double ahead = kTrackStepPx; ahead < reach; ahead += kTrackStepPx) {
      const Point p = fit::project(on_[e].shape, on_[e].tip + on_[e].direction * ahead);
      if (!isDeep(p)) return {};
      std::optional<Point> met;
      index.near({p, p}, kMeetsPx, [&](std::size_t i) {
        const bool itself =
            lines.track[i] == e / 2 && std::abs(static_cast<double>(lines.at[i]) - own) * kTrackStepPx < ahead + width_;
        if (!itself && (!met || distance(lines.points[i], p) < distance(*met, p))) met = lines.points[i];
      });
      way.push_back(met.value_or(p));
      if (met) return way;
    }
    return {};
  }

  /// Two ends that are left over meet at a corner.
  void joinAtCorners() {
    std::vector<Pair> pairs;
    for (std::size_t a = 0; a < ends_.size(); ++a) {
      for (std::size_t b = a + 1; open_[a] && b < ends_.size(); ++b) {
        if (!open_[b]) continue;
        const auto at = meetingOf(on_[a], on_[b], width_ / 4, 2 * width_);
        if (!at) continue;
        std::vector<Point> between = pointsOnTo(on_[a], *at);
        const std::vector<Point> back = pointsOnTo(on_[b], *at);
        between.insert(between.end(), back.rbegin() + 1, back.rend());
        if (areDeep(between)) pairs.push_back({a, b, turnBetween(a, b), std::move(between)});
      }
    }
    take(std::move(pairs));
  }

  /// Where a stretch comes onto a line along which it would go on more smoothly than that does, it goes on there, and
  /// the rest of that line ends at it.
  void goStraightOn() {
    std::vector<Box> boxes;  // of tracks as they were: cut, they are within them
    for (std::size_t e = 0; e < ends_.size(); ++e) {
      if (tracks_[e / 2].closed || links_.partner[e] || ends_[e].kind != StretchEnd::Kind::OnLine) continue;
      std::optional<std::size_t> track;
      std::size_t at = 0;
      double least = std::max(1.5, width_ / 8);
      for (std::size_t t = 0; t < tracks_.size(); ++t) {
        if (boxes.size() <= t) boxes.push_back(boxOf(tracks_[t].points));
        if (t == e / 2 || apart(boxes[t], {tipOf(e), tipOf(e)}, least)) continue;
        for (std::size_t i = 0; i < tracks_[t].points.size(); ++i) {
          const double off = distance(tracks_[t].points[i], tipOf(e));
          if (off < least) {
            least = off;
            track = t;
            at = i;
          }
        }
      }
      if (track) goOnAlong(e, *track, at);
    }
  }

  void goOnAlong(std::size_t e, std::size_t t, std::size_t at) {
    constexpr double kBeside = 0.8;  // the cosine between both
    constexpr double kMuch = 0.5;
    constexpr double kNothingPx = 0.03;
    const std::size_t some = countOf(width_);
    const std::size_t skip = some * 2 / 5;
    const std::vector<Point> ahead = pointsFrom(tracks_[t], at, 1, 0, 3);
    const std::vector<Point> behind = pointsFrom(tracks_[t], at, -1, 0, 3);
    if (ahead.size() < 2 || behind.size() < 2) return;
    const double along = dot(unit(ahead.back() - behind.back()), on_[e].direction);
    if (std::abs(along) < kBeside) return;
    const int step = along > 0 ? 1 : -1;
    const std::vector<Point> next = pointsFrom(tracks_[t], at, step, skip, some);
    const std::vector<Point> before = pointsFrom(tracks_[t], at, -step, 0, some);
    const std::vector<Point> own = lastOf(e);
    if (next.size() < some / 2 || before.size() < some / 2 || own.size() < some / 2) return;
    if (offOf(own, next) + kNothingPx > kMuch * offOf(before, next)) return;
    const bool wasClosed = tracks_[t].closed;
    const std::size_t f = cutAt(t, pointsFrom(tracks_[t], at, step, 0, skip).size(), at, step);
    const std::size_t left = wasClosed ? f ^ 1U : f == 2 * t + 1 ? 2 * (tracks_.size() - 1) : 2 * t + 1;
    endBeside(left, tipOf(e), tipOf(f));
    links_.more[e] = {};
    links_.partner[e] = f;
    links_.partner[f] = e;
  }

  /// Takes back of a track's end what lies along a straight way; it ends on that.
  void endBeside(std::size_t end, Point from, Point to) {
    constexpr double kBesidePx = 0.3;
    std::vector<Point>& points = tracks_[end / 2].points;
    if (end % 2 == 0) std::reverse(points.begin(), points.end());
    const std::size_t most = points.size() / 2;
    for (std::size_t k = 0; k < most && distanceToSegment(points.back(), from, to) < kBesidePx; ++k) points.pop_back();
    const Point way = to - from;
    const double share = dot(points.back() - from, way) / std::max(dot(way, way), 1e-12);
    points.push_back(lerp(from, to, std::clamp(share, 0.0, 1.0)));
    if (end % 2 == 0) std::reverse(points.begin(), points.end());
  }

  /// Cuts a track so many points past one of them, as seen in a direction. The number of the end at which what lies
  /// ahead begins.
  std::size_t cutAt(std::size_t t, std::size_t past, std::size_t at, int step) {
    StrokeTrack& track = tracks_[t];
    const auto n = static_cast<std::ptrdiff_t>(track.points.size());
    const std::ptrdiff_t place = static_cast<std::ptrdiff_t>(at) + step * static_cast<std::ptrdiff_t>(past);
    if (track.closed) {
      const auto begin = static_cast<std::size_t>((place % n + n) % n);
      std::rotate(track.points.begin(), track.points.begin() + static_cast<std::ptrdiff_t>(begin), track.points.end());
      track.points.push_back(track.points.front());
      track.closed = false;
      for (const std::size_t cut : {2 * t, 2 * t + 1}) ends_[cut].kind = StretchEnd::Kind::Hidden;
      return 2 * t + (step > 0 ? 0 : 1);
    }
    const auto begin =
        static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(place, 1, std::max<std::ptrdiff_t>(1, n - 2)));
    StrokeTrack rest = track;
    rest.points.erase(rest.points.begin(), rest.points.begin() + static_cast<std::ptrdiff_t>(begin));
    track.points.resize(begin + 1);
    const std::size_t r = tracks_.size();
    tracks_.push_back(std::move(rest));
    ends_.resize(2 * r + 2);
    open_.resize(2 * r + 2, false);
    on_.resize(2 * r + 2, on_[2 * t]);
    links_.partner.resize(2 * r + 2);
    links_.more.resize(2 * r + 2);
    links_.freeEnd.resize(2 * r + 2);
    // The far end of the track is that of the rest now.
    ends_[2 * r + 1] = ends_[2 * t + 1];
    open_[2 * r + 1] = open_[2 * t + 1];
    on_[2 * r + 1] = on_[2 * t + 1];
    links_.more[2 * r + 1] = std::move(links_.more[2 * t + 1]);
    links_.partner[2 * r + 1] = links_.partner[2 * t + 1];
    if (links_.partner[2 * r + 1]) links_.partner[*links_.partner[2 * r + 1]] = 2 * r + 1;
    links_.more[2 * t + 1] = {};
    links_.partner[2 * t + 1].reset();
    for (const std::size_t cut : {2 * t + 1, 2 * r}) {
      ends_[cut] = {StretchEnd::Kind::Hidden, 0, {}, {}};
      open_[cut] = false;
    }
    return step > 0 ? 2 * r : 2 * t + 1;
  }

  static constexpr double kRunOnReach = 2.5;    ///< widths: so far an end that is left over runs on
  static constexpr double kMeetsPx = 0.6;       ///< and so near to a line it is there
  static constexpr std::size_t kTipPoints = 3;  ///< of a track that is no more than a tip

  const BorderNearby& border_;
  double width_;
  TrackLinks links_;
  std::vector<StrokeTrack> tracks_;
  std::vector<StretchEnd> ends_;  ///< by number, as in links_
  std::vector<bool> open_;        ///< of those it is not known yet how they go on
  std::vector<Continuation> on_;
};

}  // namespace

std::vector<StrokeLine> joined(const BorderNearby& border, const std::vector<PenStretch>& stretches, double width) {
  return Joining(border, stretches, width).run();
}

}  // namespace rim::trace::lines
