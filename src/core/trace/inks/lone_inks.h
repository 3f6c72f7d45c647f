#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "core/colour/inks.h"
#include "core/geometry/path.h"
#include "core/trace/inks/cracks.h"
#include "core/trace/settings.h"
#include "core/work_control.h"

namespace rim::trace::inks {

/// A node of an outline, the end of a segment, and how sharply it turns there, radians, 0..pi.
struct OutlineNode {
  std::size_t segment = 0;
  double turn = 0;
};

/// The nodes of an outline within 2 px of a place.
std::vector<OutlineNode> nodesNear(const Path& outline, Point place);

/// The outlines that inks have when each is traced alone, by its share of every pixel (trace/inks/ink_shares.h), as a
/// picture in two tones is (trace/outline/trace_outlines.h). They know nothing of each other.
class LoneInks {
 public:
  struct Ink {
    std::uint8_t ink = 0;
    std::vector<Path> outlines{};  ///< upright px; the ink lies at their left
    std::vector<Box> boxes{};      ///< theirs, and kOffPx around
  };

  /// Outlines leave the sides of their pixels by no more than this.
  static constexpr double kOffPx = 1.5;

  /// None is traced.
  LoneInks() = default;

  /// Of every two inks that have a border one is traced, of few inks as many as that needs, without its outlines that
  /// show no border of which another one has none. None in pictures so large that greys say no more than borders do,
  /// nor with more than 1000 borders. Throws Cancelled.
  LoneInks(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map, const TraceSettings& settings,
           const WorkControl& control);

  /// The one with most borders first.
  const std::vector<Ink>& inks() const { return inks_; }

  /// Whether an outline of the ink goes past a place without corners that add up to 0.2 or more, in radians, within
  /// 2 px; false where the ink is not traced or none of its outlines comes near.
  bool isSmoothNear(std::uint8_t ink, Point place) const;

 private:
  std::vector<Ink> inks_;
};

}  // namespace rim::trace::inks
