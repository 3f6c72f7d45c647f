#include "core/trace/lines/follow_tracks.h"

namespace rim::trace::lines {
namespace {

/// Follows tracks from one to the next.
class TrackFollower {
 public:
  TrackFollower(const std::vector<StrokeTrack>& tracks, const TrackLinks& links) : tracks_(tracks), links_(links) {
    for (const StrokeTrack& track : tracks) done_.push_back(track.area);
  }

  std::vector<StrokeLine> all() {
    std::vector<StrokeLine> lines;
    for (std::size_t end = 0; end < 2 * tracks_.size(); ++end) {
      if (!done_[end / 2] && !tracks_[end / 2].closed && !links_.partner[end]) lines.push_back(from(end));
    }
    for (std::size_t t = 0; t < tracks_.size(); ++t) {
      if (!done_[t]) lines.push_back(from(2 * t));
    }
    return lines;
  }

 private:
  void addTrack(StrokeLine& line, std::size_t entered) const {
    const StrokeTrack& track = tracks_[entered / 2];
    if (entered % 2 == 0)
      line.points.insert(line.points.end(), track.points.begin(), track.points.end());
    else
      line.points.insert(line.points.end(), track.points.rbegin(), track.points.rend());
    line.widths.insert(line.widths.end(), track.widths.begin(), track.widths.end());
  }

  void addMore(StrokeLine& line, std::size_t number, bool outward) const {
    const std::vector<Point>& more = links_.more[number];
    if (outward)
      line.points.insert(line.points.end(), more.begin(), more.end());
    else
      line.points.insert(line.points.end(), more.rbegin(), more.rend());
  }

  StrokeLine from(std::size_t first) {
    StrokeLine line;
    std::size_t entered = first;
    if (tracks_[first / 2].closed) {
      done_[first / 2] = true;
      addTrack(line, first);
      line.closed = true;
      return line;
    }
    if (!links_.partner[first]) {
      addMore(line, first, false);
      line.freeEnds[0] = links_.freeEnd[first];
    }
    while (true) {
      done_[entered / 2] = true;
      addTrack(line, entered);
      const std::size_t left = entered ^ 1U;
      addMore(line, left, true);
      if (!links_.partner[left]) {
        line.freeEnds[1] = links_.freeEnd[left];
        return line;
      }
      const std::size_t next = *links_.partner[left];
      addMore(line, next, false);
      if (next == first || done_[next / 2]) {
        line.closed = true;
        return line;
      }
      entered = next;
    }
  }

  const std::vector<StrokeTrack>& tracks_;
  const TrackLinks& links_;
  std::vector<bool> done_;
};

}  // namespace

std::vector<StrokeLine> followed(const std::vector<StrokeTrack>& tracks, const TrackLinks& links) {
  return TrackFollower(tracks, links).all();
}

}  // namespace rim::trace::lines
