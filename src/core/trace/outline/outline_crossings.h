#pragma once

#include <span>
#include <stop_token>
#include <vector>

#include "core/geometry/crossing.h"
#include "core/geometry/path.h"

namespace rim::trace::outline {

/// Where closed outlines (px) cross or touch themselves or each other; as they are, or as someone may draw them by
/// chords that leave them by 0.01 px. Those that keep 0.2 px apart are seen to do so by few chords; the others, and
/// those with needle-sharp corners, are looked at closely. Throws Cancelled when `stop` is requested.
class OutlineCrossings {
 public:
  /// The outlines and the places within 0.1 px of which they may meet are looked at, not copied: they must outlive
  /// this.
  explicit OutlineCrossings(const std::vector<Path>& outlines, std::span<const Point> meetings = {});

  /// Outline i, below their number, has become another one. Different ones may be told of at the same time.
  void changed(std::size_t i);

  /// By ascending index of the outlines; one of two is listed for both.
  std::vector<Crossing> find(const std::stop_token& stop) const;

 private:
  bool mayMeet(Point place) const;
  std::vector<Crossing> foundAmong(const std::vector<std::size_t>& group, const std::stop_token& stop) const;

  const std::vector<Path>& outlines_;
  std::span<const Point> meetings_;
  std::vector<Polyline> wide_;
};

}  // namespace rim::trace::outline
