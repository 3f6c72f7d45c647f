#include "core/refine/edit/trim.h"

#include <algorithm>

#include "core/geometry/intersect.h"
#include "core/geometry/segment.h"

namespace rim::refine {
namespace {

/// Whether two segments of one path follow each other at the place that they share.
bool goesOn(const Path& path, std::size_t a, std::size_t b, const Meeting& meeting) {
  constexpr double kEnd = 1e-6;
  const std::size_t n = path.segments.size();
  const auto follows = [&](std::size_t first, std::size_t second) {
    return second == first + 1 || (path.closed && first + 1 == n && second == 0);
  };
  return (follows(a, b) && meeting.t > 1 - kEnd && meeting.u < kEnd) ||
         (follows(b, a) && meeting.u > 1 - kEnd && meeting.t < kEnd);
}

void addMeetings(const Path& path, const Path& other, bool itself, std::vector<PathPlace>& places) {
  const Box box = boxOf(other);
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    const Box own = boxOf(piece);
    if (apart(own, box, 0)) continue;
    for (std::size_t k = 0; k < other.segments.size(); ++k) {
      if (itself && k == i) continue;
      const Piece there = pieceOf(other, k);
      if (apart(own, boxOf(there), 0)) continue;
      for (const Meeting& meeting : meetings(piece, there)) {
        if (!itself || !goesOn(path, i, k, meeting)) places.push_back({i, meeting.t, meeting.place, 0});
      }
    }
  }
}

/// Whether two places are one: also where the path comes to a node, and goes on from it.
bool isSame(const Path& path, const PathPlace& a, const PathPlace& b) {
  constexpr double kSame = 1e-6;  // of a segment
  const double n = static_cast<double>(path.segments.size());
  const double apart = std::abs(static_cast<double>(a.segment) + a.t - static_cast<double>(b.segment) - b.t);
  return apart <= kSame || (path.closed && n - apart <= kSame);
}

/// In order, each once: a meeting at a node is found with both its segments.
std::vector<PathPlace> inOrder(const Path& path, std::vector<PathPlace> places) {
  std::sort(places.begin(), places.end(), isBefore);
  const auto same = [&path](const PathPlace& a, const PathPlace& b) { return isSame(path, a, b); };
  places.erase(std::unique(places.begin(), places.end(), same), places.end());
  if (places.size() > 1 && same(places.front(), places.back())) places.pop_back();
  return places;
}

}  // namespace

std::vector<PathPlace> meetingPlaces(const Drawing& drawing, std::size_t outline) {
  const Path& path = drawing.path(outline);
  const Box box = boxOf(path);
  std::vector<PathPlace> places;
  for (std::size_t other = 0; other < drawing.outlines.size(); ++other) {
    const Path& there = drawing.path(other);
    if (!there.segments.empty() && !apart(box, boxOf(there), 0)) addMeetings(path, there, other == outline, places);
  }
  return inOrder(path, std::move(places));
}

Trimmed trimmedAt(const Path& path, const std::vector<PathPlace>& meetings, const PathPlace& at) {
  const PathPlace start = startPlace(path);
  const PathPlace end = endPlace(path);
  std::vector<PathPlace> ends;
  for (const PathPlace& place : inOrder(path, meetings)) {
    const bool atAnEnd = !path.closed && (isSame(path, place, start) || isSame(path, place, end));
    if (!atAnEnd) ends.push_back(place);
  }
  if (ends.empty() || (path.closed && ends.size() == 1)) return {path, {}};
  const auto next = std::upper_bound(ends.begin(), ends.end(), at, isBefore);
  if (path.closed) {
    const PathPlace& to = next == ends.end() ? ends.front() : *next;
    const PathPlace& from = next == ends.begin() ? ends.back() : *std::prev(next);
    return {stretchOf(path, from, to), {stretchOf(path, to, from)}};
  }
  const PathPlace& from = next == ends.begin() ? start : *std::prev(next);
  const PathPlace& to = next == ends.end() ? end : *next;
  Trimmed trimmed{stretchOf(path, from, to), {}};
  if (next != ends.begin()) trimmed.left.push_back(stretchOf(path, start, from));
  if (next != ends.end()) trimmed.left.push_back(stretchOf(path, to, end));
  return trimmed;
}

}  // namespace rim::refine
